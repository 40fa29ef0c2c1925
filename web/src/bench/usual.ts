// What of a sentence stands as usual, so that it can be folded away: settings that nobody has touched.
import type { Part } from './parts';

/** Last words of the paths of settings; a size or a place is never one, however it stands. */
const SETTINGS = new Set([
  'position',
  'relief',
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

/** Words that lead up to what follows them and go with it. */
const LEADS = /^[,;]|^(corners|with|radius|sizes|at|from)\b/;
/** Words that only follow what stands before them. */
const TRAILS = /^(at [\w.-]+|wide|deep),?$/;

const bare = (part: Part, usual: (part: Part) => boolean) => part.kind === 'word' || usual(part);

/** A sentence without what stands as usual and the words that belong to it; the stop at its end stays. */
export function folded(parts: Part[], usual: (part: Part) => boolean): Part[] {
  const kept: Part[] = [];
  for (let at = 0; at < parts.length;) {
    const part = parts[at];
    if (!part) break;
    // A run of values has the words before it for all of them.
    let end = at + 1;
    if (part.kind === 'word') while (end < parts.length && parts[end]?.kind !== 'word') end += 1;
    const run = parts.slice(at + 1, end);
    const shown = run.filter((one) => !usual(one));
    const before = parts[at - 1];
    const trails = part.kind === 'word' && TRAILS.test(part.text) && before !== undefined && usual(before);
    // A place by its coordinates goes on after the name of its node.
    const until = parts.findIndex((one, place) => place > at && one.kind === 'word' && /^[;.]/.test(one.text));
    const goesOn =
      part.kind === 'word' && part.text === 'from' && parts.slice(end, until).some((one) => !bare(one, usual));
    const leads =
      !goesOn && part.kind === 'word' && !part.strong && LEADS.test(part.text) && run.length > 0 && shown.length === 0;
    if (part.kind !== 'word' ? !usual(part) : !leads && !trails) kept.push(part);
    kept.push(...shown);
    at = end;
  }
  return kept;
}
