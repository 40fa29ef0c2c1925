// What sentences are put together of: words, values, choices; and the changes that an operation offers.
import type { Piece } from '../api/client';
import type { Path } from './edit';
import type { PathIn } from './paths';

/** Which names a value may be one of. */
export type Names =
  | 'edges'
  | 'panels'
  | 'bends'
  | 'lines'
  | 'holes'
  | 'operations'
  | 'features'
  | 'nodes'
  | 'lines3'
  | 'members'
  | 'sections'
  | 'flat heads'
  | 'socket heads'
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
  | { kind: 'choice'; path: Path; value: string; label: string; options: Way[] };

/**
 * One way of a choice: its key, its words, and what it puts in the document where that is not the key; undefined
 * takes the field out.
 */
export type Way = readonly [key: string, words: string, puts?: { value: unknown }];

/** What a way puts. */
export const puts = (value: unknown): { value: unknown } => ({ value });

/** What choosing a way puts in the document. */
export const putBy = (options: Way[], key: string): unknown => {
  const found = options.find((one) => one[0] === key)?.[2];
  return found ? found.value : key;
};

export interface Change<A = unknown> {
  words: string;
  /** Where, inside the action, and what; undefined takes it out. */
  sets: [PathIn<A>, unknown][];
}

/** How a value in a sentence is asked for. */
export interface Asking {
  ghost?: string;
  optional?: boolean;
  names?: Names;
  list?: boolean;
}

/** Writes the parts of one operation's sentence; paths are inside its action, as the schema has it. */
export interface Writer<A = unknown> {
  value: (label: string, path: PathIn<A>, more?: Asking) => Part;
  /** A field of one word. */
  choice: (label: string, path: PathIn<A>, standard: string, options: Way[]) => Part;
  /** A field that is a word or an object of one field: which of them, each way putting the whole of it. */
  whole: (label: string, path: PathIn<A>, standard: string, options: Way[]) => Part;
  /** A yes or no as a choice of words. */
  yes: (label: string, path: PathIn<A>, no: string, yes: string) => Part;
  get: (path: PathIn<A>) => unknown;
}

/** A writer of an action as one of the fields that several actions share. */
export const sharing = <Shared, A extends Shared>(writer: Writer<A>): Writer<Shared> =>
  writer as unknown as Writer<Shared>;

export const word = (text: string, strong = false): Part => ({ kind: 'word', text, strong });

/**
 * A typed line as read: the action with the stem of its name, what is wrong in words, or nothing where parts are
 * missing.
 */
export type Typed = { stem: string; action: object } | string | undefined;

/** What is typed for a verb, and how its parts are read. */
export interface Phrase {
  verb: string;
  words: string;
  example: string;
  read: (parts: string[], piece: Piece) => Typed;
}

/** What a call-out may measure, with the fields that it takes. */
export interface MeasureForm {
  words: string;
  start: unknown;
  inputs: {
    path: Path;
    label: string;
    list?:
      | 'features'
      | 'bends'
      | 'holes'
      | 'forms'
      | 'panels'
      | 'edges'
      | 'rims'
      | 'operations'
      | 'nodes'
      | 'members'
      | 'pieces'
      | 'faces';
    options?: string[];
  }[];
}

/** The one key of a value that is a word or an object of one field; `standard` where there is none. */
export const keyOf = (value: unknown, standard = ''): string =>
  typeof value === 'string' ? value : (Object.keys((value as object | undefined) ?? {})[0] ?? standard);

/** As `keyOf`, `none` where there is none. */
export const kindOf = (value: unknown): string => keyOf(value, 'none');
