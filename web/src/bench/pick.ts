// What somebody points at on the folded part, the frame or the blank: what lies there, what is chosen, and who takes
// the next pick.
import { kindOfPiece } from '../kinds';
import type { Names } from './parts';
import type { Place } from './pointing';
import { selectFeature, useBench, type BenchState } from './store';

const get = useBench.getState;
const set = useBench.setState;

/** Further than this from the last click, in pixels, it is another place. */
const SAME = 5;
let last: { place: Place; found: string[]; index: number } | null = null;

/** The name as a value of this sort takes it; null where it is none of that sort. */
export function asWanted(
  name: string,
  sort: Names | undefined,
  names: NonNullable<BenchState['answer']>['names'],
): string | null {
  const bend = name.replace(/\.bend(\.(top|bottom))?$/, '');
  const isBend = bend !== name;
  const panel = name.replace(/\.(top|bottom)$/, '');
  const of = (list: string[], one: string) => (list.includes(one) ? one : null);
  switch (sort) {
    case 'edges':
      return of(names.edges, name);
    case 'panels':
      return isBend ? null : (of(names.panels, panel) ?? of(names.panels, name.split('.').slice(0, -1).join('.')));
    case 'bends':
      return of(names.bends, bend);
    case 'lines':
      return of(names.edges, name) ?? (isBend && names.bends.includes(bend) ? `${bend}.mould-outside` : null);
    case 'holes':
      return of(names.holes, name) ?? of(names.holes, name.replace(/\.side-.*$/, ''));
    case 'nodes':
      return of(names.nodes, name);
    case 'members':
    case 'lines3': {
      const list = sort === 'members' ? names.members : names.lines;
      const own = list.filter((one) => name === one || name.startsWith(`${one}.`));
      return own.sort((one, two) => two.length - one.length)[0] ?? null;
    }
    case 'operations':
      return names.made_by[name] ?? name.split('.')[0] ?? null;
    default:
      return name;
  }
}

/**
 * A click at a place where these lie, nearest first. `more` adds to what is chosen. A second click at the same place
 * goes on to what lies behind.
 */
export function pickAt(found: string[], place: Place, shift = false): void {
  const { want, answer, picks, draft, measuring, joining } = get();
  const more = shift || joining;
  if (joining) set({ joining: false });
  if (found.length === 0 || !answer) {
    last = null;
    if (!want && !draft) unpick();
    return;
  }
  if (want) {
    const name = found.map((one) => asWanted(one, want.names, answer.names)).find((one) => one !== null);
    if (name === undefined)
      set({ message: `${found[0]} is not ${want.words}. Point at ${want.words}; Esc ends asking.` });
    else want.take(name);
    return;
  }
  // While a step is typed a click lights what it is on and changes nothing.
  if (draft) return;
  const again =
    picks.length > 0 && last !== null && Math.hypot(last.place.x - place.x, last.place.y - place.y) < SAME && !more;
  const index = again && last ? (last.index + 1) % found.length : 0;
  const name = found[index] ?? found[0] ?? '';
  last = { place, found, index };
  // What a call-out measures lies between two places: the one before stays.
  const pair = measuring !== null && !again && picks.length > 0 && !picks.includes(name);
  const next = pair
    ? [...picks.slice(-1), name]
    : more
      ? picks.includes(name)
        ? picks.filter((one) => one !== name)
        : [...picks, name]
      : [name];
  choose(next, { ...place });
}

/** Chooses these by name, and opens what can be done with them at a place. */
export function choose(names: string[], menu: Place | null): void {
  const { answer, document } = get();
  const [name] = names.slice(-1);
  if (!answer || !document || name === undefined) {
    unpick();
    return;
  }
  const shown = (one: string) => kindOfPiece(document).stage.pick(answer, one);
  selectFeature(shown(name));
  set((now) => ({
    picks: names,
    menu,
    hover: null,
    selection: { ...now.selection, features: names.map(shown) },
  }));
}

/** Nothing is chosen any more. */
export function unpick(): void {
  set({ picks: [], menu: null });
}

/** What a name on the piece is, in a word. */
export function whatIs(name: string, state: Pick<BenchState, 'answer'>): string {
  const names = state.answer?.names;
  if (!names) return '';
  const blank = state.answer?.blank;
  const edge = blank?.edges.find((one) => one.name === name);
  if (edge) return `edge, ${edge.text}`;
  const hole = blank?.holes.find((one) => one.name === name);
  if (hole) return `hole, ${hole.text}`;
  const form = blank?.forms.find((one) => name === one.name || name.startsWith(`${one.name}.`));
  if (form) return form.text;
  if (name.includes('/')) return 'corner';
  const bend = name.replace(/\.bend(\.(top|bottom))?$/, '');
  if (bend !== name) return `bend, ${blank?.bends.find((one) => one.name === bend)?.text ?? ''}`;
  if (blank && name.endsWith('.top')) return 'upper face';
  if (blank && name.endsWith('.bottom')) return 'lower face';
  if (names.panels.includes(name)) return 'panel';
  if (names.nodes.includes(name)) return 'node';
  const line = state.answer?.frame?.lines.find((one) => one.name === name);
  if (line) return `line, ${line.text}`;
  if (names.pieces.includes(name)) return 'piece';
  const side = /\.(top|bottom|left|right)$/.exec(name)?.[1];
  return side ? `${side} face` : /\.(start|finish)/.test(name) ? 'end' : 'face';
}
