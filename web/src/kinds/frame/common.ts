// What several verbs of frames share: places, axes, faces, and the parts of a typed line.
import { word, type Names, type Part, type Way, type Writer } from '../../bench/parts';
import { inside, type PathIn } from '../../bench/paths';

/** Axes of space. */
export const AXES: Way[] = [
  ['x', 'x'],
  ['y', 'y'],
  ['z', 'z'],
];

/** Faces of a member, by the side of its section. */
export const FACES: Way[] = [
  ['top', 'top'],
  ['bottom', 'bottom'],
  ['left', 'left'],
  ['right', 'right'],
];

/** Which end of a member. */
export const ENDS: Way[] = [
  ['both', 'both ends'],
  ['start', 'the start'],
  ['finish', 'the finish'],
];

/** A value that may be left out: with its word where it is given, else only that word, faint, to be filled in. */
export const maybe = <A>(
  { value, get }: Writer<A>,
  before: string,
  label: string,
  path: PathIn<A>,
  more: { names?: Names; list?: boolean; ghost?: string } = {},
): Part[] =>
  get(path) === undefined
    ? [value(label, path, { ...more, ghost: more.ghost ?? before, optional: true })]
    : [word(before), value(label, path, { ...more, ghost: more.ghost ?? before, optional: true })];

/** The ways along the axes that are given, and places for the others. */
export const axes = <A>(writer: Writer<A>, path: PathIn<A>, label: (axis: string) => string): Part[] =>
  ['x', 'y', 'z'].flatMap((axis) => maybe(writer, axis, label(axis), inside(path, axis)));

/** A place: from a node or the origin, and the ways along the axes. */
export const place = <A>(writer: Writer<A>, path: PathIn<A>, name: string): Part[] => [
  writer.value(`${name} from`, inside(path, 'from'), { ghost: 'the origin', optional: true, names: 'nodes' }),
  ...axes(writer, path, (axis) => `${name} ${axis}`),
];

/** Names with spaces or "and" between them. */
export const names = (text: string | undefined): string[] => (text ?? '').split(/\s+(?:and\s+)?/).filter(Boolean);

/** x …, y …, z … out of parts. */
export function offsets(parts: string[]): { x?: string; y?: string; z?: string } {
  const out: Record<string, string> = {};
  for (const part of parts) {
    const found = /^([xyz])\s+(.+)$/.exec(part);
    if (found?.[1] && found[2]) out[found[1]] = found[2];
  }
  return out;
}

/** What follows a word in one of the parts: `rail 150 mm`. */
export const tagged = (parts: string[], tag: string): string | undefined =>
  parts.map((part) => new RegExp(`^${tag}\\s+(.+)$`).exec(part)?.[1]).find(Boolean);
