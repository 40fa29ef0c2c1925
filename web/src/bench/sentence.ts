// An operation as a shop sentence: words and the values in them.
import type { Operation, Piece } from '../api/client';
import { kindOfPiece } from '../kinds';
import { at, verb, type Path } from './edit';
import type { Names, Part } from './parts';

/** The sentence of an operation of a piece; `sides` are the ends of a bend's edge. */
export function sentence(piece: Pick<Piece, 'kind'>, operation: Operation, sides: string[]): Part[] {
  const key = verb(operation);
  const root: Path = ['do', key];
  const text = (path: Path) => {
    const found = at(operation, [...root, ...path]) ?? '';
    return Array.isArray(found) ? found.join(', ') : String(found);
  };
  const value = (
    label: string,
    path: Path,
    more: { ghost?: string; optional?: boolean; names?: Names; list?: boolean } = {},
  ): Part => ({ kind: 'value', path: [...root, ...path], text: text(path), label, ...more });
  const choice = (label: string, path: Path, standard: string, options: [string, string][]): Part => ({
    kind: 'choice',
    path: [...root, ...path],
    value: text(path) || standard,
    label,
    options,
  });
  const writer = { value, choice, get: (path: Path) => at(operation, [...root, ...path]) };
  return kindOfPiece(piece).sentence(key, operation, writer, sides);
}

/** The path of a field as the server names it: inside the action, joined by dots. */
export const fieldOf = (path: Path): string => path.slice(2).join('.');
