// The words on the blank: bends beside their lines, names of edges within them, balloons at their holes, each where it
// covers nothing; sizes stand outside.
import type { Schemas } from '../../api/client';
import { layOut, textWidth, type Rect, type Wanted } from '../../bench/labels';

type BlankView = Schemas['BlankView'];

const MONO = 'JetBrains Mono';
const WORDS = 'Barlow Semi Condensed';
/** Height of a line of words and size of its letters, pixels. */
const LINE = 15;
const LETTERS = 12;
/** The most balloons that are drawn. */
const MOST_BALLOONS = 400;

export interface Label {
  key: string;
  kind: 'bt' | 'en' | 'bl';
  text: string;
  /** Its middle, mm, y down. */
  x: number;
  y: number;
  /** Read from the right. */
  upright: boolean;
}

interface Given {
  /** mm of a pixel. */
  unit: number;
  /** What is shown: left, top, width, height, mm. */
  box: number[];
  balloons: boolean;
  edges: BlankView['edges'];
  fields: Rect[];
  signs: { x: number; y: number }[];
}

/** From where to where across words of one of several blanks side by side may stand: halfway to the next. */
function side(blank: BlankView, x: number): [number, number] {
  if (blank.sheets.length < 2) return [-Infinity, Infinity];
  const boxes = blank.sheets.map((one) => one.extents);
  const own = boxes.find((one) => x >= one.low.x && x <= one.high.x);
  if (!own) return [-Infinity, Infinity];
  const left = boxes.filter((one) => one.high.x <= own.low.x).map((one) => one.high.x);
  const right = boxes.filter((one) => one.low.x >= own.high.x).map((one) => one.low.x);
  return [(Math.max(...left) + own.low.x) / 2, (Math.min(...right) + own.high.x) / 2];
}

/** Every label that has a place. */
export function laidLabels(blank: BlankView, { unit, box, balloons, edges, fields, signs }: Given): Label[] {
  const { low, high } = blank.extents;
  const [left = 0, top = 0, wide = 0, tall = 0] = box;
  const wanted: Wanted[] = [];
  const labels: Omit<Label, 'x' | 'y'>[] = [];
  const ask = (
    label: Omit<Label, 'x' | 'y'>,
    family: string,
    rank: number,
    at: (w: number, h: number) => Wanted['at'],
    on?: number,
  ) => {
    const long = (textWidth(label.text, LETTERS, family) + 4) * unit;
    const line = LINE * unit;
    const [width, height] = label.upright ? [line, long] : [long, line];
    labels.push(label);
    wanted.push({ rank, width, height, at: at(width, height), ...(on === undefined ? {} : { on }) });
  };
  for (const bend of blank.bends) {
    const [a, b] = bend.line;
    if (!a || !b) continue;
    const length = Math.hypot(b.x - a.x, b.y - a.y) || 1;
    const [ux, uy] = [(b.x - a.x) / length, (b.y - a.y) / length];
    const flat = Math.abs(ux) > Math.abs(uy);
    const [first, last] = flat === (flat ? a.x < b.x : a.y < b.y) ? [a, b] : [b, a];
    // A word between two blanks would be read as the other's.
    const home = side(blank, (a.x + b.x) / 2);
    ask({ key: `bend ${bend.name}`, kind: 'bt', text: bend.text, upright: !flat }, MONO, 1, (width, height) => {
      const out = 20 * unit;
      const [across, along] = flat ? [height / 2 + 4 * unit, width / 2] : [width / 2 + 4 * unit, height / 2];
      const beside: Wanted['at'] = [0.5, 0.35, 0.65, 0.2, 0.8].flatMap((share): Wanted['at'] => {
        const [x, y] = [a.x + (b.x - a.x) * share, a.y + (b.y - a.y) * share];
        const [nx, ny] = [-uy * across, ux * across];
        return [
          [x + nx, y + ny],
          [x - nx, y - ny],
        ];
      });
      const right = first.x > last.x ? first : last;
      const far = right === a ? b : a;
      // A level one is read at its right end, an upright one beside its line.
      const [upper, lower] = a.y < b.y ? [a, b] : [b, a];
      const places: Wanted['at'] = flat
        ? [
            [right.x + out + along, right.y],
            [far.x - out - along, far.y],
            ...beside,
            [right.x + out + along, right.y + LINE * unit],
            [right.x + out + along, right.y - LINE * unit],
          ]
        : [...beside, [upper.x, upper.y - out - along], [lower.x, lower.y + out + along]];
      const half = (flat ? along : across) + 2 * unit;
      return places.filter(([x]) => x - half >= home[0] && x + half <= home[1]);
    });
  }
  for (const edge of edges) {
    ask({ key: `edge ${edge.name}`, kind: 'en', text: edge.name, upright: false }, WORDS, 2, (width, height) => {
      const [dx, dy] = [(low.x + high.x) / 2 - edge.label.x, (low.y + high.y) / 2 - edge.label.y];
      const size = Math.hypot(dx, dy) || 1;
      const [ux, uy] = [dx / size, dy / size];
      // In from the edge by its own half and a little, then further; then along it.
      const own = Math.abs(ux) * (width / 2) + Math.abs(uy) * (height / 2) + 3 * unit;
      const places: Wanted['at'] = [];
      for (const further of [0, 14])
        for (const aside of [0, 0.7, -0.7, 1.4, -1.4, 2.4, -2.4])
          places.push([
            edge.label.x + ux * (own + further * unit) - uy * aside * width,
            edge.label.y + uy * (own + further * unit) + ux * aside * width,
          ]);
      return places;
    });
  }
  const holes = [...blank.holes, ...blank.forms].map(({ around: [x = 0, y = 0, width = 0, height = 0] }): Rect => ({
    x,
    y,
    width,
    height,
  }));
  if (balloons)
    blank.holes.slice(0, MOST_BALLOONS).forEach((hole, at) => {
      ask(
        { key: `balloon ${hole.name}`, kind: 'bl', text: hole.balloon, upright: false },
        MONO,
        3,
        (width, height) => {
          const [, , across = 0, up = 0] = hole.around;
          const { x, y } = hole.label;
          const inside = across > width && up > height;
          const [dx, dy] = [(across + width) / 2 + 1 * unit, (up + height) / 2 + 1 * unit];
          const beside: Wanted['at'] = [
            [x + dx, y - dy],
            [x - dx, y - dy],
            [x + dx, y + dy],
            [x - dx, y + dy],
            [x, y - dy],
            [x, y + dy],
            [x + dx, y],
            [x - dx, y],
          ];
          return inside ? [[x, y], ...beside] : beside;
        },
        at,
      );
    });
  // The sizes stand under and to the left of the blank, whatever comes.
  const size = (text: string) => (textWidth(text, LETTERS, MONO) + 6) * unit;
  const line = LINE * unit;
  const [across = '', up = ''] = blank.size;
  const [midX, midY] = [(low.x + high.x) / 2, (low.y + high.y) / 2];
  const taken: Rect[] = [
    ...holes,
    ...fields,
    // A name does not lie on a bend that runs along the picture.
    ...blank.bends.flatMap(({ line: [a, b] }): Rect[] => {
      if (!a || !b || (Math.abs(a.x - b.x) > unit && Math.abs(a.y - b.y) > unit)) return [];
      const [x, y] = [Math.min(a.x, b.x) - 2 * unit, Math.min(a.y, b.y) - 2 * unit];
      return [{ x, y, width: Math.abs(a.x - b.x) + 4 * unit, height: Math.abs(a.y - b.y) + 4 * unit }];
    }),
    ...signs.map(({ x, y }): Rect => ({ x: x - 8 * unit, y: y - 8 * unit, width: 16 * unit, height: 16 * unit })),
    { x: midX - size(across) / 2, y: high.y + 22 * unit - line / 2, width: size(across), height: line },
    { x: low.x - 36 * unit - line / 2, y: midY - size(up) / 2, width: line, height: size(up) },
  ];
  const places = layOut(wanted, taken, { x: left, y: top, width: wide, height: tall }, unit);
  return labels.flatMap((label, at) => {
    const place = places[at];
    return place ? [{ ...label, x: place[0], y: place[1] }] : [];
  });
}
