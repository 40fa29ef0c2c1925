import { describe, expect, it } from 'vitest';
import {
  addCorner,
  bulgeOf,
  edgeMiddle,
  edgePath,
  fromClicks,
  sayable,
  sayingWords,
  settled,
  snap,
  takeOut,
  turnRound,
  type Drawn,
  type Standing,
  circleThrough,
  pictureCorners,
  pictureTransform,
  roundThrough,
  toPixels,
  type Spot,
} from './outline';

const square: Drawn = {
  corners: [
    { name: 'p1', x: 0, y: 0, edge: 'e1' },
    { name: 'p2', x: 9, y: 1, edge: 'e2', bulge: 0.3 },
    { name: 'p3', x: 10, y: 10, edge: 'e3' },
  ],
  says: [
    { what: 'level', of: ['e1'] },
    { what: 'radius', of: ['e2'], value: '5' },
    { what: 'length', of: ['p1', 'p2'], value: 'A' },
  ],
};

describe('a rough outline', () => {
  it('is clicked with what lies level and upright said of it', () => {
    const made = fromClicks(
      [
        { x: 0, y: 0 },
        { x: 80, y: 0.4 },
        { x: 80.2, y: 50 },
        { x: 20, y: 70 },
      ],
      1,
    );
    expect(made.corners.map((one) => one.edge)).toEqual(['e1', 'e2', 'e3', 'e4']);
    expect(made.says).toEqual([
      { what: 'level', of: ['e1'] },
      { what: 'upright', of: ['e2'] },
    ]);
  });

  it('snaps in words', () => {
    const others = [
      { name: 'p1', spot: { x: 0, y: 0 } },
      { name: 'p2', spot: { x: 50, y: 30 } },
    ];
    expect(snap({ x: 50.5, y: 0.3 }, others, 1)).toEqual({
      spot: { x: 50, y: 0 },
      words: 'level with p1, in line above or below p2',
    });
    expect(snap({ x: 0.2, y: -0.2 }, others, 1)).toEqual({ spot: { x: 0, y: 0 }, words: 'on p1' });
    expect(snap({ x: 20, y: 10 }, others, 1).words).toBe('');
  });

  it('loses with a corner what was said of it, and no more', () => {
    const left = takeOut(square, 'p2');
    expect(left.corners.map((one) => one.name)).toEqual(['p1', 'p3']);
    expect(left.says).toEqual([{ what: 'level', of: ['e1'] }]);
    expect(takeOut(left, 'p1')).toBe(left);
  });

  it('takes a corner into an edge, names kept', () => {
    expect(addCorner(square, 'e1', { x: 4, y: 0 }).corners.map((one) => `${one.name} ${one.edge}`)).toEqual([
      'p1 e1',
      'p4 e4',
      'p2 e2',
      'p3 e3',
    ]);
  });

  it('makes an edge straight or round, and forgets what no longer fits', () => {
    const straight = turnRound(square, 'e2');
    expect(straight.corners[1]?.bulge).toBeUndefined();
    expect(straight.says?.some((one) => one.what === 'radius')).toBe(false);
    expect(turnRound(straight, 'e1').says?.some((one) => one.what === 'level')).toBe(false);
  });

  it('goes on from where it was solved', () => {
    const standing = {
      missing: 0,
      loose: [],
      sayings: [],
      disagree: [],
      traced: [],
      circles: [{ name: 'e2', radius: 10 }],
      points: [
        { name: 'p1', x: 0, y: 0 },
        { name: 'p2', x: 10, y: 0 },
        { name: 'p3', x: 0, y: 10 },
        { name: 'e2.centre', x: 0, y: 0 },
      ],
    } as Standing;
    const next = settled(square, standing);
    expect(next.corners[1]).toMatchObject({ x: 10, y: 0 });
    // A quarter turn to the left: tan(90/4 deg).
    expect(next.corners[1]?.bulge).toBeCloseTo(Math.tan(Math.PI / 8), 5);
    expect(bulgeOf({ x: 10, y: 0 }, { x: 0, y: 10 }, { x: 0, y: 0 }, false)).toBeCloseTo(
      -Math.tan((3 * Math.PI) / 8),
      9,
    );
  });

  it('draws round edges on their circle', () => {
    const at = new Map([
      ['p1', { x: 0, y: 0 }],
      ['p2', { x: 10, y: 0 }],
      ['p3', { x: 0, y: 10 }],
      ['e2.centre', { x: 0, y: 0 }],
    ]);
    expect(edgePath(square, 1, at)).toBe('M10 0A10 10 0 0 0 0 -10');
    expect(edgePath(square, 0, at)).toBe('M0 0L10 0');
    const middle = edgeMiddle(square, 1, at);
    expect(Math.hypot(middle.x, middle.y)).toBeCloseTo(10, 9);
  });

  it('offers what can be said of what is picked', () => {
    expect(
      sayable([
        { name: 'e1', kind: 'edge' },
        { name: 'e3', kind: 'edge' },
      ]).map((one) => one.what),
    ).toContain('parallel');
    expect(
      sayable([
        { name: 'c1', kind: 'circle' },
        { name: 'e2', kind: 'round' },
      ]).map((one) => one.what),
    ).toContain('gap');
    expect(
      sayable([
        { name: 'p1', kind: 'point' },
        { name: 'p2', kind: 'point' },
        { name: 'g1', kind: 'guide' },
      ]),
    ).toHaveLength(1);
    expect(sayable([{ name: 'p1', kind: 'point' }])).toEqual([]);
    expect(sayingWords({ what: 'length', of: ['p1', 'p2'], value: 'A' })).toBe('p1 to p2 length');
  });
});

describe('tracing from a picture', () => {
  it('lays a circle through three places', () => {
    const found = circleThrough({ x: 13, y: 2 }, { x: 8, y: 7 }, { x: 3, y: 2 });
    expect(found?.centre.x).toBeCloseTo(8);
    expect(found?.centre.y).toBeCloseTo(2);
    expect(found?.radius).toBeCloseTo(5);
    expect(circleThrough({ x: 0, y: 0 }, { x: 1, y: 1 }, { x: 2, y: 2 })).toBeNull();
  });

  it('makes an edge round through a place on either side', () => {
    const at = new Map<string, Spot>([
      ['p1', { x: 0, y: 0 }],
      ['p2', { x: 10, y: 0 }],
      ['p3', { x: 0, y: 10 }],
    ]);
    // A half circle to the right of the way from p1 to p2 turns left: bulge 1.
    expect(roundThrough(square, 'e1', { x: 5, y: -5 }, at).corners[0]?.bulge).toBeCloseTo(1);
    expect(roundThrough(square, 'e1', { x: 5, y: 5 }, at).corners[0]?.bulge).toBeCloseTo(-1);
    expect(roundThrough(square, 'e1', { x: 5, y: 0 }, at)).toBe(square);
  });

  it('goes to pixels and back', () => {
    // 0.5 mm a pixel, the picture's lower left corner at the origin, 200 pixels high.
    const matrix = [0.5, 0, 0, -0.5, 0, 100];
    expect(toPixels(matrix, { x: 10, y: 90 })).toEqual({ x: 20, y: 20 });
    expect(pictureCorners(matrix, { width: 300, height: 200 })[3]).toEqual({ x: 0, y: 0 });
    expect(pictureTransform(matrix)).toBe('matrix(0.5 0 0 0.5 0 -100)');
  });
});
