// Holes and corners in sentences, what can be added to one, and how one is typed in a line.
import type { Operation } from '../../api/client';
import { at, plain, type Path } from '../../bench/edit';
import { meant, notUnderstood } from '../../bench/ownValues';
import { sharing, word, type Change, type Part, type Writer } from '../../bench/parts';
import type { ActionOf } from '../verb';

type Placed = Pick<ActionOf<'drill'>, 'place' | 'repeat' | 'pattern' | 'mirror' | 'skip'>;

/** How far a pattern stands from the edges of its panel. */
function fromTheEdges<A extends Placed>(writer: Writer<A>, key: 'corners' | 'between'): Part[] {
  const { value, get } = sharing<Placed, A>(writer);
  const two = get(['pattern', key, 'other']) !== undefined;
  return [
    value('from the edges', ['pattern', key, 'distance']),
    word(two ? 'from left and right,' : 'from the edges'),
    ...(two ? [value('from the others', ['pattern', key, 'other']), word('from the others')] : []),
    word('(at a bend from its outside)'),
  ];
}

/** Where holes go and how many. */
export function placing<A extends Placed>(writer: Writer<A>): Part[] {
  const { value, choice, get } = sharing<Placed, A>(writer);
  const parts: Part[] = [];
  const from = (get(['place', 'from']) as unknown[] | undefined) ?? [];
  const rows = (get(['repeat']) as unknown[] | undefined) ?? [];
  rows.forEach((_, row) =>
    parts.push(
      word(','),
      value('count', ['repeat', row, 'count']),
      word('in a row,'),
      value('spacing', ['repeat', row, 'spacing']),
      choice('what the spacing is', ['repeat', row, 'spacing_is'], 'centres', [
        ['centres', row === 0 ? 'apart' : 'apart the other way'],
        ['clear', row === 0 ? 'clear between' : 'clear between the other way'],
      ]),
    ),
  );
  const pattern = get(['pattern']) as Record<string, unknown> | undefined;
  const kind = pattern ? Object.keys(pattern)[0] : undefined;
  if (kind === 'circle')
    parts.push(
      word(','),
      value('count', ['pattern', 'circle', 'count']),
      word('on a circle of'),
      value('bolt circle', ['pattern', 'circle', 'diameter']),
      word(', the first at'),
      value('first angle', ['pattern', 'circle', 'start'], { ghost: '0 deg', optional: true }),
    );
  if (kind === 'along') {
    parts.push(
      word(', in a row along'),
      value('row along', ['pattern', 'along', 'edge'], { names: 'lines' }),
      word(','),
      value('row distance', ['pattern', 'along', 'distance']),
      word('from it,'),
    );
    if (get(['pattern', 'along', 'count']) !== undefined)
      parts.push(value('count', ['pattern', 'along', 'count']), word('in all'));
    else if (get(['pattern', 'along', 'spaces']) !== undefined)
      parts.push(value('spaces', ['pattern', 'along', 'spaces']), word('equal spaces'));
    else parts.push(word('at most'), value('pitch', ['pattern', 'along', 'pitch']), word('apart'));
    parts.push(word(', ends'), value('inset', ['pattern', 'along', 'inset'], { ghost: '0', optional: true }));
    if (get(['pattern', 'along', 'last_inset']) !== undefined)
      parts.push(word('and'), value('last inset', ['pattern', 'along', 'last_inset']));
    parts.push(word('in'));
  }
  if (kind === 'rim') {
    parts.push(
      word(', in a row along the rim,'),
      value('row distance', ['pattern', 'rim', 'distance']),
      choice('row measured from', ['pattern', 'rim', 'from'], 'opening', [
        ['opening', "from the opening's edge"],
        ['outer', 'from the outer edge'],
      ]),
      word('with'),
    );
    if (get(['pattern', 'rim', 'spaces']) !== undefined)
      parts.push(value('spaces', ['pattern', 'rim', 'spaces']), word('equal spaces from corner to corner'));
    else
      parts.push(
        word('holes at most'),
        value('pitch', ['pattern', 'rim', 'pitch']),
        word('apart from corner to corner'),
      );
    parts.push(
      choice('corner holes', ['pattern', 'rim', 'corners'], 'none', [
        ['none', 'and none at the corners'],
        ['made', 'and holes at the corners'],
        ['after_welding', 'and those in joints drilled after welding'],
      ]),
    );
  }
  if (kind === 'fill')
    parts.push(
      word(', filling it'),
      choice('rows', ['pattern', 'fill', 'rows'], 'hexagonal', [
        ['hexagonal', 'staggered 60 deg'],
        ['diagonal', 'staggered 45 deg'],
        ['square', 'in squares'],
      ]),
      word('at'),
      value('pitch', ['pattern', 'fill', 'pitch']),
      word(', margin'),
      value('margin', ['pattern', 'fill', 'margin']),
    );
  if (kind === 'corners') parts.push(word(', at the four corners,'), ...fromTheEdges(writer, 'corners'));
  if (kind === 'between')
    parts.push(
      word(','),
      value('columns', ['pattern', 'between', 'columns']),
      word('columns and'),
      value('rows', ['pattern', 'between', 'rows']),
      word('rows, the outermost'),
      ...fromTheEdges(writer, 'between'),
    );
  if (kind === 'points') {
    const points = (get(['pattern', 'points']) as unknown[] | undefined) ?? [];
    points.forEach((_, index) =>
      parts.push(
        word(index === 0 ? ', at' : ';'),
        value(`across of place ${index + 1}`, ['pattern', 'points', index, 'x']),
        value(`up of place ${index + 1}`, ['pattern', 'points', index, 'y']),
      ),
    );
    parts.push(word('from there'));
  }
  if (get(['place', 'hole']) !== undefined)
    parts.push(
      word(','),
      value('across', ['place', 'hole', 'x'], { ghost: '0', optional: true }),
      word('across and'),
      value('up', ['place', 'hole', 'y'], { ghost: '0', optional: true }),
      word('up from'),
      value('measured from hole', ['place', 'hole', 'hole'], { names: 'holes' }),
    );
  else if (get(['place', 'round']) !== undefined)
    parts.push(
      word(', in the middle of'),
      value('round edge', ['place', 'round', 'edge'], { names: 'edges' }),
      word(','),
      value('distance', ['place', 'round', 'distance'], { ghost: 'at its centre', optional: true }),
      word(get(['place', 'round', 'distance']) === undefined ? '' : 'in from it'),
    );
  else if (kind !== 'along' && kind !== 'rim' && kind !== 'fill' && kind !== 'corners' && kind !== 'between') {
    from.forEach((_, one) =>
      parts.push(
        word(one === 0 ? ',' : 'and'),
        value('distance', ['place', 'from', one, 'distance']),
        word('from'),
        value('measured from', ['place', 'from', one, 'edge'], { names: 'lines' }),
        ...(get(['place', 'from', one, 'to']) === undefined
          ? []
          : [
              choice('measured to', ['place', 'from', one, 'to'], 'centre', [
                ['centre', 'to its centre'],
                ['near', 'to its near side'],
                ['far', 'to its far side'],
              ]),
            ]),
      ),
    );
    if (from.length === 0) parts.push(word(', in the middle'));
    if (from.length === 1) parts.push(word(', on the centre line'));
  }
  if (get(['mirror']) !== undefined)
    parts.push(
      word(', mirrored'),
      choice('mirrored', ['mirror'], 'across', [
        ['across', 'across'],
        ['up', 'up and down'],
        ['both', 'both ways'],
      ]),
    );
  const skip = get(['skip']) as number[] | undefined;
  if (skip && skip.length > 0) parts.push(word(`, place ${skip.join(', ')} left out`));
  return [...parts, word('.')];
}

type Reaching = Pick<ActionOf<'drill'>, 'also' | 'reach'>;

/** Which panels more, and how far it reaches. */
export function reaching<A extends Reaching>(writer: Writer<A>): Part[] {
  const { value, choice, get } = sharing<Reaching, A>(writer);
  const parts: Part[] = [];
  if (get(['also']) !== undefined)
    parts.push(
      word('and'),
      value('further panels', ['also'], { list: true, optional: true, names: 'panels', ghost: 'no other' }),
    );
  if (get(['reach']) !== undefined)
    parts.push(
      word(','),
      choice('reach', ['reach'], 'panel', [
        ['panel', 'within the panel'],
        ['open', 'out over the edge'],
        ['flat', 'in the flat, across bends'],
        ['through', 'straight through everything'],
      ]),
    );
  return parts;
}

/** What can be added to a hole or taken from it, in words. */
export function holeChanges<Key extends 'drill' | 'cut' | 'form'>(
  kind: Key,
  operation: Operation,
  edges: string[],
  holes: string[],
): Change<ActionOf<Key>>[] {
  const get = (path: Path) => at(operation, ['do', kind, ...path]);
  const panel = plain(get(['panel']) ?? 'base');
  const all: Change[] = [];
  const toggle = (path: Path, value: unknown, add: string, without: string) =>
    all.push(
      get(path) === undefined ? { words: add, sets: [[path, value]] } : { words: without, sets: [[path, undefined]] },
    );
  const size = (key: string, value: unknown, words: string) => {
    if (get([key]) !== undefined) return;
    const others =
      kind === 'drill'
        ? ['diameter', 'clearance', 'tapped']
        : ['width', 'height', 'corner', 'open', 'slot', 'keyhole', 'outline'];
    all.push({
      words,
      sets: [
        ...others.filter((one) => get([one]) !== undefined).map((one): [Path, unknown] => [[one], undefined]),
        [[key], value],
      ],
    });
  };
  // A head is for a screw, or has its own numbers.
  const heads = (key: 'countersink' | 'counterbore', numbers: unknown) => {
    // A clearance hole has its screw already.
    const bolt = get(['clearance', 'bolt']);
    if (get([key]) === undefined) all.push({ words: key, sets: [[[key], bolt ? { screw: bolt } : numbers]] });
    else {
      if (get([key, 'screw']) === undefined)
        all.push({ words: `${key} for a screw`, sets: [[[key], { screw: bolt ?? 'M6' }]] });
      else {
        // Without a screw the hole says its own size.
        const sized = ['diameter', 'clearance', 'tapped'].some((one) => get([one]) !== undefined);
        const own: [Path, unknown][] = sized ? [] : [[['clearance'], { bolt: get([key, 'screw']) }]];
        all.push({ words: `${key} by its numbers`, sets: [...own, [[key], numbers]] });
        if (!sized) return;
      }
      all.push({ words: `no ${key}`, sets: [[[key], undefined]] });
    }
  };
  const others = ((get(['also']) as string[] | undefined) ?? []).length;
  const beside = [...new Set(edges.map((edge) => edge.slice(0, edge.lastIndexOf('.'))))].filter(
    (one) => one !== panel && one !== '',
  );
  if (others > 0) all.push({ words: 'in its own panel alone', sets: [[['also'], undefined]] });
  else if (beside.length > 0) all.push({ words: 'the same in other panels', sets: [[['also'], beside]] });
  if (kind !== 'form') {
    toggle(['reach'], 'flat', 'in the flat, or through everything', 'within its panel');
    if (get(['reach']) === undefined) all.push({ words: 'open, out over the edge', sets: [[['reach'], 'open']] });
  }
  if (kind === 'drill') {
    size('diameter', '9 mm', 'plain diameter');
    size('clearance', { bolt: 'M8' }, 'clearance hole for a bolt');
    size('tapped', { thread: 'M8' }, 'tapped thread');
    toggle(['depth'], '20 mm', 'blind, to a depth', 'through');
    if (get(['tapped']) !== undefined && get(['depth']) !== undefined)
      toggle(['tapped', 'depth'], '16 mm', 'thread depth', 'thread all the way');
    heads('countersink', { diameter: '18 mm' });
    heads('counterbore', { diameter: '15 mm', depth: '8 mm' });
    toggle(['face'], 'bottom', 'from below', 'from above');
    toggle(['make'], 'mark', 'marked or left by the cutter', 'cut by the cutter');
  } else if (kind === 'cut') {
    size('slot', { length: '30 mm', width: '12 mm' }, 'slot');
    size('keyhole', { screw: 'M6', bears: 'washer' }, 'keyhole');
    if (get(['keyhole', 'screw']) !== undefined)
      all.push({ words: 'by its numbers', sets: [[['keyhole'], { head: '16 mm', slot: '8 mm', travel: '20 mm' }]] });
    else if (get(['keyhole']) !== undefined)
      all.push({ words: 'for a screw', sets: [[['keyhole'], { screw: 'M6', bears: 'washer' }]] });
    size('outline', { polygon: { sides: '6', size: '20 mm' } }, 'another outline');
    if (get(['width']) === undefined)
      all.push({
        words: 'rectangle',
        sets: [
          ...['slot', 'keyhole', 'outline'].map((one): [Path, unknown] => [[one], undefined]),
          [['width'], '40 mm'],
          [['height'], '20 mm'],
        ],
      });
    else {
      toggle(['open'], { dog_bone: '3 mm' }, 'corners opened on the bisector', 'corners as they are');
      if (get(['open']) === undefined)
        all.push({ words: 'corners overcut along the side', sets: [[['open'], { overcut: '3 mm' }]] });
    }
  }
  if (kind !== 'drill') toggle(['turn'], '30 deg', 'turned', 'not turned');
  const from = (get(['place', 'from']) as { edge: string }[] | undefined) ?? [];
  const rows = (get(['repeat']) as unknown[] | undefined) ?? [];
  const own = edges.filter((edge) => edge.startsWith(`${panel}.`) && !from.some((one) => one.edge === edge));
  if (get(['place', 'hole']) === undefined) {
    if (from.length < 2 && own[0])
      all.push({
        words: '+ distance',
        sets: [
          [
            ['place'],
            {
              from: [
                ...from,
                {
                  edge: own.find((edge) => edge.endsWith(from.length ? 'left' : 'front')) ?? own[0],
                  distance: '20 mm',
                },
              ],
            },
          ],
        ],
      });
    if (from.length > 0)
      all.push({
        words: '− distance',
        sets: [[['place'], from.length > 1 ? { from: from.slice(0, -1) } : undefined]],
      });
    from.forEach((_, one) => {
      const which = from.length === 1 ? 'the distance' : one === 0 ? 'the first distance' : 'the second distance';
      toggle(['place', 'from', one, 'to'], 'near', `${which} to its near or far side`, `${which} to its centre`);
    });
    const other = holes.find((one) => one !== operation.name && !one.startsWith(`${operation.name}.`));
    if (other) all.push({ words: 'from another hole', sets: [[['place'], { hole: { hole: other, x: '20 mm' } }]] });
  } else all.push({ words: 'from edges or the middle', sets: [[['place'], undefined]] });
  if (get(['pattern']) === undefined) {
    // Forms are as large as they are: clear between them fits whatever they are.
    const row = { count: '2', spacing: '20 mm', ...(kind === 'form' ? { spacing_is: 'clear' } : {}) };
    if (rows.length < 2) all.push({ words: '+ row', sets: [[['repeat'], [...rows, row]]] });
    if (rows.length > 0)
      all.push({ words: '− row', sets: [[['repeat'], rows.length > 1 ? rows.slice(0, -1) : undefined]] });
    const pattern = (words: string, value: unknown) =>
      all.push({
        words,
        sets: [
          [['repeat'], undefined],
          [['pattern'], value],
        ],
      });
    pattern('on a circle', { circle: { count: '6', diameter: '60 mm' } });
    all.push({
      words: 'at the four corners',
      sets: [
        [['repeat'], undefined],
        [['place'], undefined],
        [['pattern'], { corners: { distance: '15 mm' } }],
      ],
    });
    all.push({
      words: 'in rows and columns over the panel',
      sets: [
        [['repeat'], undefined],
        [['place'], undefined],
        [['pattern'], { between: { columns: '3', rows: '2', distance: '15 mm' } }],
      ],
    });
    pattern('along an edge', {
      along: {
        edge: edges.find((edge) => edge.startsWith(`${panel}.`)) ?? `${panel}.front`,
        distance: '15 mm',
        count: '4',
        inset: '20 mm',
      },
    });
    if (panel.includes('-rim-'))
      all.push({
        words: 'in a row along the rim',
        sets: [
          [['repeat'], undefined],
          [['place'], undefined],
          [['pattern'], { rim: { distance: '12 mm', spaces: '6' } }],
        ],
      });
    pattern('filling the panel', { fill: { pitch: '15 mm', margin: '10 mm' } });
    pattern('at given places', {
      points: [
        { x: '0 mm', y: '0 mm' },
        { x: '20 mm', y: '0 mm' },
      ],
    });
  } else {
    all.push({ words: 'a single one', sets: [[['pattern'], undefined]] });
    const along = get(['pattern', 'along']) as Record<string, string> | undefined;
    const rim = get(['pattern', 'rim']) as Record<string, string> | undefined;
    if (rim)
      all.push(
        rim.spaces === undefined
          ? {
              words: 'by how many spaces',
              sets: [
                [['pattern', 'rim', 'pitch'], undefined],
                [['pattern', 'rim', 'spaces'], '6'],
              ],
            }
          : {
              words: 'by the most apart',
              sets: [
                [['pattern', 'rim', 'spaces'], undefined],
                [['pattern', 'rim', 'pitch'], '80 mm'],
              ],
            },
      );
    if (along) {
      const way = (key: string, value: string, words: string) =>
        along[key] === undefined &&
        all.push({
          words,
          sets: ['count', 'spaces', 'pitch'].map((one): [Path, unknown] => [
            ['pattern', 'along', one],
            one === key ? value : undefined,
          ]),
        });
      way('count', '4', 'by how many holes');
      way('spaces', '3', 'by how many spaces');
      way('pitch', '50 mm', 'by the most apart');
      toggle(['pattern', 'along', 'last_inset'], along.inset ?? '0 mm', 'another inset at the end', 'the same inset');
    }
  }
  toggle(['mirror'], 'across', 'mirrored', 'not mirrored');
  if (get(['skip']) !== undefined) all.push({ words: 'no place left out', sets: [[['skip'], undefined]] });
  return all as unknown as Change<ActionOf<Key>>[];
}

/** What bears on the sheet at a keyhole, as it is typed. */
const BEARS: Record<string, string> = {
  washer: 'washer',
  socket: 'socket',
  button: 'button',
  hex: 'hex',
  hexagon: 'hex',
};
const MADE: Record<string, string> = { marked: 'mark', left: 'leave', punched: 'punch' };

/** "rim 12 mm from the outer edge spaces 6 with corners": a row along the flange of a rim. */
const RIM = new RegExp(
  String.raw`^rim\s+(.+?)(?:\s+from\s+the\s+(opening|outer)(?:\s+edge)?)?` +
    String.raw`\s+(spaces|pitch)\s+(.+?)(?:\s+(with corners|corners after welding))?$`,
);

/** "countersunk for 1/4", "counterbored M5": a screw, and no length. */
const FOR_SCREW = (word: string) => new RegExp(`^${word}\\s+(?:for\\s+(\\S+)|(?=[M#])(\\S+))$`);

/** Why "4x" does not go with where the holes are said to be; nothing where it does. */
function timesWrong(times: string | undefined, action: Record<string, unknown>, rows: number): string | undefined {
  if (times === undefined) return undefined;
  const pattern = action.pattern as
    { corners?: unknown; circle?: { count: string }; between?: { columns: string; rows: string } } | undefined;
  if (pattern?.corners)
    return times === '4' ? undefined : `A panel has four corners, and ${times}x is said. Say where the others go.`;
  if (pattern?.circle)
    return times === pattern.circle.count
      ? undefined
      : `${times}x is said, and ${pattern.circle.count} on the circle. Keep one of them.`;
  if (pattern?.between) {
    const { columns, rows: lines } = pattern.between;
    return Number(times) === Number(columns) * Number(lines)
      ? undefined
      : `${times}x is said, and ${columns} by ${lines} makes ${Number(columns) * Number(lines)}. Keep one of them.`;
  }
  if (times === '1' || pattern || rows > 0 || action.mirror) return undefined;
  return (
    `${times}x says how many and not where. Say "15 mm from the edges" for the corners, "circle on 120 mm", or ` +
    `"${times} at 40 mm".`
  );
}

/** Edges as a drawing calls them, without their panel. */
const SIDE = /^(?:front|back|left|right|end|start|side-\d+|edge-\d+)$/;

/** The line that a word means on a panel: `front` its front edge, `upright` the outside of that bend. */
function lineOf(panel: string, word: string): string {
  if (word.includes('.')) return word;
  return SIDE.test(word) ? `${panel}.${word}` : `${word}.mould-outside`;
}

/** How the parts of a typed hole are said. */
const formsOf = (kind: 'drill' | 'cut' | 'form', panel: string): string[] => [
  `from ${panel}.front 20 mm`,
  '2 at 40 mm',
  '15 mm from the edges',
  'circle 6 on 60 mm',
  `along ${panel}.front 15 mm pitch 50 mm inset 20 mm`,
  'rim 12 mm from the opening spaces 6',
  '3 by 2, 15 mm from the edges',
  'fill 15 mm margin 10 mm',
  'mirrored across',
  'without 3',
  `in the middle of ${panel}.edge-1 15 mm in`,
  ...(kind === 'form' ? ['turned 30 deg', 'below'] : []),
  ...(kind === 'drill'
    ? ['clearance M8', 'tapped M8', 'countersunk for M5', 'counterbored for M5', 'blind 12 mm', 'marked', 'punched']
    : []),
  ...(kind === 'cut'
    ? ['slot 30 mm overall by 10 mm', 'keyhole for M5 with washer', 'radius 3 mm', 'turned 30 deg', 'over the edge']
    : []),
];

/** How many bare sizes a typed hole has. */
const SIZES = { drill: 1, cut: 2, form: 0 };

/** Reads the parts of a typed hole, its panel first; a string is what was not understood. */
export function readHole(
  kind: 'drill' | 'cut' | 'form',
  [panel = 'base', ...parts]: string[],
): Record<string, unknown> | string {
  const action: Record<string, unknown> = {};
  const from: object[] = [];
  const repeat: object[] = [];
  const sizes: string[] = [];
  // "3 by 2" and "15 mm from the edges" are one pattern.
  let grid: object | undefined;
  let edges: object | undefined;
  // "4x" before whatever it counts.
  let times: string | undefined;
  for (const typed of parts) {
    const counted = /^(\d+)[x×](?:\s+(?=\S)|(?=[øØ⌀])|$)(.*)$/i.exec(typed);
    if (counted) times = counted[1];
    const part = counted ? (counted[2] ?? '').trim() : typed;
    if (part === '') continue;
    const match = (pattern: RegExp) => pattern.exec(part);
    let found: RegExpExecArray | null;
    if ((found = match(/^(\d+)\s+by\s+(\d+)$/))) grid = { columns: found[1], rows: found[2] };
    else if ((found = match(/^(.+?)(?:\s+[x×]\s+(.+?))?\s+from\s+the\s+edges$/)))
      edges = { distance: found[1], ...(found[2] ? { other: found[2] } : {}) };
    else if ((found = match(/^from\s+(\S+)\s+(.+?)(?:\s+to\s+its\s+(centre|near|far)(?:\s+(?:side|edge))?)?$/)))
      from.push({
        edge: lineOf(panel, found[1] ?? ''),
        distance: found[2],
        ...(found[3] && found[3] !== 'centre' ? { to: found[3] } : {}),
      });
    else if ((found = match(/^(\d.*?|[A-Z]+)\s+from\s+(?:the\s+)?([a-z][\w.-]*)$/)) && found[2] !== 'edges')
      from.push({ edge: lineOf(panel, found[2] ?? ''), distance: found[1] });
    else if (kind !== 'form' && part === 'over the edge') action.reach = 'open';
    else if ((found = match(/^in\s+the\s+middle\s+of\s+(\S+)(?:\s+(.+?)\s+in)?$/)))
      action.place = { round: { edge: found[1], ...(found[2] ? { distance: found[2] } : {}) } };
    else if ((found = match(/^(\d\S*|[A-Z]\w*|.+?(?=\s+off))\s+(?:at|off)\s+(.+?)(\s+clear)?(?:\s+along\s+(\S+))?$/)))
      repeat.push({
        count: found[1],
        spacing: found[2],
        ...(found[3] ? { spacing_is: 'clear' } : {}),
        ...(found[4] ? { along: found[4] } : {}),
      });
    else if (times && (found = match(/^circle\s+on\s+(.+?)(?:\s+from\s+(.+))?$/)))
      action.pattern = { circle: { count: times, diameter: found[1], ...(found[2] ? { start: found[2] } : {}) } };
    else if ((found = match(/^circle\s+(.+?)\s+on\s+(.+?)(?:\s+from\s+(.+))?$/)))
      action.pattern = { circle: { count: found[1], diameter: found[2], ...(found[3] ? { start: found[3] } : {}) } };
    else if (times && (found = match(/^along\s+(\S+)\s+(.+?)\s+inset\s+(.+?)(?:\s+and\s+(.+))?$/)))
      action.pattern = {
        along: {
          edge: found[1],
          distance: found[2],
          count: times,
          inset: found[3],
          ...(found[4] ? { last_inset: found[4] } : {}),
        },
      };
    else if ((found = match(/^along\s+(\S+)\s+(.+?)\s+pitch\s+(.+?)(?:\s+inset\s+(.+))?$/)))
      action.pattern = {
        along: { edge: found[1], distance: found[2], pitch: found[3], ...(found[4] ? { inset: found[4] } : {}) },
      };
    else if ((found = match(RIM)))
      action.pattern = {
        rim: {
          distance: found[1],
          ...(found[2] === 'outer' ? { from: 'outer' } : {}),
          [found[3] ?? 'spaces']: found[4],
          ...(found[5] ? { corners: found[5] === 'with corners' ? 'made' : 'after_welding' } : {}),
        },
      };
    else if ((found = match(/^fill\s+(?:(square|diagonal|hexagonal)\s+)?(.+?)\s+margin\s+(.+)$/)))
      action.pattern = { fill: { ...(found[1] ? { rows: found[1] } : {}), pitch: found[2], margin: found[3] } };
    else if ((found = match(/^without\s+([\d\s]+)$/))) action.skip = (found[1] ?? '').trim().split(/\s+/).map(Number);
    else if ((found = match(/^mirrored(?:\s+(across|up|both))?$/))) action.mirror = found[1] ?? 'across';
    else if (kind === 'cut' && (found = match(/^radius\s+(.+)$/))) action.corner = found[1];
    else if (kind !== 'drill' && (found = match(/^turned\s+(.+)$/))) action.turn = found[1];
    else if (kind === 'cut' && (found = match(/^slot\s+(.+?)\s+(overall|between centres)\s+by\s+(.+)$/))) {
      const [length, width] = [found[1] ?? '', found[3] ?? ''];
      action.slot = { length, width, ...(found[2] === 'overall' ? { length_is: 'overall' } : {}) };
    } else if (kind === 'cut' && (found = match(/^slot\s+(.+?)\s+[x×]\s+(.+?)\s+(overall|between centres)$/))) {
      const [width, length] = [found[1] ?? '', found[2] ?? ''];
      if (parseFloat(width) > parseFloat(length))
        return (
          `A slot ${width} wide and ${length} long is wider than long. Say "slot ${length} x ${width} ` +
          `${found[3]}" for one ${length} wide.`
        );
      action.slot = { length, width, ...(found[3] === 'overall' ? { length_is: 'overall' } : {}) };
    } else if (kind === 'cut' && (found = match(/^slot\s+(.+?)\s+by\s+(.+)$/))) {
      const [length, width] = [found[1], found[2]];
      return (
        `Is ${length} the slot's length overall or between the centres of its ends? Say "slot ` +
        `${length} overall by ${width}" or "slot ${length} between centres by ${width}".`
      );
    } else if (kind === 'cut' && (found = match(/^keyhole\s+(.+?)\s+by\s+(.+?)\s+by\s+(.+)$/)))
      action.keyhole = { head: found[1], slot: found[2], travel: found[3] };
    else if (kind === 'drill' && (found = match(/^clearance\s+(\S+)(?:\s+(fine|medium|coarse))?$/)))
      action.clearance = { bolt: found[1], ...(found[2] ? { fit: found[2] } : {}) };
    else if (kind === 'drill' && (found = match(/^tapped\s+(\S+)(?:\s+(.+)\s+deep)?$/)))
      action.tapped = { thread: found[1], ...(found[2] ? { depth: found[2] } : {}) };
    else if (kind === 'cut' && (found = match(/^keyhole\s+for\s+(\S+)(?:\s+with\s+(?:an?\s+)?(\w+)(?:\s+head)?)?$/))) {
      const bears = found[2] === undefined ? 'socket' : BEARS[found[2]];
      if (!bears) return `"${found[2]}" is no head: say washer, socket, button or hexagon`;
      action.keyhole = { screw: found[1], ...(bears === 'socket' ? {} : { bears }) };
    } else if (kind === 'drill' && (found = match(FOR_SCREW('countersunk'))))
      action.countersink = { screw: found[1] ?? found[2] };
    else if (kind === 'drill' && (found = match(FOR_SCREW('counterbored'))))
      action.counterbore = { screw: found[1] ?? found[2] };
    else if (kind === 'drill' && (found = match(/^countersunk\s+(.+?)(?:\s+at\s+(.+))?$/)))
      action.countersink = { diameter: found[1], ...(found[2] ? { angle: found[2] } : {}) };
    else if (kind === 'drill' && (found = match(/^counterbored\s+(.+?)\s+by\s+(.+)$/)))
      action.counterbore = { diameter: found[1], depth: found[2] };
    else if (kind === 'drill' && (found = match(/^blind\s+(.+)$/))) action.depth = found[1];
    else if (kind === 'drill' && part === 'below') action.face = 'bottom';
    else if (kind === 'form' && part === 'below') action.out_of = 'bottom';
    else if (kind === 'drill' && (found = match(/^(marked|left|punched)$/))) action.make = MADE[found[1] ?? ''];
    else if (kind === 'cut' && sizes.length === 0 && (found = match(/^(.+?)\s+[x×]\s+(.+)$/)))
      sizes.push(found[1] ?? '', found[2] ?? '');
    else if (sizes.length < SIZES[kind] && !(/\s/.test(part) && meant(formsOf(kind, panel), part))) sizes.push(part);
    else return notUnderstood(part, formsOf(kind, panel));
  }
  if (grid && !edges)
    return 'Rows and columns want to know how far they stand from the edges: say "15 mm from the edges" as well.';
  if (edges) action.pattern = grid ? { between: { ...grid, ...edges } } : { corners: edges };
  const wrong = timesWrong(times, action, repeat.length);
  if (wrong) return wrong;
  if (kind === 'drill' && sizes[0]) action.diameter = sizes[0];
  if (kind === 'cut' && sizes[0]) Object.assign(action, { width: sizes[0], ...(sizes[1] ? { height: sizes[1] } : {}) });
  if (from.length && action.place) return 'A hole in the middle of a round edge takes no distances from others.';
  if (from.length) action.place = { from };
  if (repeat.length) action.repeat = repeat;
  return action;
}
