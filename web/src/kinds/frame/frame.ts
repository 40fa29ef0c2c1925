// Frame work in sentences, what can be changed of each in one click, and how each is typed in a line.
import type { Operation } from '../../api/client';
import { at, type Path } from '../../bench/edit';
import {
  type Change,
  type Choices,
  type Phrase,
  type Typed,
  type Names,
  type Part,
  type Writer,
  word,
} from '../../bench/parts';
import { SHAPE_CHOICES, shapeParts } from '../sheet/shape';

const keyOf = (value: unknown): string =>
  typeof value === 'string' ? value : (Object.keys((value as object | undefined) ?? {})[0] ?? '');
const AXES: [string, string][] = [
  ['x', 'x'],
  ['y', 'y'],
  ['z', 'z'],
];
const WAYS: [string, string][] = [
  ['right', 'right'],
  ['left', 'left'],
  ['away', 'away'],
  ['toward', 'toward'],
  ['up', 'up'],
  ['down', 'down'],
];
const FACES: [string, string][] = [
  ['top', 'top'],
  ['bottom', 'bottom'],
  ['left', 'left'],
  ['right', 'right'],
];
const ENDS: [string, string][] = [
  ['both', 'both ends'],
  ['start', 'the start'],
  ['finish', 'the finish'],
];
const SIDES: [string, string][] = [
  ['', 'keeping this side'],
  ['true', 'keeping what lies beyond'],
];
const LIES: [string, string][] = [
  ['flat', 'on the floor'],
  ['across', 'standing across'],
  ['lengthwise', 'standing lengthwise'],
];
const ALIGN: [string, string][] = [
  ['centre', 'its middle on the line'],
  ['centroid', 'its centroid on the line'],
  ['top', 'its top on the line'],
  ['bottom', 'its bottom on the line'],
  ['left', 'its left on the line'],
  ['right', 'its right on the line'],
  ['top_left', 'its top left corner on the line'],
  ['top_right', 'its top right corner on the line'],
  ['bottom_left', 'its bottom left corner on the line'],
  ['bottom_right', 'its bottom right corner on the line'],
];

/** Sizes that each ready frame has; those after the bar may be left out. */
export const READY: Record<string, { words: string; needed: string[]; more: string[] }> = {
  rectangle: { words: 'a rectangle', needed: ['width', 'depth'], more: [] },
  box: { words: 'a box', needed: ['width', 'depth', 'height'], more: [] },
  table: { words: 'a table', needed: ['width', 'depth', 'height'], more: ['rail'] },
  trestle: { words: 'a trestle', needed: ['length', 'spread', 'height'], more: ['rail'] },
  a_frame: { words: 'an A-frame', needed: ['width', 'height'], more: ['bar'] },
  flat_truss: { words: 'a flat truss', needed: ['length', 'height', 'bays'], more: [] },
  pitched_truss: { words: 'a pitched truss', needed: ['span', 'rise', 'bays'], more: [] },
  ladder: { words: 'a ladder', needed: ['length', 'width', 'rungs'], more: ['first'] },
  stair: { words: 'a stair', needed: ['rise', 'going', 'width', 'steps'], more: [] },
};

/** What a choice that stands for a whole field puts there. */
export const FRAME_CHOICES: Choices = {
  ...SHAPE_CHOICES,
  // A yes or no as a choice of words.
  ...Object.fromEntries(
    ['within the length', 'where the panel lies', 'where the through one ends', 'which face', 'walls'].map((label) => [
      label,
      { '': undefined, true: true },
    ]),
  ),
  'how it stands': { '': undefined, along: 'along', across: 'across' },
  'where the joint is': { corners: 'corners', tees: 'tees', all: 'all', nodes: { nodes: [] } },
  'how they meet': {
    mitre: { mitre: {} },
    butt: { butt: {} },
    trim: { trim: {} },
    cope: { cope: {} },
    pass: { pass: {} },
  },
  'how the end is cut': {
    trim: { trim: { to: [] } },
    extend: { extend: { to: [] } },
    cope: { cope: { to: [] } },
    plane: { plane: { axis: 'z', at: '0 mm' } },
    square: { square: { by: '0 mm' } },
    angle: { angle: { angle: '30 deg' } },
    cap: { cap: { thickness: '3 mm' } },
  },
  'copied how': {
    mirror: { mirror: { axis: 'x' } },
    shift: { shift: { x: '500 mm', count: '1' } },
    turn: { turn: { axis: 'z', angle: '90 deg', count: '3' } },
  },
};

/** A value that may be left out: with its word where it is given, else only that word, faint, to be filled in. */
const maybe = (
  { value, get }: Writer,
  before: string,
  label: string,
  path: Path,
  more: { names?: Names; list?: boolean; ghost?: string } = {},
): Part[] =>
  get(path) === undefined
    ? [value(label, path, { ...more, ghost: more.ghost ?? before, optional: true })]
    : [word(before), value(label, path, { ...more, ghost: more.ghost ?? before, optional: true })];

const axes = (writer: Writer, path: Path, label: (axis: string) => string): Part[] =>
  ['x', 'y', 'z'].flatMap((axis) => maybe(writer, axis, label(axis), [...path, axis]));

const place = (writer: Writer, path: Path, name: string): Part[] => [
  writer.value(`${name} from`, [...path, 'from'], { ghost: 'the origin', optional: true, names: 'nodes' }),
  ...axes(writer, path, (axis) => `${name} ${axis}`),
];

function legs(writer: Writer): Part[] {
  const { value, choice, get } = writer;
  const list = (get(['legs']) as Record<string, unknown>[] | undefined) ?? [];
  return list.flatMap((leg, index): Part[] => {
    const form = Object.keys(leg)[0] ?? 'by';
    const own = (...rest: Path): Path => ['legs', index, form, ...rest];
    const parts: Part[] = [
      word(';'),
      value(`name of line ${index + 1}`, own('name'), { ghost: `line ${index + 1}`, optional: true }),
    ];
    if (form === 'by') parts.push(word('by'), ...axes(writer, own(), (axis) => `${axis} of line ${index + 1}`));
    else {
      parts.push(word(form === 'arc' ? 'round to' : 'to'), ...place(writer, own('place'), `line ${index + 1}`));
      if (form === 'arc') {
        if (get(own('how', 'radius')) !== undefined)
          parts.push(
            word('radius'),
            value(`radius of line ${index + 1}`, own('how', 'radius', 'radius')),
            word('bulging'),
            choice(`bulge of line ${index + 1}`, own('how', 'radius', 'toward'), 'up', WAYS),
          );
        else parts.push(word('past'), ...place(writer, own('how', 'through'), `line ${index + 1} past`));
      }
    }
    return parts;
  });
}

function plateParts(operation: Operation, writer: Writer): Part[] {
  const { value, choice, get } = writer;
  const kind = keyOf(get(['kind']));
  const own = (...rest: Path): Path => ['kind', kind, ...rest];
  const thick = [value('thickness', ['thickness'])];
  const tail: Part[] = [word(', mark'), value('mark of the plate', ['mark'], { ghost: 'by its name', optional: true })];
  const work = (get(['work']) as unknown[] | undefined) ?? [];
  if (work.length > 0) tail.push(word(`, ${work.length} more ${work.length === 1 ? 'step' : 'steps'} of work on it`));
  switch (kind) {
    case 'gusset':
      return [
        word('Gusset', true),
        ...thick,
        word('between'),
        value('first member', own('between', 0), { names: 'members' }),
        word('and'),
        value('second member', own('between', 1), { names: 'members' }),
        word(', legs'),
        value('first leg', own('first')),
        word('and'),
        value('second leg', own('second')),
        word(', corner clipped'),
        value('corner clip', own('corner'), { ghost: '0', optional: true }),
        word(', tips'),
        value('blunt tips', own('tips'), { ghost: '0', optional: true }),
        word(', off the middle'),
        value('off the middle', own('off'), { ghost: '0', optional: true }),
        ...tail,
        word('.'),
      ];
    case 'base':
      return [
        word('Base plate', true),
        ...thick,
        word('on'),
        value('members', own('of'), { names: 'members', list: true }),
        word('at'),
        choice('which end', own('at'), 'both', ENDS),
        word(':'),
        ...shapeParts(operation, ['do', 'plate', ...own('shape')]),
        word(','),
        choice('within the length', own('within'), '', [
          ['', 'beyond the member'],
          ['true', 'within its length'],
        ]),
        ...tail,
        word('.'),
      ];
    case 'face':
      return [
        word('Plate', true),
        ...thick,
        word('on the'),
        choice('face', own('face'), 'top', FACES),
        word('of'),
        value('members', own('of'), { names: 'members', list: true }),
        word('at'),
        value('distance along', own('at')),
        word(','),
        choice('how it stands', own('stands'), '', [
          ['', 'lying on it'],
          ['along', 'standing along it'],
          ['across', 'standing across it'],
        ]),
        word(':'),
        ...shapeParts(operation, ['do', 'plate', ...own('shape')]),
        word(', off the middle'),
        value('off the middle', own('off'), { ghost: '0', optional: true }),
        ...(get(own('lifts')) !== undefined
          ? [
              word('; lifts'),
              value('load', own('lifts', 'load')),
              word('on a pin of'),
              value('pin', own('lifts', 'pin')),
              word(', yield'),
              value('yield strength, MPa', own('lifts', 'yield_strength')),
              word('tensile'),
              value('tensile strength, MPa', own('lifts', 'tensile_strength')),
              word('MPa, design factor'),
              value('design factor', own('lifts', 'design_factor')),
            ]
          : []),
        ...tail,
        word('.'),
      ];
    default:
      return [
        word('Panel', true),
        ...thick,
        word('between'),
        value('members round it', own('between'), { names: 'members', list: true }),
        word(','),
        choice('where the panel lies', own('on_top'), '', [
          ['', 'in the opening'],
          ['true', 'on top of them'],
        ]),
        word('with a clearance of'),
        value('clearance', own('clearance'), { ghost: '0', optional: true }),
        ...tail,
        word('.'),
      ];
  }
}

/** Words and values of frame work; nothing where it is none. */
export function frameParts(key: string, operation: Operation, writer: Writer): Part[] | undefined {
  const { value, choice, get } = writer;
  const whole = (label: string, path: Path, options: [string, string][]): Part =>
    ({
      ...choice(label, path, options[0]?.[0] ?? '', options),
      value: keyOf(get(path)) || (options[0]?.[0] ?? ''),
    }) as Part;
  switch (key) {
    case 'node': {
      const kind = keyOf(operation.do && (operation.do as Record<string, unknown>).node);
      if (kind === 'on')
        return [
          word('Node', true),
          word('on'),
          value('line', ['on', 'line'], { names: 'lines3' }),
          word('at'),
          value('distance', ['on', 'distance']),
          word('from its start.'),
        ];
      if (kind === 'meet')
        return [
          word('Node', true),
          word('where'),
          value('node a', ['meet', 'one', 0], { names: 'nodes' }),
          word('to'),
          value('node b', ['meet', 'one', 1], { names: 'nodes' }),
          word('meets'),
          value('node c', ['meet', 'two', 0], { names: 'nodes' }),
          word('to'),
          value('node d', ['meet', 'two', 1], { names: 'nodes' }),
          word('.'),
        ];
      return [word('Node', true), word('from'), ...place(writer, ['at'], 'node'), word('.')];
    }
    case 'path':
      return [
        word('Lines', true),
        word('from'),
        ...place(writer, ['start'], 'start'),
        ...legs(writer),
        word(get(['close']) ? '; back to the start.' : '.'),
      ];
    case 'divide':
      return [
        word('Divide', true),
        value('line', ['line'], { names: 'lines3' }),
        ...(get(['into']) !== undefined
          ? [word('into'), value('parts', ['into']), word('equal parts.')]
          : [word('at'), value('distances', ['at'], { list: true }), word('.')]),
      ];
    case 'round':
      return [
        word('Round', true),
        word('the corner at'),
        value('node', ['node'], { names: 'nodes' }),
        word('to a radius of'),
        value('radius', ['radius']),
        word('.'),
      ];
    case 'lines': {
      const count = ((get(['lines']) as unknown[] | undefined) ?? []).length;
      return [
        word('Lines', true),
        word(`from ${String(get(['source']) || 'a file')}: ${count} ${count === 1 ? 'line' : 'lines'}.`),
      ];
    }
    case 'ready': {
      const kind = String(get(['kind']) ?? 'rectangle');
      const ready = READY[kind];
      const sizes = [
        ...(ready?.needed ?? []).map((name) => [name, false] as const),
        ...(ready?.more ?? []).map((name) => [name, true] as const),
      ];
      return [
        word('Lay', true),
        word(ready?.words ?? kind),
        ...sizes.flatMap(([name, optional], place): Part[] => [
          word(place === 0 ? ':' : ','),
          word(name),
          value(name, ['sizes', name], optional ? { ghost: 'none', optional: true } : {}),
        ]),
        word(', at'),
        ...place(writer, ['at'], 'corner'),
        word(','),
        choice('how it lies', ['lies'], 'flat', LIES),
        word('.'),
      ];
    }
    case 'copy': {
      const kind = keyOf(get(['how']));
      const parts: Part[] = [
        word('Make again', true),
        value('what is made again', ['of'], {
          ghost: 'everything so far',
          optional: true,
          names: 'operations',
          list: true,
        }),
        whole(
          'copied how',
          ['how'],
          [
            ['mirror', 'mirrored'],
            ['shift', 'at a spacing'],
            ['turn', 'turned'],
          ],
        ),
      ];
      if (kind === 'mirror')
        parts.push(
          word('about the plane square to'),
          choice('axis', ['how', 'mirror', 'axis'], 'x', AXES),
          word('at'),
          value('plane', ['how', 'mirror', 'at'], { ghost: '0', optional: true }),
        );
      if (kind === 'shift')
        parts.push(
          word('of'),
          ...axes(writer, ['how', 'shift'], (axis) => axis),
          word(','),
          value('count', ['how', 'shift', 'count']),
          word('more'),
        );
      if (kind === 'turn')
        parts.push(
          word('by'),
          value('angle', ['how', 'turn', 'angle']),
          word('about'),
          choice('axis', ['how', 'turn', 'axis'], 'z', AXES),
          word('through'),
          ...place(writer, ['how', 'turn', 'about'], 'axis'),
          word(','),
          value('count', ['how', 'turn', 'count']),
          word('more'),
        );
      return [...parts, word('.')];
    }
    case 'member':
      return [
        word('Put', true),
        value('section', ['section'], { names: 'sections' }),
        word('on'),
        value('lines', ['lines'], { names: 'lines3', list: true }),
        word(','),
        choice('what lies on the line', ['align'], 'centre', ALIGN),
        ...maybe(writer, 'rolled', 'roll', ['roll']),
        ...maybe(writer, 'across', 'offset across', ['across']),
        ...maybe(writer, 'up', 'offset up', ['up']),
        word('; marks'),
        value('letters of the marks', ['mark'], { ghost: operation.name.toUpperCase(), optional: true }),
        ...maybe(writer, 'material', 'material of the group', ['material'], { names: 'materials' }),
        ...maybe(writer, 'weldment', 'sub-weldment', ['weldment']),
        ...(get(['grip']) !== undefined ? [word(', grip'), value('grip', ['grip'])] : []),
        ...Object.keys((get(['columns']) as object | undefined) ?? {}).flatMap((name): Part[] => [
          word(`, ${name}`),
          value(name, ['columns', name], { optional: true }),
        ]),
        word('.'),
      ];
    case 'joint': {
      const [where, how] = [keyOf(get(['at'])), keyOf(get(['how']))];
      const parts: Part[] = [
        word('Joint', true),
        word('at'),
        whole(
          'where the joint is',
          ['at'],
          [
            ['corners', 'every corner'],
            ['tees', 'every tee'],
            ['all', 'every corner and tee'],
            ['nodes', 'these nodes'],
          ],
        ),
      ];
      if (where === 'nodes') parts.push(value('nodes', ['at', 'nodes'], { names: 'nodes', list: true }));
      parts.push(
        word(':'),
        whole(
          'how they meet',
          ['how'],
          [
            ['mitre', 'mitred'],
            ['butt', 'butted'],
            ['trim', 'trimmed to what runs on'],
            ['cope', 'fitted into the outline of what runs on'],
            ['pass', 'the thinner round one through a bore of the other'],
          ],
        ),
      );
      if (how === 'mitre')
        parts.push(
          word(', between'),
          value('what is mitred', ['how', 'mitre', 'between'], {
            ghost: 'those alike',
            optional: true,
            names: 'members',
            list: true,
          }),
        );
      if (how === 'butt')
        parts.push(
          word(', running through first'),
          value('what runs through', ['how', 'butt', 'through'], {
            ghost: 'the order of the work',
            optional: true,
            names: 'members',
            list: true,
          }),
          word(','),
          choice('where the through one ends', ['how', 'butt', 'to_node'], '', [
            ['', 'flush with the other'],
            ['true', 'at the node'],
          ]),
        );
      return [...parts, word(', gap'), value('gap', ['how', how, 'gap'], { ghost: '0', optional: true }), word('.')];
    }
    case 'end': {
      const how = keyOf(get(['how']));
      const parts: Part[] = [
        word('Cut', true),
        choice('which end', ['at'], 'both', ENDS),
        word('of'),
        value('members', ['of'], { names: 'members', list: true }),
        whole(
          'how the end is cut',
          ['how'],
          [
            ['trim', 'back to'],
            ['extend', 'on to'],
            ['cope', 'into the outline of'],
            ['plane', 'by the plane square to'],
            ['square', 'square'],
            ['angle', 'at'],
            ['cap', 'and cap it with'],
          ],
        ),
      ];
      if (how === 'trim' || how === 'extend')
        parts.push(
          value('cut to', ['how', how, 'to'], { names: 'members', list: true }),
          word(','),
          choice('which face', ['how', how, 'far'], '', [
            ['', 'the near face'],
            ['true', 'the far face'],
          ]),
          ...(how === 'trim' ? [word(','), choice('which side is kept', ['how', how, 'beyond'], '', SIDES)] : []),
          word(', gap'),
          value('gap', ['how', how, 'gap'], { ghost: '0', optional: true }),
        );
      if (how === 'cope')
        parts.push(
          value('fitted into', ['how', 'cope', 'to'], { names: 'members', list: true }),
          word(', gap'),
          value('gap', ['how', 'cope', 'gap'], { ghost: '0', optional: true }),
        );
      if (how === 'plane')
        parts.push(
          choice('axis', ['how', 'plane', 'axis'], 'z', AXES),
          word('at'),
          value('plane', ['how', 'plane', 'at'], { ghost: '0', optional: true }),
          word(','),
          choice('which side is kept', ['how', 'plane', 'beyond'], '', SIDES),
          word(','),
          choice('whether it grows', ['how', 'plane', 'grows'], '', [
            ['', 'never longer'],
            ['true', 'made longer too'],
          ]),
        );
      if (how === 'square')
        parts.push(
          value('beyond the node', ['how', 'square', 'by'], { ghost: '0', optional: true }),
          word('beyond the node'),
        );
      if (how === 'angle')
        parts.push(
          value('angle', ['how', 'angle', 'angle']),
          word('from square, tilted'),
          value('tilt', ['how', 'angle', 'tilt'], { ghost: '0 deg', optional: true }),
        );
      if (how === 'cap')
        parts.push(
          value('thickness', ['how', 'cap', 'thickness']),
          word(', inside the tube with a clearance of'),
          value('inset clearance', ['how', 'cap', 'inset'], { ghost: 'over the end', optional: true }),
        );
      return [...parts, word('.')];
    }
    case 'bore':
      return [
        word('Bore', true),
        value('diameter', ['diameter']),
        choice('purpose', ['purpose'], 'bolt', [
          ['bolt', 'for bolts'],
          ['drain', 'to drain'],
          ['vent', 'to vent'],
        ]),
        word('into the'),
        choice('face', ['face'], 'top', FACES),
        word('of'),
        value('members', ['of'], { names: 'members', list: true }),
        word('at'),
        value('distance along', ['at']),
        word('from the long point, off the middle'),
        value('off the middle', ['off'], { ghost: '0', optional: true }),
        word(','),
        value('count', ['count'], { ghost: '1', optional: true }),
        word('off,'),
        value('spacing', ['spacing'], { ghost: '—', optional: true }),
        word('apart,'),
        choice('walls', ['one_wall'], '', [
          ['', 'through'],
          ['true', 'one wall only'],
        ]),
        word('.'),
      ];
    case 'end_notch': {
      const slot = get(['width']) !== undefined;
      const from = [
        choice('face', ['face'], 'top', FACES),
        ...(slot
          ? [
              value('width of the slot', ['width']),
              word('wide'),
              ...maybe(writer, 'off the middle', 'off the middle', ['off']),
              word(','),
              value('depth', ['depth'], { ghost: 'right through', optional: true }),
            ]
          : [value('depth', ['depth'])]),
      ];
      return [
        word(slot ? 'Slot' : 'Notch', true),
        choice('which end', ['at'], 'both', ENDS),
        word('of'),
        value('members', ['of'], { names: 'members', list: true }),
        word('from the'),
        ...from,
        word('deep and'),
        value('length', ['length']),
        word('long.'),
      ];
    }
    case 'plate':
      return plateParts(operation, writer);
    default:
      return undefined;
  }
}

/** What can be added to frame work or taken from it in one click. */
export function frameChanges(operation: Operation, key: string): Change[] {
  const list: Change[] = [];
  const own = (path: Path) => at(operation, ['do', key, ...path]);
  if (key === 'path') {
    const count = ((own(['legs']) as unknown[] | undefined) ?? []).length;
    list.push(
      { words: '+ line', sets: [[['legs', count], { by: { x: '500 mm' } }]] },
      {
        words: '+ arc',
        sets: [
          [['legs', count], { arc: { place: { x: '500 mm' }, how: { radius: { radius: '500 mm', toward: 'up' } } } }],
        ],
      },
    );
    if (count > 1) list.push({ words: '− last line', sets: [[['legs', count - 1], undefined]] });
    list.push(
      own(['close'])
        ? { words: 'leave it open', sets: [[['close'], undefined]] }
        : { words: 'close it', sets: [[['close'], true]] },
    );
  }
  if (key === 'member') {
    if (own(['grip']) === undefined) list.push({ words: 'with a grip allowance', sets: [[['grip'], '100 mm']] });
    for (const name of ['part number', 'finish'])
      if (own(['columns', name]) === undefined)
        list.push({ words: `with a column: ${name}`, sets: [[['columns', name], '—']] });
  }
  if (key === 'end_notch') {
    if (own(['width']) === undefined)
      list.push({
        words: 'a slot for a plate instead',
        sets: [
          [['width'], '8 mm'],
          [['depth'], undefined],
        ],
      });
    else
      list.push({
        words: 'a notch over the whole face instead',
        sets: [
          [['width'], undefined],
          [['off'], undefined],
          [['depth'], own(['depth']) ?? '20 mm'],
        ],
      });
  }
  if (key === 'plate' && own(['kind', 'face']) !== undefined && own(['kind', 'face', 'lifts']) === undefined)
    list.push({
      words: 'a lug that lifts: review it',
      sets: [
        [
          ['kind', 'face', 'lifts'],
          { load: '100 kg', pin: '16 mm', yield_strength: '275', tensile_strength: '410', design_factor: '2' },
        ],
      ],
    });
  return list;
}

export const FRAME_PHRASES: Phrase[] = [
  {
    verb: 'frame',
    words:
      'rectangle, box, table, trestle, a-frame, flat truss, pitched truss, ladder or stair and its sizes; rail …, across or lengthwise',
    example: 'frame table, 1200 mm, 700 mm, 850 mm, rail 150 mm',
  },
  {
    verb: 'line',
    words: 'from a node, x …, y …, z … (the way to the next node), or to a node; several with “then”',
    example: 'line from post.n2, x 600 mm, then z -200 mm',
  },
  { verb: 'node', words: 'from a node or the origin, x …, y …, z …', example: 'node from rect.n1, x 250 mm' },
  { verb: 'divide', words: 'a line, into a number of parts or at distances', example: 'divide rect.front, 3' },
  { verb: 'round', words: 'a node, radius', example: 'round path.n2, 150 mm' },
  { verb: 'put', words: 'a section, on lines', example: 'put SHS 50x50x3, on table' },
  {
    verb: 'joint',
    words: 'corners, tees, all or nodes, mitre (between …) or butt (through …) or trim or cope or pass, gap …',
    example: 'joint all, mitre',
  },
  {
    verb: 'end',
    words:
      'members, start or finish, trim to … or extend to … or cope into … or square … or angle … or cap …; beyond keeps the other side',
    example: 'end brace, finish, trim to post',
  },
  {
    verb: 'notch',
    words: 'members, start or finish, face, depth, length',
    example: 'notch rail, finish, top, 20 mm, 30 mm',
  },
  {
    verb: 'slot',
    words: 'members, start or finish, face, width, length; deep …, off …',
    example: 'slot brace, start, top, 8 mm, 60 mm',
  },
  {
    verb: 'bore',
    words: 'members, diameter, face, at a distance, count off spacing, one wall, drain or vent',
    example: 'bore legs, 9 mm, top, at 40 mm',
  },
  {
    verb: 'gusset',
    words: 'two members, leg, leg, thickness, corner …, tips …',
    example: 'gusset legs and top, 80 mm, 80 mm, 5 mm, corner 12 mm',
  },
  {
    verb: 'base',
    words: 'members, start or finish, width, depth, thickness, within',
    example: 'base legs, start, 100 mm, 100 mm, 8 mm',
  },
  {
    verb: 'panel',
    words: 'members round an opening, thickness, clear … or on top',
    example: 'panel rect.front rect.right rect.back rect.left, 3 mm, clear 2 mm',
  },
  { verb: 'mirror', words: 'about x, y or z, at …; operations where not all', example: 'mirror about x' },
  { verb: 'repeat', words: 'operations, x … or y … or z …, count', example: 'repeat post, x 600 mm, 3 more' },
];

const names = (text: string | undefined): string[] => (text ?? '').split(/\s+(?:and\s+)?/).filter(Boolean);

/** x …, y …, z … out of parts. */
function offsets(parts: string[]): { x?: string; y?: string; z?: string } {
  const out: Record<string, string> = {};
  for (const part of parts) {
    const found = /^([xyz])\s+(.+)$/.exec(part);
    if (found?.[1] && found[2]) out[found[1]] = found[2];
  }
  return out;
}

/** Reads a line of frame work; a text is what is wrong with it. */
export function readFrame(verb: string, parts: string[]): Typed {
  const [one, two, three] = parts;
  const tagged = (tag: string) => parts.map((part) => new RegExp(`^${tag}\\s+(.+)$`).exec(part)?.[1]).find(Boolean);
  switch (verb) {
    case 'frame': {
      const kind = (one ?? '')
        .toLowerCase()
        .replace(/^(a |an )/, '')
        .replace(/[\s-]+/g, '_');
      const ready = READY[kind];
      if (!ready)
        return `A frame is one of: ${Object.keys(READY)
          .map((key) => key.replace('_', ' '))
          .join(', ')}.`;
      const plain = parts
        .slice(1)
        .filter((part) => !/^(rail|bar|first)\s/.test(part) && !['across', 'lengthwise', 'flat'].includes(part));
      if (plain.length < ready.needed.length) return `${ready.words} needs ${ready.needed.join(', ')}.`;
      const sizes: Record<string, string> = {};
      ready.needed.forEach((name, index) => (sizes[name] = plain[index] ?? ''));
      for (const name of ready.more) {
        const given = tagged(name);
        if (given) sizes[name] = given;
      }
      const lies = parts.includes('across') ? 'across' : parts.includes('lengthwise') ? 'lengthwise' : undefined;
      return {
        stem: kind.replace('_', '-').replace('a-frame', 'aframe'),
        action: { ready: { kind, ...(lies ? { lies } : {}), sizes } },
      };
    }
    case 'line': {
      const legs: object[] = [];
      let now: string[] = [];
      const flush = () => {
        if (now.length === 0) return;
        const to = now.map((part) => /^to\s+(\S+)$/.exec(part)?.[1]).find(Boolean);
        const by = offsets(now);
        legs.push(to ? { to: { place: { from: to, ...by } } } : { by });
        now = [];
      };
      const from = tagged('from');
      for (const part of parts) {
        if (/^from\s/.test(part)) continue;
        const then = /^then\s+(.+)$/.exec(part);
        if (then?.[1]) {
          flush();
          now = [then[1]];
        } else now.push(part);
      }
      flush();
      if (legs.length === 0 || legs.some((leg) => 'by' in leg && Object.keys((leg as { by: object }).by).length === 0))
        return undefined;
      return { stem: 'path', action: { path: { start: from ? { from } : {}, legs } } };
    }
    case 'node': {
      const from = tagged('from');
      const by = offsets(parts);
      return from === undefined && Object.keys(by).length === 0
        ? undefined
        : { stem: 'node', action: { node: { at: { ...(from ? { from } : {}), ...by } } } };
    }
    case 'divide':
      if (!one || !two) return undefined;
      return {
        stem: 'divide',
        action: {
          divide: two.startsWith('at ')
            ? { line: one, at: [two.slice(3), ...parts.slice(2)] }
            : { line: one, into: two.replace(/^into\s+/, '') },
        },
      };
    case 'round':
      return one && two
        ? { stem: 'round', action: { round: { node: one, radius: two.replace(/^radius\s+/, '') } } }
        : undefined;
    case 'put': {
      const lines = names(tagged('on'));
      // Named after the lines: table.leg* gives legs.
      const stem = /\.([a-z][a-z-]*)/.exec(lines[0] ?? '')?.[1]?.replace(/-+$/, '');
      return one && lines.length > 0
        ? { stem: stem ? `${stem}s` : 'members', action: { member: { section: one, lines } } }
        : undefined;
    }
    case 'joint': {
      const where = (one ?? '').toLowerCase();
      const at = ['corners', 'tees', 'all'].includes(where) ? where : where ? { nodes: names(one) } : undefined;
      const kind = parts
        .slice(1)
        .map((part) => /^(mitre|butt|trim|cope|pass)\b/.exec(part)?.[1])
        .find(Boolean);
      if (!at || !kind) return undefined;
      const strange = parts
        .slice(1)
        .find(
          (part) =>
            !/^(?:(?:mitre|butt|trim|cope|pass)(?:\s+(?:through|between)\s+.+)?|(?:through|between|gap)\s+.+)$/.test(
              part,
            ),
        );
      if (strange)
        return `"${strange}" is not understood; say mitre, butt, trim, cope or pass, then "through ..." of a butt, "between ..." of a mitre, "gap ..."`;
      const between = names(parts.map((part) => /between\s+(.+)$/.exec(part)?.[1]).find(Boolean));
      const through = names(parts.map((part) => /through\s+(.+)$/.exec(part)?.[1]).find(Boolean));
      const gap = tagged('gap');
      return {
        stem: 'joint',
        action: {
          joint: {
            at,
            how: {
              [kind]: {
                ...(kind === 'butt' && through.length > 0 ? { through } : {}),
                ...(kind === 'mitre' && between.length > 0 ? { between } : {}),
                ...(gap ? { gap } : {}),
              },
            },
          },
        },
      };
    }
    case 'end': {
      if (!one) return undefined;
      const at = parts.includes('start') ? 'start' : parts.includes('finish') ? 'finish' : undefined;
      const gap = tagged('gap');
      const to = (tag: string) => names(tagged(`${tag} to`));
      let how: object | undefined;
      if (to('trim').length > 0)
        how = {
          trim: { to: to('trim'), ...(gap ? { gap } : {}), ...(parts.includes('beyond') ? { beyond: true } : {}) },
        };
      else if (names(tagged('cope into')).length > 0)
        how = { cope: { to: names(tagged('cope into')), ...(gap ? { gap } : {}) } };
      else if (to('extend').length > 0) how = { extend: { to: to('extend'), ...(gap ? { gap } : {}) } };
      else if (tagged('square')) how = { square: { by: tagged('square') } };
      else if (tagged('angle'))
        how = { angle: { angle: tagged('angle'), ...(tagged('tilt') ? { tilt: tagged('tilt') } : {}) } };
      else if (tagged('cap'))
        how = { cap: { thickness: tagged('cap'), ...(tagged('inset') ? { inset: tagged('inset') } : {}) } };
      return how ? { stem: 'end', action: { end: { of: names(one), ...(at ? { at } : {}), how } } } : undefined;
    }
    case 'bore': {
      const face = ['top', 'bottom', 'left', 'right'].find((name) => parts.includes(name)) ?? 'top';
      const at = tagged('at');
      const [, count, spacing] = parts.map((part) => /^(\S+)\s+off\s+(.+)$/.exec(part)).find(Boolean) ?? [];
      if (!one || !two || !at) return undefined;
      const purpose = parts.includes('drain') ? 'drain' : parts.includes('vent') ? 'vent' : undefined;
      return {
        stem: 'bore',
        action: {
          bore: {
            of: names(one),
            diameter: two,
            face,
            at,
            ...(count ? { count, spacing } : {}),
            ...(parts.includes('one wall') ? { one_wall: true } : {}),
            ...(purpose ? { purpose } : {}),
          },
        },
      };
    }
    case 'notch':
    case 'slot': {
      const at = parts.includes('start') ? 'start' : parts.includes('finish') ? 'finish' : undefined;
      const face = ['top', 'bottom', 'left', 'right'].find((name) => parts.includes(name)) ?? 'top';
      const plain = parts
        .slice(1)
        .filter((part) => !['start', 'finish', face].includes(part) && !/^(deep|off)\s/.test(part));
      if (!one || plain.length < 2) return undefined;
      const [first, length] = plain;
      const sizes =
        verb === 'notch'
          ? { depth: first, length }
          : {
              width: first,
              length,
              ...(tagged('deep') ? { depth: tagged('deep') } : {}),
              ...(tagged('off') ? { off: tagged('off') } : {}),
            };
      return { stem: verb, action: { end_notch: { of: names(one), ...(at ? { at } : {}), face, ...sizes } } };
    }
    case 'gusset': {
      const pair = names(one);
      const plain = parts.slice(1).filter((part) => !/^(corner|tips)\s/.test(part));
      if (pair.length !== 2 || plain.length < 3) return undefined;
      return {
        stem: 'gusset',
        action: {
          plate: {
            thickness: plain[2],
            kind: {
              gusset: {
                between: pair,
                first: plain[0],
                second: plain[1],
                ...(tagged('corner') ? { corner: tagged('corner') } : {}),
                ...(tagged('tips') ? { tips: tagged('tips') } : {}),
              },
            },
          },
        },
      };
    }
    case 'base': {
      const at = parts.includes('start') ? 'start' : parts.includes('finish') ? 'finish' : undefined;
      const plain = parts.slice(1).filter((part) => !['start', 'finish', 'within'].includes(part));
      if (!one || plain.length < 3) return undefined;
      return {
        stem: 'foot',
        action: {
          plate: {
            thickness: plain[2],
            kind: {
              base: {
                of: names(one),
                ...(at ? { at } : {}),
                shape: { rectangle: { width: plain[0], depth: plain[1] } },
                ...(parts.includes('within') ? { within: true } : {}),
              },
            },
          },
        },
      };
    }
    case 'panel': {
      const clear = tagged('clear');
      return one && two
        ? {
            stem: 'panel',
            action: {
              plate: {
                thickness: two,
                kind: {
                  panel: {
                    between: names(one),
                    ...(clear ? { clearance: clear } : {}),
                    ...(parts.includes('on top') ? { on_top: true } : {}),
                  },
                },
              },
            },
          }
        : undefined;
    }
    case 'mirror': {
      const axis = parts.map((part) => /about\s+([xyz])$/.exec(part)?.[1]).find(Boolean);
      const of = one && !/^about/.test(one) ? names(one.replace(/\s*about\s+[xyz]$/, '')) : [];
      const at = tagged('at');
      return axis
        ? {
            stem: 'mirror',
            action: { copy: { ...(of.length > 0 ? { of } : {}), how: { mirror: { axis, ...(at ? { at } : {}) } } } },
          }
        : undefined;
    }
    case 'repeat': {
      const by = offsets(parts);
      const count = parts.map((part) => /^(\S+)\s+more$/.exec(part)?.[1]).find(Boolean) ?? '1';
      return one && Object.keys(by).length > 0
        ? { stem: 'copies', action: { copy: { of: names(one), how: { shift: { ...by, count } } } } }
        : three;
    }
    default:
      return undefined;
  }
}
