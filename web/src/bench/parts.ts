// What sentences are put together of: words, values, choices; and the changes that an operation offers.
import type { Path } from './edit';

/** Which names a value may be one of. */
export type Names =
  | 'edges'
  | 'panels'
  | 'lines'
  | 'holes'
  | 'operations'
  | 'features'
  | 'nodes'
  | 'lines3'
  | 'members'
  | 'sections'
  | 'materials';

export type Part =
  | { kind: 'word'; text: string; strong?: boolean }
  | {
      kind: 'value';
      path: Path;
      text: string;
      label: string;
      ghost?: string;
      optional?: boolean;
      names?: Names;
      list?: boolean;
    }
  | { kind: 'choice'; path: Path; value: string; label: string; options: [string, string][] };

export interface Change {
  words: string;
  /** Where, inside the action, and what; undefined takes it out. */
  sets: [Path, unknown][];
}

/** Writes the parts of one operation's sentence; paths are inside its action. */
export interface Writer {
  value: (
    label: string,
    path: Path,
    more?: { ghost?: string; optional?: boolean; names?: Names; list?: boolean },
  ) => Part;
  choice: (label: string, path: Path, standard: string, options: [string, string][]) => Part;
  get: (path: Path) => unknown;
}

export const word = (text: string, strong = false): Part => ({ kind: 'word', text, strong });

/** What is typed for a verb. */
export interface Phrase {
  verb: string;
  words: string;
  example: string;
}

/** A typed line as read: the action with the stem of its name, what is wrong in words, or nothing where parts are missing. */
export type Typed = { stem: string; action: object } | string | undefined;

/** What choices that stand for a whole field put there, by label and value; undefined takes the field out. */
export type Choices = Record<string, Record<string, unknown>>;

/** What a call-out may measure, with the fields that it takes. */
export interface MeasureForm {
  words: string;
  start: unknown;
  inputs: {
    path: Path;
    label: string;
    list?: 'features' | 'bends' | 'holes' | 'panels' | 'edges' | 'nodes' | 'members' | 'pieces' | 'faces';
    options?: string[];
  }[];
}

/** The one key of a value that is a word or an object of one field. */
export const kindOf = (value: unknown): string =>
  value == null ? 'none' : typeof value === 'string' ? value : (Object.keys(value)[0] ?? 'none');
