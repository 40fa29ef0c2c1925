// A rough outline as text, and what may be done to it. Where things come to lie is the server's to say.
import type { Schemas } from '../../api/client';
import { named, type Path } from '../../bench/edit';

export type Drawn = Schemas['Drawn'];
export type Saying = Schemas['Saying'];
export type Standing = Schemas['Standing'];
export type Kind = Saying['what'];

export interface Spot {
  x: number;
  y: number;
}

export interface Pick {
  name: string;
  kind: 'point' | 'edge' | 'round' | 'circle' | 'guide';
}

const tidy = (value: number) => Number(value.toFixed(3));

/** Places by name, as solved. */
export function places(standing: Standing): Map<string, Spot> {
  return new Map(standing.points.map((one) => [one.name, { x: one.x, y: one.y }]));
}

/** The tangent of a quarter of the sweep from one place to another about a centre, turning left or right. */
export function bulgeOf(from: Spot, to: Spot, centre: Spot, left: boolean): number {
  const [a, b] = [Math.atan2(from.y - centre.y, from.x - centre.x), Math.atan2(to.y - centre.y, to.x - centre.x)];
  const turn = (((b - a) % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI);
  return Math.tan((left ? turn : turn - 2 * Math.PI) / 4);
}

/**
 * The outline with its rough places brought to where it was solved, so that the next number starts from what is
 * seen.
 */
export function settled(drawn: Drawn, standing: Standing): Drawn {
  const at = places(standing);
  const radius = new Map(standing.circles.map((one) => [one.name, one.radius]));
  const corners = drawn.corners.map((corner, index) => {
    const [from, to, centre] = [
      at.get(corner.name),
      at.get(drawn.corners[(index + 1) % drawn.corners.length]?.name ?? ''),
      at.get(`${corner.edge}.centre`),
    ];
    const place = from ? { x: tidy(from.x), y: tidy(from.y) } : {};
    if (!corner.bulge || !from || !to || !centre) return { ...corner, ...place };
    return { ...corner, ...place, bulge: Number(bulgeOf(from, to, centre, corner.bulge > 0).toFixed(6)) };
  });
  const circles = drawn.circles?.map((one) => {
    const [centre, size] = [at.get(`${one.name}.centre`), radius.get(one.name)];
    return {
      ...one,
      ...(centre ? { x: tidy(centre.x), y: tidy(centre.y) } : {}),
      ...(size ? { radius: tidy(size) } : {}),
    };
  });
  const guides = drawn.guides?.map((one) => {
    const [a, b] = [at.get(`${one.name}.start`), at.get(`${one.name}.end`)];
    return a && b ? { ...one, x1: tidy(a.x), y1: tidy(a.y), x2: tidy(b.x), y2: tidy(b.y) } : one;
  });
  return { ...drawn, corners, ...(circles ? { circles } : {}), ...(guides ? { guides } : {}) };
}

const taken = (drawn: Drawn) =>
  new Set([
    ...drawn.corners.flatMap((one) => [one.name, one.edge]),
    ...(drawn.circles ?? []).map((one) => one.name),
    ...(drawn.guides ?? []).map((one) => one.name),
  ]);

function fresh(drawn: Drawn, letter: string): string {
  const names = taken(drawn);
  let count = 1;
  while (names.has(`${letter}${count}`)) count += 1;
  return `${letter}${count}`;
}

/** A corner put into an edge, so that there are two edges; the first keeps its name. */
export function addCorner(drawn: Drawn, edge: string, spot: Spot): Drawn {
  const index = drawn.corners.findIndex((one) => one.edge === edge);
  if (index < 0) return drawn;
  const corner = { name: fresh(drawn, 'p'), x: tidy(spot.x), y: tidy(spot.y), edge: fresh(drawn, 'e') };
  return { ...drawn, corners: [...drawn.corners.slice(0, index + 1), corner, ...drawn.corners.slice(index + 1)] };
}

/** Without a corner, circle or guide, and without what was said of it. */
export function takeOut(drawn: Drawn, name: string): Drawn {
  const corner = drawn.corners.find((one) => one.name === name);
  if (corner && drawn.corners.length <= 2) return drawn;
  const gone = new Set(
    corner ? [name, corner.edge, `${corner.edge}.centre`] : [name, `${name}.centre`, `${name}.start`, `${name}.end`],
  );
  return {
    ...drawn,
    corners: drawn.corners.filter((one) => one.name !== name),
    circles: drawn.circles?.filter((one) => one.name !== name),
    guides: drawn.guides?.filter((one) => one.name !== name),
    says: drawn.says?.filter((one) => !one.of.some((of) => gone.has(of))),
  };
}

/** An edge made round or straight; what was said of it as the other is taken out. */
export function turnRound(drawn: Drawn, edge: string): Drawn {
  const was = drawn.corners.find((one) => one.edge === edge);
  const corners = drawn.corners.map((one) => {
    if (one.edge !== edge) return one;
    const { bulge, ...rest } = one;
    return bulge ? rest : { ...rest, bulge: 0.4142 };
  });
  const gone = new Set(was?.bulge ? [edge, `${edge}.centre`] : [edge]);
  return { ...drawn, corners, says: drawn.says?.filter((one) => !one.of.some((of) => gone.has(of))) };
}

export const addCircle = (drawn: Drawn, spot: Spot, radius: number, cut: boolean): Drawn => ({
  ...drawn,
  circles: [
    ...(drawn.circles ?? []),
    { name: fresh(drawn, 'c'), x: tidy(spot.x), y: tidy(spot.y), radius: tidy(Math.max(radius, 0.5)), cut },
  ],
});

export const addGuide = (drawn: Drawn, from: Spot, to: Spot): Drawn => ({
  ...drawn,
  guides: [
    ...(drawn.guides ?? []),
    { name: fresh(drawn, 'g'), x1: tidy(from.x), y1: tidy(from.y), x2: tidy(to.x), y2: tidy(to.y) },
  ],
});

/** A corner dragged to another place. */
export const dragged = (drawn: Drawn, name: string, spot: Spot): Drawn => ({
  ...drawn,
  corners: drawn.corners.map((one) => (one.name === name ? { ...one, x: tidy(spot.x), y: tidy(spot.y) } : one)),
  circles: drawn.circles?.map((one) =>
    `${one.name}.centre` === name ? { ...one, x: tidy(spot.x), y: tidy(spot.y) } : one,
  ),
});

/** A new outline from clicked places; edges drawn level or upright are said to be. */
export function fromClicks(spots: Spot[], near: number): Drawn {
  const corners = spots.map((spot, index) => ({
    name: `p${index + 1}`,
    x: tidy(spot.x),
    y: tidy(spot.y),
    edge: `e${index + 1}`,
  }));
  const says: Saying[] = [];
  corners.forEach((corner, index) => {
    const next = corners[(index + 1) % corners.length];
    if (!next) return;
    const [dx, dy] = [Math.abs(next.x - corner.x), Math.abs(next.y - corner.y)];
    if (dy < near && dx > near) says.push({ what: 'level', of: [corner.edge] });
    else if (dx < near && dy > near) says.push({ what: 'upright', of: [corner.edge] });
  });
  return { corners, says };
}

/** Where a click goes: on another corner's level or upright when it is that near; in words. */
export function snap(spot: Spot, others: { name: string; spot: Spot }[], near: number): { spot: Spot; words: string } {
  const on = others.find((one) => Math.hypot(one.spot.x - spot.x, one.spot.y - spot.y) < near);
  if (on) return { spot: on.spot, words: `on ${on.name}` };
  const level = others
    .filter((one) => Math.abs(one.spot.y - spot.y) < near)
    .sort((a, b) => Math.abs(a.spot.y - spot.y) - Math.abs(b.spot.y - spot.y))[0];
  const upright = others
    .filter((one) => Math.abs(one.spot.x - spot.x) < near)
    .sort((a, b) => Math.abs(a.spot.x - spot.x) - Math.abs(b.spot.x - spot.x))[0];
  return {
    spot: { x: upright ? upright.spot.x : spot.x, y: level ? level.spot.y : spot.y },
    words: [level ? `level with ${level.name}` : '', upright ? `in line above or below ${upright.name}` : '']
      .filter(Boolean)
      .join(', '),
  };
}

export interface Sayable {
  what: Kind;
  words: string;
  /** Whether it takes a number, and of which kind. */
  number?: 'length' | 'angle';
}

const NUMBER = (what: Kind, words: string, number: 'length' | 'angle' = 'length'): Sayable => ({ what, words, number });
const RULE = (what: Kind, words: string): Sayable => ({ what, words });

/** What can be said of the things picked, in their order. */
export function sayable(picked: Pick[]): Sayable[] {
  const straight = (one: Pick | undefined) => one?.kind === 'edge' || one?.kind === 'guide';
  const round = (one: Pick | undefined) => one?.kind === 'circle' || one?.kind === 'round';
  const point = (one: Pick | undefined) => one?.kind === 'point';
  const [a, b, c] = picked;
  if (picked.length === 1) {
    if (straight(a))
      return [
        NUMBER('length', 'length'),
        NUMBER('across', 'across'),
        NUMBER('up', 'up'),
        RULE('level', 'level'),
        RULE('upright', 'upright'),
      ];
    if (round(a)) return [NUMBER('diameter', 'diameter'), NUMBER('radius', 'radius')];
  }
  if (picked.length === 2) {
    if (straight(a) && straight(b))
      return [
        NUMBER('angle', 'angle', 'angle'),
        NUMBER('length', 'apart'),
        RULE('square', 'square'),
        RULE('parallel', 'parallel'),
        RULE('equal', 'equal'),
        RULE('collinear', 'on one line'),
      ];
    if (round(a) && round(b))
      return [
        NUMBER('length', 'centres apart'),
        NUMBER('gap', 'edge to edge'),
        NUMBER('across', 'across'),
        NUMBER('up', 'up'),
        RULE('equal', 'equal'),
        RULE('concentric', 'one centre'),
        RULE('tangent', 'touching'),
      ];
    if ((straight(a) && round(b)) || (round(a) && straight(b)))
      return [
        NUMBER('length', 'centre from edge'),
        RULE('tangent', 'touching'),
        RULE('on', 'centre on the line'),
        RULE('middle', 'centre in the middle'),
      ];
    if ((straight(a) && point(b)) || (point(a) && straight(b)))
      return [NUMBER('length', 'from edge'), RULE('on', 'on the line'), RULE('middle', 'in the middle')];
    return [NUMBER('length', 'apart'), NUMBER('across', 'across'), NUMBER('up', 'up')];
  }
  if (picked.length === 3 && !straight(a) && !straight(b) && straight(c))
    return [RULE('symmetric', `mirrored in ${c?.name ?? ''}`)];
  return [];
}

const WORDS: Record<Kind, string> = {
  length: 'length',
  across: 'across',
  up: 'up',
  angle: 'angle',
  radius: 'radius',
  diameter: 'diameter',
  gap: 'edge to edge',
  equal: 'equal',
  parallel: 'parallel',
  square: 'square',
  level: 'level',
  upright: 'upright',
  tangent: 'touching',
  concentric: 'one centre',
  collinear: 'on one line',
  on: 'on the line of',
  middle: 'in the middle of',
  symmetric: 'mirrored',
};

/** A saying in words, without its number. */
export function sayingWords(saying: Saying): string {
  const of = saying.of;
  if (saying.what === 'on' || saying.what === 'middle') return `${of[0]} ${WORDS[saying.what]} ${of[1]}`;
  if (saying.what === 'symmetric') return `${of[0]} and ${of[1]} mirrored in ${of[2]}`;
  if (saying.value !== undefined && saying.value !== null) return `${of.join(' to ')} ${WORDS[saying.what]}`;
  return `${of.join(' and ')} ${WORDS[saying.what]}`;
}

/** An edge of the outline as an SVG path; y down. */
export function edgePath(drawn: Drawn, index: number, at: Map<string, Spot>): string {
  const corner = drawn.corners[index];
  const from = at.get(corner?.name ?? '');
  const to = at.get(drawn.corners[(index + 1) % drawn.corners.length]?.name ?? '');
  if (!corner || !from || !to) return '';
  const start = `M${from.x} ${-from.y}`;
  const centre = at.get(`${corner.edge}.centre`);
  if (!corner.bulge || !centre) return `${start}L${to.x} ${-to.y}`;
  const radius = Math.hypot(from.x - centre.x, from.y - centre.y);
  const large = Math.abs(bulgeOf(from, to, centre, corner.bulge > 0)) > 1 ? 1 : 0;
  return `${start}A${radius} ${radius} 0 ${large} ${corner.bulge > 0 ? 0 : 1} ${to.x} ${-to.y}`;
}

/** The middle of an edge, for its name. */
export function edgeMiddle(drawn: Drawn, index: number, at: Map<string, Spot>): Spot {
  const corner = drawn.corners[index];
  const from = at.get(corner?.name ?? '') ?? { x: 0, y: 0 };
  const to = at.get(drawn.corners[(index + 1) % drawn.corners.length]?.name ?? '') ?? from;
  const middle = { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 };
  const centre = at.get(`${corner?.edge}.centre`);
  if (!corner?.bulge || !centre) return middle;
  // From the chord's middle to the right of the way for a left turn: sagitta = chord / 2 times the bulge.
  const bulge = bulgeOf(from, to, centre, corner.bulge > 0);
  return { x: middle.x + ((to.y - from.y) / 2) * bulge, y: middle.y - ((to.x - from.x) / 2) * bulge };
}

/** The circle through three places; null where they lie on one line. */
export function circleThrough(a: Spot, b: Spot, c: Spot): { centre: Spot; radius: number } | null {
  const [bx, by, cx, cy] = [b.x - a.x, b.y - a.y, c.x - a.x, c.y - a.y];
  const twice = 2 * (bx * cy - by * cx);
  const size = Math.max(Math.hypot(bx, by), Math.hypot(cx, cy));
  if (Math.abs(twice) < 1e-6 * size * size) return null;
  const [bb, cc] = [bx * bx + by * by, cx * cx + cy * cy];
  const centre = { x: a.x + (cy * bb - by * cc) / twice, y: a.y + (bx * cc - cx * bb) / twice };
  return { centre, radius: Math.hypot(centre.x - a.x, centre.y - a.y) };
}

/** An edge made round through a place. */
export function roundThrough(drawn: Drawn, edge: string, spot: Spot, at: Map<string, Spot>): Drawn {
  const index = drawn.corners.findIndex((one) => one.edge === edge);
  const corner = drawn.corners[index];
  const [from, to] = [
    at.get(corner?.name ?? ''),
    at.get(drawn.corners[(index + 1) % drawn.corners.length]?.name ?? ''),
  ];
  if (!corner || !from || !to) return drawn;
  // The angle under which the edge is seen from the place is what is missing of half the sweep.
  const [ax, ay, bx, by] = [from.x - spot.x, from.y - spot.y, to.x - spot.x, to.y - spot.y];
  const seen = Math.atan2(ax * by - ay * bx, ax * bx + ay * by);
  const sweep = seen > 0 ? 2 * (seen - Math.PI) : 2 * (seen + Math.PI);
  const bulge = Number(Math.tan(sweep / 4).toFixed(6));
  if (!Number.isFinite(bulge) || Math.abs(bulge) < 1e-3 || Math.abs(bulge) > 20) return drawn;
  const was = corner.bulge ? drawn.says : drawn.says?.filter((one) => !one.of.includes(edge));
  return {
    ...drawn,
    corners: drawn.corners.map((one) => (one.edge === edge ? { ...one, bulge } : one)),
    ...(was ? { says: was } : {}),
  };
}

/** From pixels of the picture to the outline's plane, as an SVG transform with y down. */
export const pictureTransform = (m: number[]): string =>
  `matrix(${m[0]} ${-(m[1] ?? 0)} ${m[2]} ${-(m[3] ?? 0)} ${m[4]} ${-(m[5] ?? 0)})`;

/** A place of the outline's plane in pixels of the picture. */
export function toPixels(m: number[], spot: Spot): Spot {
  const [a = 1, b = 0, c = 0, d = -1, e = 0, f = 0] = m;
  const under = a * d - b * c;
  const [x, y] = [spot.x - e, spot.y - f];
  return { x: Number(((d * x - c * y) / under).toFixed(2)), y: Number(((a * y - b * x) / under).toFixed(2)) };
}

/** Corners of the picture in the outline's plane. */
export function pictureCorners(m: number[], size: { width: number; height: number }): Spot[] {
  const [a = 1, b = 0, c = 0, d = -1, e = 0, f = 0] = m;
  return [
    [0, 0],
    [size.width, 0],
    [size.width, size.height],
    [0, size.height],
  ].map(([x = 0, y = 0]) => ({ x: a * x + c * y + e, y: b * x + d * y + f }));
}

/** Where the drawn outline of an operation stands in the piece. */
export const drawnPath = (operation: string): Path => [
  'operations',
  named(operation),
  'do',
  'lay_down',
  'shape',
  'drawn',
];
