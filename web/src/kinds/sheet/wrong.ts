// Where on the blank a broken rule is marked.
import type { BuildAnswer } from '../../api/client';
import type { Selection } from '../../bench/store';

type Blank = NonNullable<BuildAnswer['blank']>;
type Breach = Pick<BuildAnswer['breaches'][number], 'level' | 'accepted' | 'features'>;

/** The most signs on one blank. */
const MOST_SIGNS = 40;

/** A sign at each thing that a broken rule is about that nobody accepted, and at what the chosen one is about. */
export function wrongPlaces(
  blank: Blank,
  breaches: Breach[],
  selection: Selection,
): { name: string; x: number; y: number }[] {
  const names = new Set(selection.breach === undefined ? [] : selection.features);
  for (const one of breaches)
    if (one.level === 'broken' && !one.accepted) one.features.forEach((name) => names.add(name));
  const labelled = [...blank.panels, ...blank.edges, ...blank.holes];
  const places = new Map(labelled.map((one) => [one.name, one.label]));
  for (const bend of blank.bends) {
    const [a, b] = bend.line;
    // A flange has its bend's name: the bend is what a rule means.
    if (a && b) places.set(bend.name, { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 });
  }
  const signs: { name: string; x: number; y: number }[] = [];
  for (const name of names) {
    const at = places.get(name) ?? places.get(name.replace(/\.bend(\.\w+)?$/, ''));
    if (at && signs.length < MOST_SIGNS) signs.push({ name, x: at.x, y: at.y });
  }
  return signs;
}
