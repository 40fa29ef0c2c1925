// What several verbs of sheet share: how things lie, the blank's way, reliefs, and the parts of a typed line.
import { keyOf, puts, sharing, word, type Part, type Way, type Writer } from '../../bench/parts';
import { COUNTED, type ActionOf } from '../verb';

/** Which way a bend goes. */
export const UP_DOWN: Way[] = [
  ['up', 'up'],
  ['down', 'down'],
];

/** A curve of K by R/T to begin with, from memory. */
export const CURVE = {
  k_curve: [
    { ratio: '0.5', k: '0.25' },
    { ratio: '1', k: '0.325' },
    { ratio: '2', k: '0.4' },
    { ratio: '3', k: '0.444' },
    { ratio: '5', k: '0.5' },
  ],
};

/** Ways to compute a blank but for the one that it is computed by unless another is said. */
const METHODS: Way[] = [
  ['k_factor', 'K-factor', puts({ k_factor: '0.44' })],
  ['allowance', 'bend allowance', puts({ allowance: 'pi/2 * (R + 0.44*T)' })],
  ['deduction', 'bend deduction', puts({ deduction: '2*(R + T) - pi/2 * (R + 0.44*T)' })],
  ['din6935', 'DIN 6935'],
  ['k_curve', 'K by R/T', puts(CURVE)],
];

/** Where a bend lies against the edge. */
export const POSITION: Way[] = [
  ['material_inside', 'material inside the edge'],
  ['material_outside', 'material outside the edge'],
  ['bend_outside', 'bend outside the edge'],
];

/** Where a width lies against the line. */
export const WIDTH: Way[] = [
  ['side', 'to one side'],
  ['centre', 'half to each side'],
];

type Bent = Pick<ActionOf<'bend'>, 'method'>;

/** By what the blank is computed; `usual` is what that is where nothing is said. */
export function method<A extends Bent>(own: Writer<A>, usual = "the piece's way"): Part[] {
  const writer = sharing<Bent, A>(own);
  const given = writer.get(['method']);
  const kind = keyOf(given, 'piece');
  const parts: Part[] = [
    word(', blank by'),
    writer.whole('blank by', ['method'], 'piece', [['piece', usual, puts(undefined)], ...METHODS]),
  ];
  if (kind === 'k_curve') parts.push(...curve(writer));
  else if (given != null && typeof given === 'object')
    parts.push(writer.value('bending figure', ['method', kind as 'k_factor']));
  return parts;
}

/** Points of a curve of K. */
export function curve({ value, get }: Writer<Bent>): Part[] {
  const points = (get(['method', 'k_curve']) as unknown[] | undefined) ?? [];
  return points
    .flatMap((_, index): Part[] => [
      word(index === 0 ? '' : ';'),
      value(`R/T of point ${index + 1}`, ['method', 'k_curve', index, 'ratio']),
      word(':'),
      value(`K of point ${index + 1}`, ['method', 'k_curve', index, 'k']),
    ])
    .filter((part) => part.kind !== 'word' || part.text !== '');
}

type Relieved = Pick<ActionOf<'bend'>, 'relief'>;

/** Reliefs beside a bend. */
export function relief<A extends Relieved>(own: Writer<A>): Part[] {
  const writer = sharing<Relieved, A>(own);
  const given = writer.get(['relief']) as { shape?: string } | undefined;
  const parts: Part[] = [
    word(','),
    {
      ...writer.choice('relief', ['relief'], 'none', [
        ['none', 'no relief', puts(undefined)],
        ['rectangular', 'square relief', puts({ shape: 'rectangular' })],
        ['obround', 'round relief', puts({ shape: 'obround' })],
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

type SetIn = Pick<ActionOf<'bend'>, 'set_in'>;

/** How far a flange stays from the ends of its edge. */
export const setIns = <A extends SetIn>(writer: Writer<A>, sides: string[]): Part[] =>
  sides.flatMap((side): Part[] => [
    word(', set in'),
    sharing<SetIn, A>(writer).value(`set in at ${side}`, ['set_in', side], { ghost: '0', optional: true }),
    word(`at ${side}`),
  ]);

type Seamed = Pick<ActionOf<'seam'>, 'seam'>;

/** How two edges lie together and are welded. */
export function seamAs<A extends Seamed>(own: Writer<A>): Part[] {
  const { choice } = sharing<Seamed, A>(own);
  return [
    word(','),
    choice('how the edges lie', ['seam', 'lay'], 'edge_to_edge', [
      ['edge_to_edge', 'edge to edge'],
      ['first_covers', 'the first covers the second'],
      ['second_covers', 'the second covers the first'],
    ]),
    word(','),
    choice('weld', ['seam', 'weld'], 'outside', [
      ['outside', 'welded outside'],
      ['inside', 'welded inside'],
      ['both', 'welded on both sides'],
      ['not', 'not welded'],
    ]),
    choice('finish of the weld', ['seam', 'flush'], 'false', [
      ['false', 'as welded', puts(undefined)],
      ['true', 'ground flush', puts(true)],
    ]),
  ];
}

type Rowed = Pick<ActionOf<'tab'>, 'at' | 'count' | 'spacing'>;

/** Where the first of a row stands, how many, how far apart. */
export function row<A extends Rowed>(writer: Writer<A>): Part[] {
  const { value } = sharing<Rowed, A>(writer);
  return [
    word(', the first at'),
    value('first at', ['at'], { ghost: 'the middle', optional: true }),
    word(','),
    value('count', ['count'], { ghost: '1', optional: true }),
    word('in a row,'),
    value('spacing', ['spacing'], { ghost: 'evenly', optional: true }),
    word('apart'),
  ];
}

/** Two values with "by" between them. */
export const pair = (text: string): [string, string] | undefined => {
  const found = /^(.+?)\s+by\s+(.+)$/.exec(text);
  return found ? [found[1] ?? '', found[2] ?? ''] : undefined;
};

/**
 * The parts of a typed line that most verbs have, and the rest in order; `keep` is a word that a verb reads by
 * itself.
 */
export function fieldsOf(parts: string[], keep?: 'radius'): { rest: string[]; fields: Record<string, unknown> } {
  const rest: string[] = [];
  const fields: Record<string, unknown> = {};
  for (const part of parts) {
    const [, radius] = /^radius\s+(.+)$/.exec(part) ?? [];
    const [, width] = /^wide\s+(.+)$/.exec(part) ?? [];
    const [, count, spacing] = COUNTED.exec(part) ?? [];
    const [, first] = /^at\s+(.+)$/.exec(part) ?? [];
    if (part === 'up' || part === 'down') fields.direction = part;
    else if (part === 'centred') fields.width_from = 'centre';
    else if (part === 'relief') fields.relief = { shape: 'rectangular' };
    else if (radius && keep !== 'radius') fields.radius = radius;
    else if (width) fields.width = width;
    else if (count) Object.assign(fields, { count }, spacing ? { spacing } : {});
    else if (first) fields.at = first;
    else rest.push(part);
  }
  return { rest, fields };
}
