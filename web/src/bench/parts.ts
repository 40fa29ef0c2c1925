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
