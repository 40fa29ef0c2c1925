// Shapes of plates in a sentence, and how each begins when it is chosen.
import type { Operation } from '../../api/client';
import { at, plain, type Path } from '../../bench/edit';
import { puts, word, type Part, type Way } from '../../bench/parts';

export interface ShapeKind {
  key: string;
  words: string;
  start: Record<string, unknown>;
}

/** The shapes that can be chosen, with first sizes to change. */
export const SHAPES: ShapeKind[] = [
  { key: 'rectangle', words: 'rectangle', start: { rectangle: { width: '120 mm', depth: '80 mm' } } },
  { key: 'circle', words: 'circle', start: { circle: { diameter: '100 mm' } } },
  { key: 'ring', words: 'ring', start: { ring: { outside: '120 mm', inside: '60 mm' } } },
  { key: 'obround', words: 'obround', start: { obround: { length: '120 mm', width: '40 mm' } } },
  { key: 'polygon', words: 'regular polygon', start: { polygon: { sides: '6', size: '80 mm' } } },
  { key: 'triangle', words: 'triangle', start: { triangle: { base: '100 mm', height: '80 mm' } } },
  { key: 'gusset', words: 'gusset', start: { gusset: { width: '100 mm', height: '100 mm', corner: '15 mm' } } },
  { key: 'lug', words: 'lug', start: { lug: { base: '100 mm', height: '70 mm', radius: '35 mm', hole: '26 mm' } } },
  {
    key: 'eared',
    words: 'flange with ears',
    start: { eared: { body: '80 mm', bore: '50 mm', ears: '2', circle: '110 mm', ear_radius: '14 mm', hole: '11 mm' } },
  },
  {
    key: 'run',
    words: 'run of legs',
    start: {
      run: {
        close: true,
        legs: [
          { line: { length: '100 mm', direction: '0 deg' } },
          { line: { length: '60 mm', turn: '90 deg' } },
          { line: { length: '40 mm', turn: '90 deg' } },
        ],
      },
    },
  },
  {
    key: 'drawn',
    words: 'drawn outline',
    start: {
      drawn: {
        corners: [
          { name: 'p1', x: 0, y: 0, edge: 'e1' },
          { name: 'p2', x: 100, y: 0, edge: 'e2' },
          { name: 'p3', x: 100, y: 60, edge: 'e3' },
          { name: 'p4', x: 0, y: 60, edge: 'e4' },
        ],
        says: [],
      },
    },
  },
  {
    key: 'combined',
    words: 'shapes put together',
    start: {
      combined: {
        parts: [
          { name: 'one', shape: { rectangle: { width: '100 mm', depth: '60 mm' } } },
          { name: 'two', act: 'add', x: '50 mm', y: '0', shape: { circle: { diameter: '60 mm' } } },
        ],
      },
    },
  },
];

/** Words and values of the shape at this path. */
export function shapeParts(operation: Operation, path: Path): Part[] {
  const kind = Object.keys((at(operation, path) as object | undefined) ?? {})[0] ?? 'rectangle';
  const root: Path = [...path, kind];
  const text = (rest: Path) => plain(at(operation, [...root, ...rest]));
  const value = (label: string, rest: Path, ghost?: string): Part => ({
    kind: 'value',
    path: [...root, ...rest],
    text: text(rest),
    label,
    ...(ghost === undefined ? {} : { ghost, optional: true }),
  });
  const choice = (label: string, rest: Path, standard: string, options: Way[]): Part => ({
    kind: 'choice',
    path: [...root, ...rest],
    value: text(rest) || standard,
    label,
    options,
  });
  const known = SHAPES.some((one) => one.key === kind);
  const start: Part[] = [
    word(kind === 'eared' || kind === 'combined' ? '' : kind === 'obround' ? 'an' : 'a'),
    {
      kind: 'choice' as const,
      path,
      value: kind,
      label: 'shape',
      options: [
        ...SHAPES.map((one): Way => [one.key, one.words, puts(one.start)]),
        ...(known ? [] : [[kind, 'outline from a file'] as Way]),
      ],
    },
  ].filter((part) => part.kind !== 'word' || part.text !== '');
  switch (kind) {
    case 'rectangle':
      return [...start, value('width', ['width']), word('by'), value('depth', ['depth'])];
    case 'circle':
      return [...start, word('of diameter'), value('diameter', ['diameter'])];
    case 'ring':
      return [
        ...start,
        value('outside diameter', ['outside']),
        word('outside,'),
        value('inside diameter', ['inside']),
        word('inside'),
      ];
    case 'obround':
      return [...start, value('length', ['length']), word('long,'), value('width', ['width']), word('wide')];
    case 'polygon':
      return [
        ...start,
        word('of'),
        value('sides', ['sides']),
        word('sides,'),
        value('size', ['size']),
        word('across'),
        choice('measured across', ['across'], 'flats', [
          ['flats', 'flats'],
          ['corners', 'corners'],
        ]),
      ];
    case 'triangle':
      return [
        ...start,
        word('on a base of'),
        value('base', ['base']),
        word(', height'),
        value('height', ['height']),
        word(', its tip'),
        value('tip along the base', ['lean'], '0'),
        word('along'),
      ];
    case 'gusset':
      return [
        ...start,
        word(', foot'),
        value('foot', ['width']),
        word(', upright'),
        value('upright', ['height']),
        word(', inner corner clipped'),
        value('corner clip', ['corner'], '0'),
        word(', toe'),
        value('toe', ['toe'], '0'),
        word(', tip'),
        value('tip', ['tip'], '0'),
      ];
    case 'lug':
      return [
        ...start,
        word('on a foot of'),
        value('foot', ['base']),
        word(', hole'),
        value('hole diameter', ['hole'], 'none'),
        value('hole height', ['height']),
        word('up, crown radius'),
        value('crown radius', ['radius']),
      ];
    case 'eared':
      return [
        ...start,
        word(': body'),
        value('body diameter', ['body']),
        word(', bore'),
        value('bore', ['bore'], 'none'),
        word(','),
        value('ears', ['ears']),
        word('ears on a circle of'),
        value('bolt circle', ['circle']),
        word(', ear radius'),
        value('ear radius', ['ear_radius']),
        word(', holes'),
        value('hole diameter', ['hole'], 'none'),
      ];
    case 'run': {
      const legs = (at(operation, [...root, 'legs']) as Record<string, unknown>[] | undefined) ?? [];
      const parts: Part[] = [...start];
      legs.forEach((leg, index) => {
        const form = Object.keys(leg)[0] ?? 'line';
        parts.push(word(index === 0 ? ':' : ';'));
        if (form === 'line') {
          parts.push(word('straight'), value(`length of leg ${index + 1}`, ['legs', index, 'line', 'length']));
          if (at(leg, ['line', 'direction']) !== undefined)
            parts.push(
              word('toward'),
              value(`direction of leg ${index + 1}`, ['legs', index, 'line', 'direction'], '0 deg'),
            );
          else parts.push(word('turned'), value(`turn of leg ${index + 1}`, ['legs', index, 'line', 'turn'], '0 deg'));
        } else if (form === 'arc') {
          parts.push(
            word('round'),
            value(`radius of leg ${index + 1}`, ['legs', index, 'arc', 'radius']),
            word('through'),
            value(`sweep of leg ${index + 1}`, ['legs', index, 'arc', 'sweep']),
            word('turned'),
            value(`turn of leg ${index + 1}`, ['legs', index, 'arc', 'turn'], '0 deg'),
          );
        } else {
          parts.push(
            word('round past'),
            value(`across past of leg ${index + 1}`, ['legs', index, form, 'through_x']),
            value(`up past of leg ${index + 1}`, ['legs', index, form, 'through_y']),
            word('to'),
            value(`across of leg ${index + 1}`, ['legs', index, form, 'x']),
            value(`up of leg ${index + 1}`, ['legs', index, form, 'y']),
          );
        }
      });
      const open = at(operation, [...root, 'open']);
      parts.push(word(','), {
        kind: 'choice',
        path: [...root, 'open'],
        value: open === undefined ? 'closed' : 'open',
        label: 'end of the run',
        options: [
          [
            'closed',
            at(operation, [...root, 'close']) ? 'closed by a straight leg' : 'back to its start',
            puts(undefined),
          ],
          ['open', 'left open, seen from its end', puts({ thickness: 'T' })],
        ],
      });
      if (open !== undefined)
        parts.push(
          word(','),
          value('thickness of the run', ['open', 'thickness']),
          word('thick,'),
          choice('side of the metal', ['open', 'side'], 'left', [
            ['left', 'metal to the left'],
            ['right', 'metal to the right'],
            ['middle', 'metal to both sides'],
          ]),
        );
      return parts;
    }
    case 'combined': {
      const list = (at(operation, [...root, 'parts']) as Record<string, unknown>[] | undefined) ?? [];
      const parts: Part[] = [...start];
      list.forEach((_, index) => {
        parts.push(word(index === 0 ? ':' : ';'));
        if (index > 0)
          parts.push(
            choice(`what part ${index + 1} does`, ['parts', index, 'act'], 'add', [
              ['add', 'add'],
              ['take', 'take away'],
              ['keep', 'keep what is shared with'],
            ]),
          );
        parts.push(...shapeParts(operation, [...root, 'parts', index, 'shape']));
        parts.push(
          word('at'),
          value(`across of part ${index + 1}`, ['parts', index, 'x'], '0'),
          word(','),
          value(`up of part ${index + 1}`, ['parts', index, 'y'], '0'),
          word(', turned'),
          value(`turn of part ${index + 1}`, ['parts', index, 'turn'], '0 deg'),
        );
      });
      return parts;
    }
    case 'drawn': {
      const corners = (at(operation, [...root, 'corners']) as unknown[] | undefined) ?? [];
      const says = (at(operation, [...root, 'says']) as unknown[] | undefined) ?? [];
      return [
        ...start,
        word(`of ${corners.length} corners, ${says.length === 1 ? 'one thing' : `${says.length} things`} said of it`),
      ];
    }
    default:
      return [...start, word(text(['source']) ? `, ${text(['source'])}` : '')];
  }
}
