// What of a sentence stands as usual, so that it can be folded away: settings that nobody has touched.
import type { Part } from './parts';

/** Last words of the paths of settings; a size or a place is never one, however it stands. */
const SETTINGS = new Set([
  'position',
  'relief',
  'shape',
  'method',
  'radius',
  'corners',
  'reach',
  'make',
  'face',
  'turn',
  'lies',
  'align',
  'roll',
  'across',
  'up',
  'mark',
  'material',
  'weldment',
  'corner',
  'fit',
  'point',
  'depth',
  'stays',
  'width_from',
  'sizes',
  'to',
  'by',
  'moves',
  'start',
  'sweep',
  'gap',
  'closed',
  'mitred',
  'overlapped',
  // Of a place: where nothing is said it is the origin.
  'from',
  'x',
  'y',
  'z',
]);

const last = (part: Exclude<Part, { kind: 'word' }>): string => {
  const named = part.path.filter((one) => typeof one === 'string');
  return named[named.length - 1] ?? '';
};

/** Whether a part of a sentence is a setting that stands as it does where nothing is said. */
export function isUsual(part: Part, said: (part: Exclude<Part, { kind: 'word' }>) => unknown): boolean {
  if (part.kind === 'word') return false;
  const inside = part.path.some((one) => one === 'set_in' || one === 'relief');
  if (!inside && !SETTINGS.has(last(part))) return false;
  if (part.kind === 'value') return part.optional === true && part.text === '';
  const now = said(part);
  return now === undefined || part.value === part.options[0]?.[0];
}

/** A sentence without what stands as usual and the words before it; the stop at its end stays. */
export function folded(parts: Part[], usual: (part: Part) => boolean): Part[] {
  const kept: Part[] = [];
  for (const part of parts) {
    if (!usual(part)) {
      kept.push(part);
      continue;
    }
    // The words that lead up to it go with it, but for the verb and what belongs to a value before.
    const before = kept[kept.length - 1];
    if (before?.kind === 'word' && !before.strong && /^[,;]|^(corners|with|radius|sizes|at)\b/.test(before.text))
      kept.pop();
  }
  return kept;
}
