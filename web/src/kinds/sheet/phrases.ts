// How sheet work is typed in a line: "bend base.back, A, 90 deg, up". Only words are told apart here; values stay text.
import type { Phrase, Typed } from '../../bench/parts';
import { readBent } from './bent';
import { readCorner, readHole } from './hole';
import { SHAPES } from './shape';

export const SHEET_PHRASES: Phrase[] = [
  {
    verb: 'lay down',
    words:
      'width, depth; or a shape and its sizes: circle, ring, obround, polygon, triangle, gusset, lug, eared, outline',
    example: 'lay down 120 mm, 80 mm',
  },
  {
    verb: 'bend',
    words:
      'edge, leg (several edges for several flanges, up to … for a leg that reaches something), angle or included or parallel to or square to panel, closed or mitred or overlapped gap, up or down, in or out or beyond, inside, relief, radius …, set in … at side',
    example: 'bend base.back, 60 mm, 90 deg, up',
  },
  {
    verb: 'profile',
    words:
      'lengths and turns in order, round radius through sweep, wide …, outside or inside or middle or metal left, centred',
    example: 'profile 40 mm, 90 deg, 100 mm, 90 deg, 40 mm, wide 200 mm',
  },
  {
    verb: 'roll',
    words:
      'radius …, an angle or arc … or chord … or tube …, inside or middle or outside, lead in …, lead out …, wide …',
    example: 'roll radius 300 mm, 120 deg, wide 200 mm',
  },
  {
    verb: 'hem',
    words: 'edge, closed or open gap or teardrop or rolled, length, radius …, up or down',
    example: 'hem base.back, closed, 10 mm',
  },
  { verb: 'joggle', words: 'edge, offset, leg …, angle, up or down', example: 'joggle base.back, 12 mm, leg 25 mm' },
  {
    verb: 'crease',
    words: 'panel, distance from edge, angle, up or down, radius …',
    example: 'crease base, 30 mm from base.back, 90 deg',
  },
  {
    verb: 'notch',
    words: 'edge, vee width by depth or square width by depth or radius …, count off spacing, at …',
    example: 'notch base.front, vee 12 mm by 8 mm',
  },
  {
    verb: 'tab',
    words: 'edge, width by height, count off spacing, at …',
    example: 'tab lid.end, 12 mm by 4 mm, 2 off 50 mm',
  },
  {
    verb: 'slots',
    words: 'the tabs, the panel that they go through, clear …',
    example: 'slots tabs, front, clear 0.2 mm',
  },
  { verb: 'mirror', words: 'operations, about panel, along x or y', example: 'mirror flange, about base' },
  {
    verb: 'repeat',
    words: 'operations, count off spacing along x, or x … and y …',
    example: 'repeat hole, 4 off 25 mm',
  },
  {
    verb: 'drill',
    words:
      'panel, a diameter or clearance M8 or tapped M8, blind depth, countersunk diameter, from edge distance, count off spacing, circle count on diameter, along edge distance pitch …, fill pitch margin …',
    example: 'drill base, 9 mm, from base.front 20 mm, 2 off 40 mm',
  },
  {
    verb: 'cut',
    words:
      'panel, width, height, radius …, or slot length overall (or between centres) by width, keyhole head by slot by travel, turned …, then as drill',
    example: 'cut base, 40 mm, 12 mm, radius 3 mm',
  },
  {
    verb: 'corner',
    words: 'panel, corners such as front/right (all where none), round radius or chamfer leg or notch width by depth',
    example: 'corner base, round 10 mm',
  },
];

/** Sizes in the order that each shape takes them; those after the bar may be left out. */
const SIZES: Record<string, [string[], string[]]> = {
  rectangle: [['width', 'depth'], []],
  circle: [['diameter'], []],
  ring: [['outside', 'inside'], []],
  obround: [['length', 'width'], []],
  polygon: [['sides', 'size'], []],
  triangle: [['base', 'height'], ['lean']],
  gusset: [
    ['width', 'height'],
    ['corner', 'toe', 'tip'],
  ],
  lug: [['base', 'height', 'radius'], ['hole']],
  eared: [
    ['body', 'ears', 'circle', 'ear_radius'],
    ['hole', 'bore'],
  ],
};

/** A shape by its name and sizes; two bare sizes are a rectangle. Nothing where sizes are missing. */
function layDown(parts: string[]): object | undefined {
  if (/^(a |an )?(drawn |rough )?outline$/i.test(parts[0] ?? ''))
    return SHAPES.find((one) => one.key === 'drawn')?.start;
  const named = /^(?:an? )?([a-z]+)$/i.exec(parts[0] ?? '')?.[1]?.toLowerCase() ?? '';
  const [kind, sizes] = SIZES[named] && parts.length > 1 ? [named, parts.slice(1)] : ['rectangle', parts];
  const [needed, more] = SIZES[kind] ?? [[], []];
  if (sizes.length < needed.length) return undefined;
  const names = [...needed, ...more].slice(0, sizes.length);
  return { [kind]: Object.fromEntries(names.map((name, at) => [name, sizes[at]])) };
}

/** Reads the parts of a typed line of this verb. */
export function readSheet(verb: string, parts: string[]): Typed {
  const lacking = (count: number) => parts.length < count;
  switch (verb) {
    case 'lay down': {
      const shape = layDown(parts);
      return shape ? { stem: 'base', action: { lay_down: { shape } } } : undefined;
    }
    case 'bend': {
      if (lacking(2)) return undefined;
      const [edge, ...also] = (parts[0] ?? '').split(/\s+(?:and\s+)?/);
      const bend: Record<string, unknown> = {
        edge,
        ...(also.length > 0 ? { also } : {}),
        leg: parts[1],
        angle: '90 deg',
      };
      const reach = /^up to\s+(\S+)(?:\s+less\s+(.+))?$/.exec(parts[1] ?? '');
      if (reach) {
        delete bend.leg;
        bend.up_to = { feature: reach[1], ...(reach[2] ? { gap: reach[2] } : {}) };
      }
      for (const part of parts.slice(2)) {
        const inset = /^set in\s+(.+?)\s+at\s+(\S+)$/.exec(part);
        const radius = /^radius\s+(.+)$/.exec(part);
        const corner = /^(closed|mitred|overlapped)\s+(.+)$/.exec(part);
        const stands = /^(parallel|square) to\s+(\S+)$/.exec(part);
        if (part === 'up' || part === 'down') bend.direction = part;
        else if (['inside', 'outside', 'mould', 'tangent'].includes(part)) bend.leg_to = part;
        else if (part === 'in') bend.position = 'material_inside';
        else if (part === 'out') bend.position = 'material_outside';
        else if (part === 'beyond') bend.position = 'bend_outside';
        else if (part === 'relief') bend.relief = { shape: 'rectangular' };
        else if (part === 'round relief') bend.relief = { shape: 'obround' };
        else if (inset) bend.set_in = { ...((bend.set_in as object) ?? {}), [inset[2] ?? '']: inset[1] };
        else if (radius) bend.radius = radius[1];
        else if (corner) bend.corners = { [corner[1] ?? 'closed']: { gap: corner[2] } };
        else if (part === 'included') bend.angle_is = 'included';
        else if (stands) {
          bend.stands = { [stands[1] ?? 'parallel']: stands[2] };
          delete bend.angle;
        } else bend.angle = part;
      }
      return { stem: 'flange', action: { bend } };
    }
    case 'corner': {
      if (lacking(2)) return undefined;
      const corner = readCorner(parts);
      return typeof corner === 'string' ? corner : { stem: 'corner', action: { corner } };
    }
    default: {
      const bent = readBent(verb, parts);
      if (bent) return bent;
      if (verb !== 'drill' && verb !== 'cut') return undefined;
      const kind = verb === 'drill' ? 'drill' : 'cut';
      if (lacking(2)) return undefined;
      const hole = readHole(kind, parts.slice(1));
      if (typeof hole === 'string') return hole;
      const sized =
        kind === 'drill'
          ? (hole.diameter ?? hole.clearance ?? hole.tapped)
          : (hole.slot ?? hole.keyhole ?? hole.height);
      return sized === undefined
        ? undefined
        : { stem: kind === 'drill' ? 'hole' : 'cut', action: { [kind]: { panel: parts[0], ...hole } } };
    }
  }
}
