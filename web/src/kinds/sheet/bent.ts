// Bent work in sentences: profiles, rolls, flanges, hems, joggles, lines, notches, tabs, work made again; what can be
// changed of each in one click, and how each is typed in a line.
import type { Operation } from '../../api/client';
import { at, type Path } from '../../bench/edit';
import { type Change, type Choices, type Typed, type Part, type Writer, word } from '../../bench/parts';

const keyOf = (value: unknown, standard: string): string =>
  typeof value === 'string' ? value : (Object.keys((value as object | undefined) ?? {})[0] ?? standard);
const UP_DOWN: [string, string][] = [
  ['up', 'up'],
  ['down', 'down'],
];
const CORNERS: [string, string][] = [
  ['open', 'open'],
  ['closed', 'closed square'],
  ['overlapped', 'overlapped, the first named over'],
  ['mitred', 'mitred'],
];
const METHODS: [string, string][] = [
  ['piece', "the piece's way"],
  ['k_factor', 'K-factor'],
  ['allowance', 'bend allowance'],
  ['deduction', 'bend deduction'],
  ['din6935', 'DIN 6935'],
  ['k_curve', 'K by R/T'],
];
export const CURVE = {
  k_curve: [
    { ratio: '0.5', k: '0.25' },
    { ratio: '1', k: '0.325' },
    { ratio: '2', k: '0.4' },
    { ratio: '3', k: '0.444' },
    { ratio: '5', k: '0.5' },
  ],
};

/** What a choice that stands for a whole field puts there. */
export const BENT_CHOICES: Choices = {
  corners: {
    open: undefined,
    closed: { closed: { gap: '0.5 mm' } },
    overlapped: { overlapped: { gap: '0.3 mm' } },
    mitred: { mitred: { gap: '0.5 mm' } },
  },
  'corner relief': { none: undefined, round: { round: '2*T' }, square: { square: '2*T' } },
  'kind of hem': {
    closed: { closed: { length: '8*T' } },
    open: { open: { length: '10*T', gap: 'T' } },
    teardrop: { teardrop: { length: '12*T', radius: 'T' } },
    rolled: { rolled: { radius: '2*T' } },
  },
  'rolled by': {
    angle: { angle: '90 deg' },
    arc: { arc: '200 mm' },
    chord: { chord: '100 mm' },
    tube: { tube: '1 mm' },
  },
  'kind of notch': {
    square: { square: { width: '10 mm', depth: '10 mm' } },
    vee: { vee: { width: '12 mm', depth: '8 mm' } },
    round: { round: '6 mm' },
  },
};

function method(writer: Writer): Part[] {
  const given = writer.get(['method']);
  const kind = given == null ? 'piece' : keyOf(given, 'piece');
  const parts: Part[] = [
    word(', blank by'),
    { ...writer.choice('blank by', ['method'], 'piece', METHODS), value: kind } as Part,
  ];
  if (kind === 'k_curve') parts.push(...curve(writer, ['method', 'k_curve']));
  else if (given != null && typeof given === 'object') parts.push(writer.value('bending figure', ['method', kind]));
  return parts;
}

/** Points of a curve of K. */
function curve({ value, get }: Writer, path: Path): Part[] {
  const points = (get(path) as unknown[] | undefined) ?? [];
  return points
    .flatMap((_, index): Part[] => [
      word(index === 0 ? '' : ';'),
      value(`R/T of point ${index + 1}`, [...path, index, 'ratio']),
      word(':'),
      value(`K of point ${index + 1}`, [...path, index, 'k']),
    ])
    .filter((part) => part.kind !== 'word' || part.text !== '');
}

function relief(writer: Writer): Part[] {
  const given = writer.get(['relief']) as { shape?: string } | undefined;
  const parts: Part[] = [
    word(','),
    {
      ...writer.choice('relief', ['relief'], 'none', [
        ['none', 'no relief'],
        ['rectangular', 'square relief'],
        ['obround', 'round relief'],
      ]),
      value: given ? (given.shape ?? 'rectangular') : 'none',
    } as Part,
  ];
  if (given)
    parts.push(
      writer.value('relief width', ['relief', 'width'], { ghost: 'T', optional: true }),
      word('wide,'),
      writer.value('relief depth', ['relief', 'depth'], { ghost: 'R + T', optional: true }),
      word('deep'),
    );
  return parts;
}

const setIns = ({ value }: Writer, sides: string[]): Part[] =>
  sides.flatMap((side): Part[] => [
    word(', set in'),
    value(`set in at ${side}`, ['set_in', side], { ghost: '0', optional: true }),
    word(`at ${side}`),
  ]);

const POSITION: [string, string][] = [
  ['material_inside', 'material inside the edge'],
  ['material_outside', 'material outside the edge'],
  ['bend_outside', 'bend outside the edge'],
];
const WIDTH: [string, string][] = [
  ['side', 'to one side'],
  ['centre', 'half to each side'],
];

export function bendParts(writer: Writer, sides: string[]): Part[] {
  const { value, choice, get } = writer;
  const also = (get(['also']) as string[] | undefined) ?? [];
  const stands = get(['stands']);
  const parts: Part[] = [word('Bend', true), choice('direction', ['direction'], 'up', UP_DOWN)];
  if (stands !== undefined) {
    const kind = keyOf(stands, 'parallel');
    parts.push(word(`until ${kind} to`), value(`${kind} to`, ['stands', kind], { names: 'panels' }));
  } else {
    parts.push(value('angle', ['angle']));
    if (get(['angle_is']) === 'included') parts.push(word('included'));
  }
  parts.push(word('along'), value('edge', ['edge'], { names: 'edges' }));
  if (also.length > 0) {
    const kind = keyOf(get(['corners']), 'open');
    parts.push(
      word('and'),
      value('further edges', ['also'], { list: true, optional: true, ghost: 'no other' }),
      word(', corners'),
      { ...choice('corners', ['corners'], 'open', CORNERS), value: kind } as Part,
    );
    if (kind !== 'open') parts.push(word('with a gap of'), value('corner gap', ['corners', kind, 'gap']));
    const given = get(['corners', kind, 'relief']);
    parts.push({
      kind: 'choice',
      path: ['do', 'bend', 'corners', kind, 'relief'],
      value: given === undefined ? 'none' : keyOf(given, 'round'),
      label: 'corner relief',
      options: [
        ['none', 'with no relief'],
        ['round', 'with a round relief of'],
        ['square', 'with a square relief of'],
      ],
    });
    for (const edge of Object.keys((get(['own']) as object | undefined) ?? {}))
      parts.push(
        word(`; ${edge} by`),
        value(`angle of ${edge}`, ['own', edge, 'angle'], { ghost: 'the same angle', optional: true }),
        word('leg'),
        value(`leg of ${edge}`, ['own', edge, 'leg'], { ghost: 'the same', optional: true }),
      );
    if (given !== undefined)
      parts.push(value('corner relief size', ['corners', kind, 'relief', keyOf(given, 'round')]));
  }
  if (get(['up_to']) !== undefined)
    parts.push(
      word(', as far as'),
      value('as far as', ['up_to', 'feature'], { names: 'features' }),
      word('less'),
      value('gap before it', ['up_to', 'gap'], { ghost: '0', optional: true }),
    );
  else
    parts.push(
      word(', leg'),
      value('leg', ['leg']),
      choice('leg measured to', ['leg_to'], 'outside', [
        ['outside', 'outside'],
        ['inside', 'inside'],
        ['mould', 'to the mould line'],
        ['tangent', 'to the tangent'],
      ]),
    );
  parts.push(
    word(','),
    choice('position', ['position'], 'material_inside', POSITION),
    word(', inside radius'),
    value('inside radius', ['radius'], { ghost: 'R', optional: true }),
    ...setIns(writer, sides),
    ...relief(writer),
    ...method(writer),
  );
  return [...parts, word('.')];
}

function legs({ value, get }: Writer): Part[] {
  const list = (get(['legs']) as Record<string, unknown>[] | undefined) ?? [];
  return list.flatMap((leg, index): Part[] => {
    const form = Object.keys(leg)[0] ?? 'line';
    const own = (rest: string) => ['legs', index, form, rest];
    const parts: Part[] = [word(index === 0 ? ':' : ';')];
    const turn =
      at(leg, [form, 'direction']) !== undefined
        ? [word('toward'), value(`direction of leg ${index + 1}`, own('direction'))]
        : index === 0
          ? []
          : [word('turned'), value(`turn of leg ${index + 1}`, own('turn'), { ghost: '0 deg', optional: true })];
    if (form === 'line')
      parts.push(
        ...turn,
        value(`name of leg ${index + 1}`, own('name'), { ghost: `leg-${index + 1}`, optional: true }),
        value(`length of leg ${index + 1}`, own('length')),
      );
    else if (form === 'arc')
      parts.push(
        word('round'),
        value(`name of leg ${index + 1}`, own('name'), { ghost: `leg-${index + 1}`, optional: true }),
        word('radius'),
        value(`radius of leg ${index + 1}`, own('radius')),
        word('through'),
        value(`sweep of leg ${index + 1}`, own('sweep')),
      );
    else
      parts.push(
        word('round past'),
        value(`across past of leg ${index + 1}`, own('through_x')),
        value(`up past of leg ${index + 1}`, own('through_y')),
        word('to'),
        value(`across of leg ${index + 1}`, own('x')),
        value(`up of leg ${index + 1}`, own('y')),
      );
    return parts;
  });
}

/** Words and values of a bent operation; nothing where it is none of these. */
export function bentParts(key: string, writer: Writer, sides: string[]): Part[] | undefined {
  const { value, choice, get } = writer;
  const whole = (label: string, path: Path, standard: string, options: [string, string][]): Part =>
    ({ ...choice(label, path, standard, options), value: keyOf(get(path), standard) }) as Part;
  switch (key) {
    case 'bend':
      return bendParts(writer, sides);
    case 'profile':
      return [
        word('Lay down', true),
        word('a profile seen from its end'),
        ...legs(writer),
        word(', sizes'),
        choice('sizes of the profile', ['sizes'], 'outside', [
          ['outside', 'outside'],
          ['inside', 'inside'],
          ['middle', 'along the middle'],
          ['metal_left', 'along one face, metal to the left'],
          ['metal_right', 'along one face, metal to the right'],
        ]),
        word(', inside radius'),
        value('inside radius', ['radius'], { ghost: 'R', optional: true }),
        word(', width'),
        value('width', ['width']),
        choice('where the width lies', ['width_from'], 'side', WIDTH),
        word(','),
        value('leg that stays', ['stays'], { ghost: 'the longest leg', optional: true }),
        word('stays put'),
        ...method(writer),
        word('.'),
      ];
    case 'roll': {
      const kind = keyOf(get(['span']), 'angle');
      const parts: Part[] = [
        word('Roll', true),
        choice('direction', ['direction'], 'up', UP_DOWN),
        word('to a radius of'),
        value('radius', ['radius']),
        choice('radius measured', ['to'], 'inside', [
          ['inside', 'inside'],
          ['middle', 'to the middle'],
          ['outside', 'outside'],
        ]),
        word(','),
        whole('rolled by', ['span'], 'angle', [
          ['angle', 'through'],
          ['arc', 'an arc of'],
          ['chord', 'on a chord of'],
          ['tube', 'a whole tube, its seam open by'],
        ]),
        value(kind === 'tube' ? 'seam gap' : kind, ['span', kind]),
      ];
      if (kind !== 'tube')
        parts.push(
          word(', lead in'),
          value('lead in', ['lead_in'], { ghost: '0', optional: true }),
          word('and out'),
          value('lead out', ['lead_out'], { ghost: '0', optional: true }),
        );
      parts.push(
        word(', width'),
        value('width', ['width']),
        choice('where the width lies', ['width_from'], 'side', WIDTH),
        ...method(writer),
        word('.'),
      );
      // A roll's own way is the middle of the metal.
      return parts.map((part) =>
        part.kind === 'choice' && part.label === 'blank by'
          ? {
              ...part,
              options: part.options.map(([key, words]): [string, string] =>
                key === 'piece' ? [key, 'the middle of the metal'] : [key, words],
              ),
            }
          : part,
      );
    }
    case 'hem': {
      const kind = keyOf(get(['style']), 'closed');
      const parts: Part[] = [
        word('Hem', true),
        value('edge', ['edge'], { names: 'edges' }),
        choice('direction', ['direction'], 'up', UP_DOWN),
        word(','),
        whole('kind of hem', ['style'], 'closed', [
          ['closed', 'closed'],
          ['open', 'open'],
          ['teardrop', 'as a teardrop'],
          ['rolled', 'rolled'],
        ]),
      ];
      if (kind === 'rolled')
        parts.push(
          word('to an inside radius of'),
          value('hem radius', ['style', 'rolled', 'radius']),
          word('through'),
          value('hem angle', ['style', 'rolled', 'angle'], { ghost: '270 deg', optional: true }),
        );
      else {
        parts.push(word(','), value('hem length', ['style', kind, 'length']), word('long over all'));
        if (kind === 'open') parts.push(word(', gap'), value('hem gap', ['style', 'open', 'gap']));
        if (kind === 'teardrop')
          parts.push(word(', inside radius'), value('hem radius', ['style', 'teardrop', 'radius']));
      }
      return [
        ...parts,
        word(','),
        choice('position', ['position'], 'material_inside', POSITION),
        ...setIns(writer, sides),
        ...relief(writer),
        ...method(writer),
        word('.'),
      ];
    }
    case 'joggle':
      return [
        word('Joggle', true),
        value('edge', ['edge'], { names: 'edges' }),
        choice('direction', ['direction'], 'up', UP_DOWN),
        word('by'),
        value('offset', ['offset']),
        word('at'),
        value('angle', ['angle'], { ghost: '90 deg', optional: true }),
        word(', leg'),
        value('leg', ['leg']),
        word('past it,'),
        choice('position', ['position'], 'bend_outside', POSITION),
        word(', inside radius'),
        value('inside radius', ['radius'], { ghost: 'R', optional: true }),
        ...setIns(writer, sides),
        ...relief(writer),
        ...method(writer),
        word('.'),
      ];
    case 'crease':
      return [
        word('Bend', true),
        value('panel', ['panel'], { names: 'panels' }),
        choice('direction', ['direction'], 'up', UP_DOWN),
        value('angle', ['angle']),
        word('along a line'),
        value('distance', ['distance']),
        word('from'),
        value('edge', ['edge'], { names: 'edges' }),
        word(', turned'),
        value('turn', ['turn'], { ghost: '0 deg', optional: true }),
        word(';'),
        choice('part that moves', ['moves'], 'near', [
          ['near', 'the part toward that edge moves'],
          ['far', 'the part beyond moves'],
        ]),
        word(','),
        choice('bend and line', ['position'], 'centred', [
          ['centred', 'the line its middle'],
          ['material_inside', 'material inside the line'],
          ['material_outside', 'material outside the line'],
        ]),
        word(', inside radius'),
        value('inside radius', ['radius'], { ghost: 'R', optional: true }),
        ...method(writer),
        word('.'),
      ];
    case 'notch': {
      const kind = keyOf(get(['shape']), 'square');
      const parts: Part[] = [
        word('Notch', true),
        value('edge', ['edge'], { names: 'edges' }),
        word('with'),
        whole('kind of notch', ['shape'], 'square', [
          ['square', 'a square notch'],
          ['vee', 'a vee'],
          ['round', 'half a circle'],
        ]),
      ];
      if (kind === 'round') parts.push(word('of radius'), value('notch radius', ['shape', 'round']));
      else
        parts.push(
          value('notch width', ['shape', kind, 'width']),
          word('wide,'),
          value('notch depth', ['shape', kind, 'depth']),
          word('deep'),
        );
      return [...parts, ...row(writer), word('.')];
    }
    case 'tab':
      return [
        word('Put tabs', true),
        word('on'),
        value('edge', ['edge'], { names: 'edges' }),
        word(','),
        value('tab width', ['width']),
        word('wide,'),
        value('tab height', ['height']),
        word('high'),
        ...row(writer),
        word('.'),
      ];
    case 'slots':
      return [
        word('Cut slots', true),
        word('in'),
        value('panel', ['panel'], { names: 'panels' }),
        word('for the tabs'),
        value('tabs', ['tabs'], { names: 'operations' }),
        word(', clear by'),
        value('clearance', ['clearance']),
        word('all round.'),
      ];
    case 'again': {
      const mirror = get(['how', 'mirror']) !== undefined;
      const parts: Part[] = [
        word(mirror ? 'Mirror' : 'Repeat', true),
        value('operations', ['of'], { list: true, names: 'operations' }),
      ];
      if (mirror)
        return [
          ...parts,
          word('across the middle of'),
          value('panel', ['how', 'mirror', 'panel'], { names: 'panels' }),
          choice('mirrored along', ['how', 'mirror', 'along'], 'x', [
            ['x', 'to the other side along x'],
            ['y', 'to the other side along y'],
          ]),
          word('.'),
        ];
      return [
        ...parts,
        word(','),
        value('count', ['how', 'shift', 'count']),
        word('in all, each'),
        value('across', ['how', 'shift', 'x'], { ghost: '0', optional: true }),
        word('along x and'),
        value('up', ['how', 'shift', 'y'], { ghost: '0', optional: true }),
        word('along y.'),
      ];
    }
    default:
      return undefined;
  }
}

const row = ({ value }: Writer): Part[] => [
  word(', the first at'),
  value('first at', ['at'], { ghost: 'the middle', optional: true }),
  word(','),
  value('count', ['count'], { ghost: '1', optional: true }),
  word('off'),
  value('spacing', ['spacing'], { ghost: 'evenly', optional: true }),
  word('apart'),
];

/** What can be changed of a bent operation in one click, in words. */
export function bentChanges(operation: Operation, key: string, edges: string[]): Change[] {
  const get = (path: Path) => at(operation, ['do', key, ...path]);
  const all: Change[] = [];
  if (key === 'bend') {
    const also = (get(['also']) as string[] | undefined) ?? [];
    const own = String(get(['edge']) ?? '');
    const panel = own.slice(0, own.lastIndexOf('.'));
    const more = edges.filter(
      (one) => one !== own && !also.includes(one) && one.slice(0, one.lastIndexOf('.')) === panel,
    );
    const next = more[0];
    if (next) all.push({ words: `+ ${next}`, sets: [[['also'], [...also, next]]] });
    if (more.length > 1) all.push({ words: 'along every edge of the panel', sets: [[['also'], [...also, ...more]]] });
    if (also.length > 0)
      all.push({
        words: 'along its first edge alone',
        sets: [
          [['also'], undefined],
          [['corners'], undefined],
        ],
      });
    for (const edge of also.length > 0 ? [own, ...also] : []) {
      if (get(['own', edge]) === undefined)
        all.push({ words: `${edge} with numbers of its own`, sets: [[['own', edge], { leg: '30 mm' }]] });
      else all.push({ words: `${edge} as the others`, sets: [[['own', edge], undefined]] });
    }
    const number = get(['stands']) !== undefined;
    if (number)
      all.push({
        words: 'its angle a number',
        sets: [
          [['stands'], undefined],
          [['angle'], '90 deg'],
        ],
      });
    if (get(['angle_is']) === 'included')
      all.push({ words: 'its angle the bend angle', sets: [[['angle_is'], undefined]] });
    else if (!number) all.push({ words: 'its angle the included angle', sets: [[['angle_is'], 'included']] });
    all.push({
      words: 'parallel to a panel',
      sets: [
        [['angle'], undefined],
        [['angle_is'], undefined],
        [['stands'], { parallel: 'base' }],
      ],
    });
    all.push({
      words: 'square to a panel',
      sets: [
        [['angle'], undefined],
        [['angle_is'], undefined],
        [['stands'], { square: 'base' }],
      ],
    });
    if (get(['up_to']) === undefined)
      all.push({
        words: 'its leg as far as something',
        sets: [
          [['leg'], undefined],
          [
            ['up_to'],
            {
              feature: edges.find((one) => !one.startsWith(`${operation.name}.`) && one.endsWith('.end')) ?? 'base.top',
            },
          ],
        ],
      });
    else
      all.push({
        words: 'its leg a length',
        sets: [
          [['up_to'], undefined],
          [['leg'], '40 mm'],
        ],
      });
  }
  if (key === 'profile') {
    const list = (get(['legs']) as unknown[] | undefined) ?? [];
    all.push({ words: '+ straight leg', sets: [[['legs'], [...list, { line: { length: '40 mm', turn: '90 deg' } }]]] });
    all.push({ words: '+ round leg', sets: [[['legs'], [...list, { arc: { radius: '30 mm', sweep: '90 deg' } }]]] });
    if (list.length > 1) all.push({ words: '− last leg', sets: [[['legs'], list.slice(0, -1)]] });
  }
  return all;
}

const pair = (text: string): [string, string] | undefined => {
  const found = /^(.+?)\s+by\s+(.+)$/.exec(text);
  return found ? [found[1] ?? '', found[2] ?? ''] : undefined;
};

/** Reads the parts of a typed line of this verb: the action with the stem of its name, or what is wrong. */
export function readBent(verb: string, parts: string[]): Typed {
  const rest: string[] = [];
  const fields: Record<string, unknown> = {};
  for (const part of parts) {
    const [, radius] = /^radius\s+(.+)$/.exec(part) ?? [];
    const [, width] = /^wide\s+(.+)$/.exec(part) ?? [];
    const [, count, spacing] = /^(\S+)\s+off(?:\s+(.+))?$/.exec(part) ?? [];
    const [, first] = /^at\s+(.+)$/.exec(part) ?? [];
    if (part === 'up' || part === 'down') fields.direction = part;
    else if (part === 'centred') fields.width_from = 'centre';
    else if (part === 'relief') fields.relief = { shape: 'rectangular' };
    else if (radius && verb !== 'roll') fields.radius = radius;
    else if (width) fields.width = width;
    else if (count) Object.assign(fields, { count }, spacing ? { spacing } : {});
    else if (first) fields.at = first;
    else rest.push(part);
  }
  const [one, two, three] = rest;
  switch (verb) {
    case 'profile': {
      const list: object[] = [];
      let turn: string | undefined;
      for (const part of rest) {
        const arc = /^round\s+(.+?)\s+through\s+(.+)$/.exec(part);
        if (['outside', 'inside', 'middle', 'metal left', 'metal right'].includes(part))
          fields.sizes = part.replace(' ', '_');
        else if (arc) list.push({ arc: { radius: arc[1], sweep: arc[2] } });
        else if (/(deg|rad|°)$/.test(part)) turn = part;
        else {
          list.push({ line: { length: part, ...(turn && list.length > 0 ? { turn } : {}) } });
          turn = undefined;
        }
      }
      if (list.length === 0 || !fields.width) return undefined;
      return { stem: 'profile', action: { profile: { legs: list, ...fields } } };
    }
    case 'roll': {
      const roll: Record<string, unknown> = { ...fields };
      for (const part of parts) {
        const [, key, text] = /^(radius|arc|chord|tube|lead in|lead out)\s+(.+)$/.exec(part) ?? [];
        if (key === 'radius') roll.radius = text;
        else if (key === 'lead in' || key === 'lead out') roll[key.replace(' ', '_')] = text;
        else if (key) roll.span = { [key]: text };
        else if (/(deg|rad|°)$/.test(part)) roll.span = { angle: part };
        else if (['inside', 'middle', 'outside'].includes(part)) roll.to = part;
      }
      if (!roll.radius || !roll.span || !roll.width) return undefined;
      return { stem: 'roll', action: { roll } };
    }
    case 'hem': {
      const kind = two ?? 'closed';
      const { radius, ...others } = fields;
      const [, gap] = /^open\s+(.+)$/.exec(kind) ?? [];
      const style = gap
        ? { open: { length: three ?? '10*T', gap } }
        : kind === 'teardrop'
          ? { teardrop: { length: three ?? '12*T', radius: radius ?? 'T' } }
          : kind === 'rolled'
            ? { rolled: { radius: radius ?? '2*T' } }
            : kind === 'closed'
              ? { closed: { length: three ?? '8*T' } }
              : undefined;
      if (!one || !style) return undefined;
      return { stem: 'hem', action: { hem: { edge: one, style, ...others } } };
    }
    case 'joggle': {
      const leg = rest.map((part) => /^leg\s+(.+)$/.exec(part)?.[1]).find(Boolean);
      const angle = rest.find((part) => /(deg|rad|°)$/.test(part));
      if (!one || !two || !leg) return undefined;
      return {
        stem: 'step',
        action: { joggle: { edge: one, offset: two, leg, ...(angle ? { angle } : {}), ...fields } },
      };
    }
    case 'crease': {
      const place = rest.map((part) => /^(.+?)\s+from\s+(\S+)$/.exec(part)).find(Boolean);
      const angle = rest.find((part) => /(deg|rad|°)$/.test(part)) ?? '90 deg';
      if (!one || !place) return undefined;
      return { stem: 'fold', action: { crease: { panel: one, distance: place[1], edge: place[2], angle, ...fields } } };
    }
    case 'notch': {
      const vee = pair(/^vee\s+(.+)$/.exec(two ?? '')?.[1] ?? '');
      const square = pair((two ?? '').replace(/^square\s+/, ''));
      const shape = vee
        ? { vee: { width: vee[0], depth: vee[1] } }
        : fields.radius
          ? { round: fields.radius }
          : square
            ? { square: { width: square[0], depth: square[1] } }
            : undefined;
      if (!one || !shape) return undefined;
      const notch: Record<string, unknown> = { edge: one, shape, ...fields };
      delete notch.radius;
      return { stem: 'notch', action: { notch } };
    }
    case 'tab': {
      const size = pair(two ?? '');
      if (!one || !size) return undefined;
      return { stem: 'tabs', action: { tab: { edge: one, width: size[0], height: size[1], ...fields } } };
    }
    case 'slots': {
      const clearance = rest.map((part) => /^(?:clear|clearance)\s+(.+)$/.exec(part)?.[1]).find(Boolean) ?? '0.2 mm';
      if (!one || !two) return undefined;
      return { stem: 'slots', action: { slots: { tabs: one, panel: two, clearance } } };
    }
    case 'mirror': {
      const about = rest.map((part) => /^about\s+(\S+)(?:\s+along\s+([xy]))?$/.exec(part)).find(Boolean);
      const of = rest.filter((part) => !part.startsWith('about '));
      if (!about || of.length === 0) return undefined;
      return {
        stem: 'other',
        action: { again: { of, how: { mirror: { panel: about[1], ...(about[2] ? { along: about[2] } : {}) } } } },
      };
    }
    case 'repeat': {
      const steps = rest.map((part) => /^([xy])\s+(.+)$/.exec(part)).filter((found) => found !== null);
      const of = rest.filter((part) => !/^[xy]\s/.test(part));
      if (!fields.count || of.length === 0 || (steps.length === 0 && !fields.spacing)) return undefined;
      const shift = {
        count: fields.count,
        ...(fields.spacing ? { x: fields.spacing } : {}),
        ...Object.fromEntries(steps.map((found) => [found[1] ?? 'x', found[2]])),
      };
      return { stem: 'row', action: { again: { of, how: { shift } } } };
    }
    default:
      return undefined;
  }
}
