// Pressed forms: louvres, beads, dimples, extruded holes, raised fields.
import { at } from '../../../bench/edit';
import { notUnderstood } from '../../../bench/ownValues';
import { word, type Part } from '../../../bench/parts';
import type { PathIn } from '../../../bench/paths';
import { verb, type ActionOf } from '../../verb';
import { holeChanges, placing, reaching, readHole } from '../hole';
import { shapeParts } from '../shape';

/** How the shape of a typed form is said. */
const SHAPES = [
  'louvre 60 mm by 16 mm by 6 mm',
  'bead 80 mm by 12 mm by 3 mm',
  'dimple 20 mm by 3 mm',
  'extruded 12 mm by 3 mm',
  'extruded for M8 by 3 mm',
  'knock-out 20.5 mm',
];

/** "louvre 60 mm by 16 mm by 6 mm opening toward it": what is pressed; nothing where it is not understood. */
function readShape(part: string): Record<string, unknown> | undefined {
  const sizes = (of: string) =>
    new RegExp(String.raw`^${of}\s+(.+?)\s+by\s+(.+?)\s+by\s+(.+?)(\s+toward)?$`).exec(part);
  const louvre = sizes('louvre');
  if (louvre)
    return {
      louvre: { length: louvre[1], width: louvre[2], height: louvre[3], ...(louvre[4] ? { opens: 'toward' } : {}) },
    };
  const bead = sizes('bead');
  if (bead && !bead[4]) return { bead: { length: bead[1], width: bead[2], height: bead[3] } };
  const dimple = /^dimple\s+(.+?)\s+by\s+(.+)$/.exec(part);
  if (dimple) return { dimple: { diameter: dimple[1], height: dimple[2] } };
  const tapped = /^extruded\s+for\s+(\S+)\s+by\s+(.+)$/.exec(part);
  if (tapped) return { extruded: { thread: tapped[1], height: tapped[2] } };
  const knockOut = /^knock-out\s+(.+?)(?:\s+by\s+(.+))?$/.exec(part);
  if (knockOut) return { knock_out: { diameter: knockOut[1], ...(knockOut[2] ? { height: knockOut[2] } : {}) } };
  const extruded = /^extruded\s+(.+?)\s+by\s+(.+)$/.exec(part);
  return extruded ? { extruded: { diameter: extruded[1], height: extruded[2] } } : undefined;
}

const STEMS: Record<string, string> = {
  louvre: 'louvre',
  bead: 'bead',
  dimple: 'dimple',
  extruded: 'collar',
  knock_out: 'knockout',
};

export const FORM = verb<'form'>({
  key: 'form',
  phrases: [
    {
      verb: 'press',
      words:
        'panel, louvre length by width by height (toward its edge), or bead length by width by height, ' +
        'dimple diameter by height, extruded diameter (or for M8) by height, knock-out diameter, below, then as drill',
      example: 'press base, louvre 60 mm by 16 mm by 6 mm, from base.front 50 mm, 4 at 30 mm',
      read: (parts) => {
        const [panel, what, ...rest] = parts;
        if (!panel || !what) return undefined;
        const shape = readShape(what);
        if (!shape) return notUnderstood(what, SHAPES);
        const placed = readHole('form', [panel, ...rest]);
        if (typeof placed === 'string') return placed;
        const stem = STEMS[Object.keys(shape)[0] ?? ''] ?? 'form';
        return { stem, action: { form: { panel, shape, ...placed } } };
      },
    },
  ],
  sentence: (writer, { operation }) => {
    const { value, choice, get } = writer;
    const has = (path: PathIn<ActionOf<'form'>>) => get(path) !== undefined;
    const parts: Part[] = [{ kind: 'word', text: 'Press', strong: true }];
    if (has(['shape', 'louvre']))
      parts.push(
        word('a louvre'),
        value('louvre length', ['shape', 'louvre', 'length']),
        word('by'),
        value('louvre width', ['shape', 'louvre', 'width']),
        word(','),
        value('louvre height', ['shape', 'louvre', 'height']),
        word('high, ends at'),
        value('slope of its ends', ['shape', 'louvre', 'side'], { ghost: '60 deg', optional: true }),
        word(', open'),
        choice('opens', ['shape', 'louvre', 'opens'], 'away', [
          ['away', 'away from its edge,'],
          ['toward', 'toward its edge,'],
        ]),
      );
    else if (has(['shape', 'bead']))
      parts.push(
        word('a bead'),
        value('bead length', ['shape', 'bead', 'length']),
        word('by'),
        value('bead width', ['shape', 'bead', 'width']),
        word(','),
        value('bead height', ['shape', 'bead', 'height']),
        word('high, sides at'),
        value('slope of its sides', ['shape', 'bead', 'side'], { ghost: '45 deg', optional: true }),
      );
    else if (has(['shape', 'dimple']))
      parts.push(
        word('a dimple'),
        value('dimple diameter', ['shape', 'dimple', 'diameter']),
        word('wide,'),
        value('dimple height', ['shape', 'dimple', 'height']),
        word('high, sides at'),
        value('slope of its sides', ['shape', 'dimple', 'side'], { ghost: '45 deg', optional: true }),
      );
    else if (has(['shape', 'extruded'])) {
      parts.push(word('an extruded hole'));
      if (has(['shape', 'extruded', 'thread']))
        parts.push(word('for'), value('thread', ['shape', 'extruded', 'thread']));
      else parts.push(value('inside diameter', ['shape', 'extruded', 'diameter']), word('wide'));
      parts.push(
        word(', its collar'),
        value('collar height', ['shape', 'extruded', 'height']),
        word('high and'),
        value('collar wall', ['shape', 'extruded', 'wall'], { ghost: 'half of the sheet', optional: true }),
        word('thick'),
      );
    } else if (has(['shape', 'knock_out']))
      parts.push(
        word('a knock-out'),
        value('knock-out diameter', ['shape', 'knock_out', 'diameter']),
        word('wide, pushed'),
        value('how far it is pushed', ['shape', 'knock_out', 'height'], { ghost: 'half of the sheet', optional: true }),
      );
    else
      parts.push(
        word('a raised field,'),
        ...shapeParts(operation, ['do', 'form', 'shape', 'raised', 'outline']),
        word(','),
        value('field height', ['shape', 'raised', 'height']),
        word('high, sides at'),
        value('slope of its sides', ['shape', 'raised', 'side'], { ghost: '45 deg', optional: true }),
      );
    if (has(['turn'])) parts.push(word(', turned'), value('turn', ['turn']));
    return [
      ...parts,
      choice('stands out', ['out_of'], 'top', [
        ['top', 'out of the upper face of'],
        ['bottom', 'out of the lower face of'],
      ]),
      value('panel', ['panel'], { names: 'panels' }),
      ...reaching(writer),
      ...placing(writer),
    ];
  },
  changes: ({ operation, edges, holes }) => {
    const shape = Object.keys((at(operation, ['do', 'form', 'shape']) as object | undefined) ?? {})[0];
    const others: [string, string, Record<string, unknown>][] = [
      ['louvre', 'a louvre', { length: '60 mm', width: '16 mm', height: '6 mm' }],
      ['bead', 'a bead', { length: '60 mm', width: '14 mm', height: '3 mm' }],
      ['dimple', 'a dimple', { diameter: '20 mm', height: '3 mm' }],
      ['extruded', 'an extruded hole', { diameter: '16 mm', height: '2 mm' }],
      ['knock_out', 'a knock-out', { diameter: '20.5 mm' }],
      ['raised', 'a raised field', { outline: { rectangle: { width: '60 mm', depth: '40 mm' } }, height: '2 mm' }],
    ];
    return [
      ...others
        .filter(([key]) => key !== shape)
        .map(([key, words, fields]) => ({ words, sets: [[['shape'], { [key]: fields }]] }) as never),
      ...holeChanges('form', operation, edges, holes),
    ];
  },
});
