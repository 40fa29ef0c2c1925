// Two windows on one piece: what each changed since both were alike, and the piece with both where they do not touch.
import type { Piece } from '../api/client';

/** One thing that is not in both as it was: what, and whether both windows changed it, each otherwise. */
export interface Difference {
  what: string;
  mine: string;
  theirs: string;
  touches: boolean;
}

export interface Merged {
  /** With both changes; null where they touch. */
  both: Piece | null;
  differences: Difference[];
}

/** Lists whose items have names: steps, call-outs, variants. */
const LISTS = [
  ['operations', 'step'],
  ['callouts', 'call-out'],
  ['variants', 'variant'],
] as const;
type ListKey = (typeof LISTS)[number][0];

interface Named {
  name: string;
}

const same = (one: unknown, two: unknown): boolean => JSON.stringify(one) === JSON.stringify(two);
const listOf = (piece: Piece, key: ListKey): Named[] => piece[key] ?? [];
const byName = (list: Named[]) => new Map(list.map((one) => [one.name, one]));

function change(old: unknown, now: unknown): string {
  if (same(old, now)) return '';
  return old === undefined ? 'added' : now === undefined ? 'deleted' : 'changed';
}

/** The order of the names that are in both, as one text. */
const orderOf = (list: Named[], among: Set<string>) =>
  list
    .filter((one) => among.has(one.name))
    .map((one) => one.name)
    .join(' ');

/** What `base` became in `mine` and in `theirs`. */
export function merge(base: Piece, mine: Piece, theirs: Piece): Merged {
  const differences: Difference[] = [];
  const told = (what: string, was: unknown, one: unknown, other: unknown) => {
    const [own, others] = [change(was, one), change(was, other)];
    if (!own && !others) return;
    differences.push({ what, mine: own, theirs: others, touches: own !== '' && others !== '' && !same(one, other) });
  };
  const both: Record<string, unknown> = {};
  const lists = new Set<string>(LISTS.map(([key]) => key));
  const fields = (piece: Piece) => piece as unknown as Record<string, unknown>;
  for (const key of new Set([...Object.keys(base), ...Object.keys(mine), ...Object.keys(theirs)])) {
    if (lists.has(key)) continue;
    const [was, one, other] = [fields(base)[key], fields(mine)[key], fields(theirs)[key]];
    told(key.replaceAll('_', ' '), was, one, other);
    const value = same(was, one) ? other : one;
    if (value !== undefined) both[key] = value;
  }
  for (const [key, word] of LISTS) {
    const [was, one, other] = [listOf(base, key), listOf(mine, key), listOf(theirs, key)];
    const [wasBy, oneBy, otherBy] = [byName(was), byName(one), byName(other)];
    for (const name of new Set([...wasBy.keys(), ...oneBy.keys(), ...otherBy.keys()]))
      told(`${word} ${name}`, wasBy.get(name), oneBy.get(name), otherBy.get(name));
    const kept = new Set([...wasBy.keys()].filter((name) => oneBy.has(name) && otherBy.has(name)));
    const [old, own, others] = [was, one, other].map((list) => orderOf(list, kept));
    told(`order of the ${word}s`, old, own, others);
    const list = together(was, one, other, own === old ? other : one);
    if (list.length > 0 || base[key] !== undefined || mine[key] !== undefined || theirs[key] !== undefined)
      both[key] = list;
  }
  const touching = differences.some((one) => one.touches);
  return { both: touching ? null : (both as unknown as Piece), differences };
}

/** The items of both, in the order of `first`; what only the other one added goes in after what it stood after. */
function together(was: Named[], mine: Named[], theirs: Named[], first: Named[]): Named[] {
  const [wasBy, mineBy, theirsBy] = [byName(was), byName(mine), byName(theirs)];
  const value = (name: string): Named | undefined => {
    const [old, own, other] = [wasBy.get(name), mineBy.get(name), theirsBy.get(name)];
    return same(old, own) ? other : own;
  };
  const second = first === mine ? theirs : mine;
  const names = first.map((one) => one.name);
  second.forEach((one, at) => {
    if (names.includes(one.name) || wasBy.has(one.name)) return;
    const before = second
      .slice(0, at)
      .reverse()
      .find((other) => names.includes(other.name));
    names.splice(before ? names.indexOf(before.name) + 1 : 0, 0, one.name);
  });
  return names.map(value).filter((one) => one !== undefined);
}
