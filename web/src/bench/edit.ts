// Changing a piece document without touching the old one. Text only: what the text means is the server's to say.
import type { CallOut, Operation, Piece } from '../api/client';

/** An entry of a list by its name: a change waits its turn, and by then the entry may stand elsewhere. */
export interface Named {
  named: string;
}
export type Path = (string | number | Named)[];

/** A value of a document as words; what is no plain value has none. */
export const plain = (value: unknown): string =>
  typeof value === 'string' ? value : typeof value === 'number' || typeof value === 'boolean' ? String(value) : '';

/** A path as words, an entry of a list by its name. */
export const pathText = (path: Path): string =>
  path.map((one) => (typeof one === 'object' ? one.named : String(one))).join('.');

export const named = (name: string): Named => ({ named: name });

/** The key of a step of a path in what is there; -1 where no entry has the name. */
function keyIn(here: unknown, key: string | number | Named): string | number {
  if (typeof key !== 'object') return key;
  return Array.isArray(here) ? here.findIndex((one) => (one as { name?: unknown }).name === key.named) : -1;
}

/** The value at a path, or undefined. */
export function at(value: unknown, path: Path): unknown {
  return path.reduce<unknown>(
    (here, key) =>
      here === null || typeof here !== 'object'
        ? undefined
        : (here as Record<string | number, unknown>)[keyIn(here, key)],
    value,
  );
}

/** A copy with the value at a path set; undefined takes the field out. Throws where an entry that is named is gone. */
export function put<T>(value: T, path: Path, next: unknown): T {
  const [step, ...rest] = path;
  if (step === undefined) return next as T;
  const key = keyIn(value, step);
  if (key === -1 && typeof step === 'object') throw new Error(`${step.named} is no longer there.`);
  const copy = (Array.isArray(value) ? [...value] : { ...(value as object) }) as Record<string | number, unknown>;
  const inner = rest.length === 0 ? next : put(copy[key] ?? {}, rest, next);
  if (inner === undefined) {
    if (Array.isArray(copy)) copy.splice(Number(key), 1);
    else delete copy[key];
  } else copy[key] = inner;
  return copy as T;
}

export const operations = (piece: Piece): Operation[] => piece.operations ?? [];
export const callouts = (piece: Piece): CallOut[] => piece.callouts ?? [];

/** The verb of an operation: its one key. */
export const verb = (operation: Operation): string => Object.keys(operation.do)[0] ?? '';

/** A copy with an operation moved by one place, wherever it stands by now. */
export function move(piece: Piece, name: string, by: number): Piece {
  const list = [...operations(piece)];
  const index = list.findIndex((one) => one.name === name);
  const [one] = index < 0 ? [] : list.splice(index, 1);
  if (!one) throw new Error(`${name} is no longer there.`);
  list.splice(Math.max(0, index + by), 0, one);
  return { ...piece, operations: list };
}

/** A name that no operation has yet. */
export function freshName(piece: Piece, stem: string): string {
  const taken = new Set(operations(piece).map((one) => one.name));
  if (!taken.has(stem)) return stem;
  let count = 2;
  while (taken.has(`${stem}-${count}`)) count += 1;
  return `${stem}-${count}`;
}

/** The next free letter for a call-out; letters that look like others or mean something already are left out. */
export function freshLetter(piece: Piece): string {
  const taken = new Set(callouts(piece).map((one) => one.name));
  for (const letter of 'ABCDEFGHJKLMNPQSUVWXYZ') if (!taken.has(letter)) return letter;
  let count = 1;
  while (taken.has(`N${count}`)) count += 1;
  return `N${count}`;
}
