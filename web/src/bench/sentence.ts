// An operation as a shop sentence: words and the values in them.
import type { Operation, Piece } from '../api/client';
import { kindOfPiece } from '../kinds';
import type { VerbRow } from '../kinds/verb';
import { at, pathText, plain, verb, type Path } from './edit';
import { keyOf, puts, type Asking, type Change, type Part, type Way, type Writer } from './parts';

/** The sentence of an operation of a piece; `sides` are the ends of a bend's edge. */
export function sentence(piece: Pick<Piece, 'kind'>, operation: Operation, sides: string[]): Part[] {
  const key = verb(operation);
  const root: Path = ['do', key];
  const text = (path: Path) => {
    const found = at(operation, [...root, ...path]);
    return Array.isArray(found) ? found.map(plain).join(', ') : plain(found);
  };
  const value = (label: string, path: Path, more: Asking = {}): Part => ({
    kind: 'value',
    path: [...root, ...path],
    text: text(path),
    label,
    ...more,
  });
  const get = (path: Path) => at(operation, [...root, ...path]);
  const choose = (label: string, path: Path, value: string, options: Way[]): Part => ({
    kind: 'choice',
    path: [...root, ...path],
    value,
    label,
    options,
  });
  const writer: Writer = {
    value,
    get,
    choice: (label, path, standard, options) => choose(label, path, text(path) || standard, options),
    whole: (label, path, standard, options) => choose(label, path, keyOf(get(path), standard), options),
    yes: (label, path, no, yes) =>
      choose(label, path, get(path) === true ? 'true' : '', [
        ['', no, puts(undefined)],
        ['true', yes, puts(true)],
      ]),
  };
  return verbOf(piece, key)?.sentence(writer, { operation, sides }) ?? [];
}

/** The row of a verb in a piece's kind. */
export const verbOf = (piece: Pick<Piece, 'kind'>, key: string): VerbRow | undefined =>
  kindOfPiece(piece).verbs.find((one) => one.key === key);

/** What can be changed of an operation of a piece in one click. */
export function changesOf(
  piece: Pick<Piece, 'kind'>,
  operation: Operation,
  names: { edges: string[]; holes: string[] },
): Change[] {
  const key = verb(operation);
  const get = (path: Path) => at(operation, ['do', key, ...path]);
  return verbOf(piece, key)?.changes?.({ operation, get, ...names }) ?? [];
}

/** The path of a field as the server names it: inside the action, joined by dots. */
export const fieldOf = (path: Path): string => pathText(path.slice(2));
