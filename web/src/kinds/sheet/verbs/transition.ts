// Two outlines joined by flat panels.
import type { Piece } from '../../../api/client';
import { at, named, put, type Path } from '../../../bench/edit';
import { word, type Change, type Way } from '../../../bench/parts';
import { verb, type ActionOf } from '../../verb';
import { method, pair, seamAs } from '../common';
import { shapeParts } from '../shape';

const rectangle = (text: string) => {
  const round = /^(?:circle|round|dia)\s+(.+)$/.exec(text)?.[1];
  if (round) return { circle: { diameter: round } };
  const sizes = pair(text);
  return sizes ? { rectangle: { width: sizes[0], depth: sizes[1] } } : undefined;
};

export const TRANSITION = verb<'transition'>({
  key: 'transition',
  phrases: [
    {
      verb: 'transition',
      words: 'lower width by depth, upper width by depth (or circle …, or point), height',
      example: 'transition 400 mm by 300 mm, 200 mm by 100 mm, 150 mm',
      read: ([one, two, height]) => {
        const [lower, upper] = [rectangle(one ?? ''), rectangle(two ?? '')];
        if (lower && two === 'point' && height)
          return { stem: 'pyramid', action: { transition: { lower, apex: true, height } } };
        return lower && upper && height
          ? { stem: 'hood', action: { transition: { lower, upper, height } } }
          : undefined;
      },
    },
  ],
  sentence: (writer, { operation }) => {
    const { value, choice, get } = writer;
    const zero = { ghost: '0', optional: true };
    const elevations = get(['said']) === 'elevations';
    const ends = endsOf(elevations);
    const list = (field: Lists) => (get([field]) as unknown[] | undefined) ?? [];
    return [
      word('Join', true),
      choice('said by', ['said'], 'plan', [
        ['plan', 'by plan'],
        ['elevations', 'by elevations'],
      ]),
      ...shapeParts(operation, ['do', 'transition', 'lower']),
      word(elevations ? 'in front to' : 'to'),
      ...(get(['apex']) !== undefined
        ? [word('a point')]
        : get(['follows']) === undefined
          ? shapeParts(operation, ['do', 'transition', 'upper'])
          : [
              word('the same with its slopes kept and a height of'),
              value('height of the rear profile', ['follows']),
              choice('what of it moves', ['moves'], 'bottom', [
                ['bottom', 'its bottom moved'],
                ['top', 'its top moved'],
              ]),
            ]),
      word(elevations ? 'behind it by' : 'at a height of'),
      value(elevations ? 'distance' : 'height', ['height']),
      word(', over to the right by'),
      value('offset along x', ['offset_x'], zero),
      word(elevations ? ', up by' : ', back by'),
      value(elevations ? 'offset up' : 'offset along y', ['offset_y'], zero),
      ...(elevations || get(['apex']) !== undefined
        ? []
        : [
            word(', turned'),
            value('turn', ['turn'], zero),
            word(', its back raised'),
            value('tilt about x', ['tilt_x'], zero),
            word(', its left raised'),
            value('tilt about y', ['tilt_y'], zero),
            word(', or its corners at heights of'),
            value('heights of corners', ['heights'], { ghost: 'its plane', optional: true, list: true }),
          ]),
      ...list('rims').flatMap((_, at) => [
        word(', trimmed at the'),
        choice(`end of plane ${at + 1}`, ['rims', at, 'end'], 'lower', ends),
        word('end by a plane'),
        value(`height of plane ${at + 1}`, ['rims', at, 'height'], zero),
        word('further on, its back raised'),
        value(`tilt about x of plane ${at + 1}`, ['rims', at, 'tilt_x'], zero),
        word('and its left raised'),
        value(`tilt about y of plane ${at + 1}`, ['rims', at, 'tilt_y'], zero),
      ]),
      ...list('ways').flatMap((_, at) => [
        word(', the corner before'),
        value(`edge of the first outline ${at + 1}`, ['ways', at, 'lower']),
        word('joined to the one before'),
        value(`edge of the second outline ${at + 1}`, ['ways', at, 'upper']),
      ]),
      ...list('collars').flatMap((_, at) => [
        word(', a collar at the'),
        choice(`end of collar ${at + 1}`, ['collars', at, 'end'], 'lower', ends),
        word('end'),
        value(`length of collar ${at + 1}`, ['collars', at, 'length']),
        word('long'),
      ]),
      ...list('closed').flatMap((_, at) => [
        word(', a panel over the'),
        choice(`end that is closed ${at + 1}`, ['closed', at], 'lower', ends),
        word('end'),
      ]),
      ...list('flanges').flatMap((_, at) => [
        word(
          get(['flanges', at, 'angle']) !== undefined || get(['flanges', at, 'parallel_to']) !== undefined
            ? ', flanges along the'
            : ', flanges in the plane of the',
        ),
        ...(get(['flanges', at, 'opening']) === undefined
          ? [choice(`end of flanges ${at + 1}`, ['flanges', at, 'end'], 'lower', ends), word('rim,')]
          : [
              word('opening where'),
              value(`panel left out beside flanges ${at + 1}`, ['flanges', at, 'opening']),
              word('is left out,'),
            ]),
        value(`width of flanges ${at + 1}`, ['flanges', at, 'width']),
        word('wide'),
        writer.yes(`way of flanges ${at + 1}`, ['flanges', at, 'inward'], 'outward', 'inward'),
        ...(get(['flanges', at, 'angle']) !== undefined
          ? [word('bent by'), value(`angle of flanges ${at + 1}`, ['flanges', at, 'angle'])]
          : []),
        ...(get(['flanges', at, 'parallel_to']) !== undefined
          ? [word('parallel to'), value(`panel that flanges ${at + 1} are parallel to`, ['flanges', at, 'parallel_to'])]
          : []),
        writer.yes(`ends of flanges ${at + 1}`, ['flanges', at, 'full'], 'to the corner', 'over the full width'),
        word('along'),
        value(`flanges ${at + 1} along`, ['flanges', at, 'along'], { ghost: 'all panels', optional: true, list: true }),
      ]),
      ...list('tabs').flatMap((_, at) => [
        word(', tabs'),
        value(`width of tabs ${at + 1}`, ['tabs', at, 'width']),
        word('wide along'),
        value(`edges of tabs ${at + 1}`, ['tabs', at, 'along'], { list: true }),
        word(', ends clipped at'),
        value(`clip of tabs ${at + 1}`, ['tabs', at, 'clip'], { ghost: '45 deg', optional: true }),
        word(', bent by'),
        value(`angle of tabs ${at + 1}`, ['tabs', at, 'angle'], {
          ghost: 'what lies on the panel beside',
          optional: true,
        }),
        word(','),
        choice(`what holds tabs ${at + 1}`, ['tabs', at, 'held'], 'glue', [
          ['glue', 'glued'],
          ['rivets', 'riveted'],
          ['weld', 'welded'],
        ]),
      ]),
      word(';'),
      choice('sizes of', ['sizes'], 'outside', [
        ['outside', 'outside sizes'],
        ['inside', 'inside sizes'],
      ]),
      word(','),
      choice('edges between panels', ['corners'], 'bent', [
        ['bent', 'bent from one sheet with one seam'],
        ['seams', 'a sheet a panel, all edges seams'],
      ]),
      word(', without'),
      value('panels left out', ['without'], { ghost: 'none', optional: true, list: true }),
      word(', on the other side'),
      value('panels on the other side', ['other_side'], { ghost: 'none', optional: true, list: true }),
      word(', gap'),
      value('gap', ['gap'], zero),
      ...seamAs(writer),
      word(', flats a quarter of a round'),
      value('flats a quarter', ['lines'], { ghost: '4', optional: true }),
      word(','),
      choice('crease of sides that are not plane', ['crease'], 'shorter', [
        ['shorter', 'creased along the shorter diagonal'],
        ['rising', 'creased along the rising diagonal'],
        ['falling', 'creased along the falling diagonal'],
      ]),
      word(', inside radius'),
      value('inside radius', ['radius'], { ghost: 'R', optional: true }),
      ...method(writer),
      word('.'),
    ];
  },
  changes: ({ get }) => {
    const all: Change<ActionOf<'transition'>>[] = [];
    const elevations = get(['said']) === 'elevations';
    const more = <Field extends Lists>(field: Field, words: string, start: unknown) => {
      const list = (get([field]) as unknown[] | undefined) ?? [];
      all.push({ words: `+ ${words}`, sets: [[[field], [...list, start]]] });
      const left = list.slice(0, -1);
      if (list.length > 0) all.push({ words: `− ${words}`, sets: [[[field], left.length > 0 ? left : undefined]] });
    };
    const flanges = (get(['flanges']) as RimFlanges[] | undefined) ?? [];
    more('flanges', 'rim flanges', nextFlanges(flanges, get(['lower', 'rectangle']) !== undefined && !elevations));
    const gone = (get(['without']) as string[] | undefined) ?? [];
    flanges.forEach((one, at) => {
      const which = flanges.length === 1 ? 'flanges' : `flanges ${at + 1}`;
      const lie = (words: string, angle: string | undefined, panel: string | undefined) =>
        all.push({
          words: `${which} ${words}`,
          sets: [
            [['flanges', at, 'angle'], angle],
            [['flanges', at, 'parallel_to'], panel],
          ],
        });
      if (one.opening !== undefined)
        all.push({ words: `${which} at an end`, sets: [[['flanges', at, 'opening'], undefined]] });
      else if (gone[0] !== undefined)
        all.push({ words: `${which} where ${gone[0]} is left out`, sets: [[['flanges', at, 'opening'], gone[0]]] });
      if (one.angle === undefined) lie('by an angle', '90 deg', undefined);
      if (one.parallel_to === undefined) lie('parallel to a panel', undefined, 'back');
      if (one.angle !== undefined || one.parallel_to !== undefined) lie("in the rim's plane", undefined, undefined);
    });
    more('tabs', 'tabs', { along: ['left/front'], width: '12 mm' });
    more('collars', 'collar', { end: 'upper', length: '40 mm' });
    more('closed', 'panel over an end', elevations ? 'lower' : 'upper');
    more('rims', 'trim by a plane', { end: 'lower', tilt_x: '5 deg' });
    more('ways', 'corner by hand', { lower: 'front', upper: 'front' });
    if (!elevations && get(['apex']) === undefined)
      all.push({
        words: 'to a point',
        sets: [
          [['apex'], true],
          [['upper'], undefined],
        ],
      });
    if (get(['apex']) !== undefined)
      all.push({
        words: 'to an outline',
        sets: [
          [['apex'], undefined],
          [['upper'], get(['lower'])],
        ],
      });
    if (elevations && get(['follows']) === undefined)
      all.push({
        words: 'rear profile by its height',
        sets: [
          [['follows'], '200 mm'],
          [['upper'], undefined],
        ],
      });
    if (get(['follows']) !== undefined)
      all.push({
        words: 'rear profile by its own sizes',
        sets: [
          [['follows'], undefined],
          [['upper'], get(['lower'])],
        ],
      });
    return all;
  },
});

/** What is read here of the flanges along a rim. */
interface RimFlanges {
  end?: string;
  along?: string[];
  angle?: string;
  parallel_to?: string;
  opening?: string;
}

/** Flanges to begin with: along what has none at the lower rim, else at the upper one. */
function nextFlanges(flanges: RimFlanges[], isRectangle: boolean): RimFlanges & { width: string } {
  const lower = flanges.filter((one) => one.opening === undefined && (one.end ?? 'lower') === 'lower');
  const taken = lower.flatMap((one) => one.along ?? SIDES);
  const left = SIDES.filter((one) => !taken.includes(one));
  if (lower.length === 0) return { end: 'lower', width: '25 mm' };
  return isRectangle && left.length > 0
    ? { end: 'lower', width: '25 mm', along: left }
    : { end: 'upper', width: '25 mm' };
}

/** The panels between two rectangles. */
const SIDES = ['front', 'right', 'back', 'left'];

/** What a transition has several of. */
type Lists = 'rims' | 'collars' | 'flanges' | 'ways' | 'closed' | 'tabs';

/** The ends of a transition as it is said. */
const endsOf = (elevations: boolean): Way[] =>
  elevations
    ? [
        ['lower', 'front'],
        ['upper', 'rear'],
      ]
    : [
        ['lower', 'lower'],
        ['upper', 'upper'],
      ];

/** What becomes of an edge between two panels. */
export const JOINTS: Way[] = [
  ['bend', 'bend'],
  ['seam', 'seam'],
  ['rip', 'rip'],
];

type Edge = { between: string; joint?: string; owner?: string };

const edgesAt = (operation: string): Path => ['operations', named(operation), 'do', 'transition', 'edges'];
const isOf = (one: Edge, between: string) =>
  one.between === between || one.between === between.split('/').reverse().join('/');

/** A piece with an edge of a transition said to be something; where it is cut, perhaps which panel goes through. */
export function joined(piece: Piece, operation: string, between: string, joint: string, owner?: string): Piece {
  const list = (at(piece, edgesAt(operation)) as Edge[] | undefined) ?? [];
  const others = list.filter((one) => !isOf(one, between));
  const own = owner === undefined || joint === 'bend' ? {} : { owner };
  return put(piece, edgesAt(operation), [...others, { between, joint, ...own }]);
}

/** Which of the two panels at an edge goes through, where that is said. */
export function ownerOf(piece: Piece | null, operation: string, between: string): string | undefined {
  const list = (at(piece, edgesAt(operation)) as Edge[] | undefined) ?? [];
  return list.find((one) => isOf(one, between))?.owner;
}
