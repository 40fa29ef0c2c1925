// What a verb is on the bench: how it is typed, how it reads as a sentence, what can be changed of it in one click.
import type { Operation } from '../api/client';
import type { components } from '../api/schema';
import type { Change, Part, Phrase, Writer } from '../bench/parts';
import type { PathIn } from '../bench/paths';

type Action = components['schemas']['Action'];
type KeyOf<T> = T extends unknown ? keyof T & string : never;
/** Verbs of the schema. */
export type VerbKey = KeyOf<Action>;
/** What stands under a verb in the document. */
export type ActionOf<Key extends VerbKey> = Extract<Action, Record<Key, unknown>>[Key];

/** What a sentence is about besides its action; `sides` are the ends of a bend's edge. */
export interface About {
  operation: Operation;
  sides: string[];
}

/** What an operation is changed with: its fields, and the names that there are. */
export interface Changing<A = unknown> {
  operation: Operation;
  get: (path: PathIn<A>) => unknown;
  edges: string[];
  holes: string[];
}

export interface Verb<Key extends VerbKey = VerbKey> {
  key: Key;
  /** Lines that can be typed for it, and their reading. */
  phrases: Phrase[];
  sentence: (writer: Writer<ActionOf<Key>>, about: About) => Part[];
  changes?: (about: Changing<ActionOf<Key>>) => Change<ActionOf<Key>>[];
}

/** A verb as a row of its kind's list, where it stands beside others. */
export type VerbRow = { key: VerbKey; phrases: Phrase[] } & {
  sentence: (writer: Writer, about: About) => Part[];
  changes?: (about: Changing) => Change[];
};

/** Makes a row of a verb: its paths are the schema's, and past this they are paths. */
export const verb = <Key extends VerbKey>(own: Verb<Key>): VerbRow => own as unknown as VerbRow;

/** How many and how far apart: `2 at 50 mm`; `2 off 50 mm`, as some write it, means the same. */
export const COUNTED = /^(\d\S*|[A-Z]\w*|\S+(?=\s+off))\s+(?:at|off)(?:\s+(.+))?$/;
