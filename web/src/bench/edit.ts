// Changing a piece document without touching the old one. Text only: what the text means is the server's to say.
import type { CallOut, Operation, Piece } from '../api/client';

export type Path = (string | number)[];

/** The value at a path, or undefined. */
export function at(value: unknown, path: Path): unknown {
  return path.reduce<unknown>(
    (here, key) =>
      here === null || typeof here !== 'object' ? undefined : (here as Record<string | number, unknown>)[key],
    value,
  );
}

/** A copy with the value at a path set; undefined takes the field out. */
export function put<T>(value: T, path: Path, next: unknown): T {
  const [key, ...rest] = path;
  if (key === undefined) return next as T;
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

/** A copy with an operation moved by one place. */
export function move(piece: Piece, index: number, by: number): Piece {
  const list = [...operations(piece)];
  const [one] = list.splice(index, 1);
  if (one) list.splice(index + by, 0, one);
  return { ...piece, operations: list };
}

const citing = new Set([
  'edge',
  'panel',
  'along',
  'from',
  'to',
  'bend',
  'hole',
  'also',
  'of',
  'tabs',
  'feature',
  'rest',
  'node',
  'nodes',
  'line',
  'lines',
  'one',
  'two',
  'between',
  'through',
  'member',
]);
/** A flange stands parallel or square to a panel: those keys mean sizes elsewhere. */
const inside = (name: string, parent: string): string => (parent === 'stands' ? 'panel' : name);

/** A copy with an operation renamed, and everything that cites it by name following. */
export function rename(piece: Piece, old: string, next: string): Piece {
  const follow = (text: string) =>
    text === old ? next : text.startsWith(`${old}.`) ? next + text.slice(old.length) : text;
  const walk = (value: unknown, key: string): unknown => {
    // A plate's own work cites names of that plate: its panel `base` is not the frame's operation `base`.
    if (key === 'work') return value;
    if (typeof value === 'string') return citing.has(key) ? follow(value) : value;
    if (Array.isArray(value)) return value.map((one) => walk(one, key));
    if (value !== null && typeof value === 'object')
      return Object.fromEntries(
        Object.entries(value).map(([name, one]) => [key === 'own' ? follow(name) : name, walk(one, inside(name, key))]),
      );
    return value;
  };
  return {
    ...piece,
    operations: operations(piece).map((one) => ({
      ...one,
      name: one.name === old ? next : one.name,
      do: walk(one.do, 'do') as Operation['do'],
    })),
    callouts: callouts(piece).map((one) =>
      one.measure ? { ...one, measure: walk(one.measure, 'measure') as CallOut['measure'] } : one,
    ),
    ...(piece.variants
      ? {
          variants: piece.variants.map((one) => ({
            ...one,
            rest: one.rest?.map((name) => (name === old ? next : name)),
          })),
        }
      : {}),
  };
}

/** A copy with a call-out renamed, and every expression that cites it following. */
export function renameCallout(piece: Piece, old: string, next: string): Piece {
  const word = new RegExp(`(?<![A-Za-z0-9_.])${old}(?![A-Za-z0-9_])`, 'g');
  const walk = (value: unknown, key: string): unknown => {
    if (typeof value === 'string') return citing.has(key) ? value : value.replace(word, next);
    if (Array.isArray(value)) return value.map((one) => walk(one, key));
    if (value !== null && typeof value === 'object')
      return Object.fromEntries(Object.entries(value).map(([name, one]) => [name, walk(one, inside(name, key))]));
    return value;
  };
  return {
    ...piece,
    stock: {
      ...piece.stock,
      ...(piece.stock.thickness ? { thickness: piece.stock.thickness.replace(word, next) } : {}),
    },
    ...(piece.bending ? { bending: walk(piece.bending, 'bending') as Piece['bending'] } : {}),
    operations: operations(piece).map((one) => ({ ...one, do: walk(one.do, 'do') as Operation['do'] })),
    callouts: callouts(piece).map((one) => ({
      ...one,
      name: one.name === old ? next : one.name,
      value: one.value.replace(word, next),
    })),
    ...(piece.variants
      ? {
          variants: piece.variants.map((one) => ({
            ...one,
            set:
              one.set &&
              Object.fromEntries(
                Object.entries(one.set).map(([name, value]) => [name === old ? next : name, value.replace(word, next)]),
              ),
          })),
        }
      : {}),
  };
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
