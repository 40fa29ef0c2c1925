// Where labels go on a picture, so that none covers another, a hole or what else is there: each has places that it
// would take, the most wanted first; the least important give way.

export interface Rect {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** A label that wants a place. */
export interface Wanted {
  /** The smaller, the sooner it is placed. */
  rank: number;
  width: number;
  height: number;
  /** Middles that it would take. */
  at: [x: number, y: number][];
  /** What it may lie on: the hole that it names. */
  on?: number;
  /** It is shown whatever it covers: at the first of its places. */
  always?: boolean;
}

/** How far apart labels stand at least, in the picture's own units. */
const APART = 1;

export const meet = (one: Rect, two: Rect, apart = 0): boolean =>
  one.x < two.x + two.width + apart &&
  two.x < one.x + one.width + apart &&
  one.y < two.y + two.height + apart &&
  two.y < one.y + one.height + apart;

const within = (one: Rect, room: Rect): boolean =>
  one.x >= room.x &&
  one.y >= room.y &&
  one.x + one.width <= room.x + room.width &&
  one.y + one.height <= room.y + room.height;

/** The middles that labels get, in their order; `null` for those that give way. `apart` in the picture's units. */
export function layOut(wanted: Wanted[], taken: Rect[], room: Rect, apart = APART): ([number, number] | null)[] {
  const placed: Rect[] = [];
  const found: ([number, number] | null)[] = wanted.map(() => null);
  const order = wanted.map((_, at) => at).sort((a, b) => wanted[a]!.rank - wanted[b]!.rank);
  for (const at of order) {
    const { width, height, at: places, on, always } = wanted[at]!;
    const around = ([x, y]: [number, number]): Rect => ({ x: x - width / 2, y: y - height / 2, width, height });
    const free = (one: Rect) =>
      within(one, room) &&
      !taken.some((other, index) => index !== on && meet(one, other)) &&
      !placed.some((other) => meet(one, other, apart));
    const place = places.find((one) => free(around(one))) ?? (always ? places[0] : undefined);
    if (!place) continue;
    found[at] = place;
    placed.push(around(place));
  }
  return found;
}

/** Places round a middle: itself, then rings of eight at these distances. */
export function ringed([x, y]: [number, number], width: number, height: number, rings: number[]): [number, number][] {
  const all: [number, number][] = [[x, y]];
  for (const out of rings) {
    const [dx, dy] = [width / 2 + out, height / 2 + out];
    all.push([x, y - dy], [x, y + dy], [x + dx, y], [x - dx, y]);
    all.push([x + dx, y - dy], [x - dx, y - dy], [x + dx, y + dy], [x - dx, y + dy]);
  }
  return all;
}

let pen: CanvasRenderingContext2D | null | undefined;
const widths = new Map<string, number>();

/** How wide a text is in a font of this size, pixels; about as wide where nothing can measure it. */
export function textWidth(text: string, size: number, family: string): number {
  const key = `${family} ${text}`;
  let of100 = widths.get(key);
  if (of100 === undefined) {
    if (pen === undefined)
      pen = typeof CanvasRenderingContext2D === 'undefined' ? null : document.createElement('canvas').getContext('2d');
    if (pen) pen.font = `100px ${family}`;
    of100 = pen ? pen.measureText(text).width : 60 * text.length;
    if (widths.size > 2000) widths.clear();
    widths.set(key, of100);
  }
  return (of100 * size) / 100;
}
