// Plates on a frame.
import { keyOf, puts, word, type Change, type Part } from '../../../bench/parts';
import { shapeParts } from '../../sheet/shape';
import { verb, type ActionOf } from '../../verb';
import { ENDS, FACES, names, tagged } from '../common';

export const PLATE = verb<'plate'>({
  key: 'plate',
  phrases: [
    {
      verb: 'gusset',
      words: 'two members, leg, leg, thickness, corner …, tips …',
      example: 'gusset legs and top, 80 mm, 80 mm, 5 mm, corner 12 mm',
      read: (parts) => {
        const [one] = parts;
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
                  ...(tagged(parts, 'corner') ? { corner: tagged(parts, 'corner') } : {}),
                  ...(tagged(parts, 'tips') ? { tips: tagged(parts, 'tips') } : {}),
                },
              },
            },
          },
        };
      },
    },
    {
      verb: 'base',
      words: 'members, start or finish, width, depth, thickness, within',
      example: 'base legs, start, 100 mm, 100 mm, 8 mm',
      read: (parts) => {
        const [one] = parts;
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
      },
    },
    {
      verb: 'panel',
      words: 'members round an opening, thickness, clear … or on top',
      example: 'panel rect.front rect.right rect.back rect.left, 3 mm, clear 2 mm',
      read: (parts) => {
        const [one, two] = parts;
        const clear = tagged(parts, 'clear');
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
      },
    },
  ],
  sentence: (writer, { operation }) => {
    const { value, choice, yes, get } = writer;
    const kind = keyOf(get(['kind']));
    const thick = [value('thickness', ['thickness'])];
    const tail: Part[] = [
      word(', mark'),
      value('mark of the plate', ['mark'], { ghost: 'by its name', optional: true }),
    ];
    const work = (get(['work']) as unknown[] | undefined) ?? [];
    if (work.length > 0) tail.push(word(`, ${work.length} more ${work.length === 1 ? 'step' : 'steps'} of work on it`));
    switch (kind) {
      case 'gusset':
        return [
          word('Gusset', true),
          ...thick,
          word('between'),
          value('first member', ['kind', 'gusset', 'between', 0], { names: 'members' }),
          word('and'),
          value('second member', ['kind', 'gusset', 'between', 1], { names: 'members' }),
          word(', legs'),
          value('first leg', ['kind', 'gusset', 'first']),
          word('and'),
          value('second leg', ['kind', 'gusset', 'second']),
          word(', corner clipped'),
          value('corner clip', ['kind', 'gusset', 'corner'], { ghost: '0', optional: true }),
          word(', tips'),
          value('blunt tips', ['kind', 'gusset', 'tips'], { ghost: '0', optional: true }),
          word(', beside the middle'),
          value('beside the middle', ['kind', 'gusset', 'off'], { ghost: '0', optional: true }),
          ...tail,
          word('.'),
        ];
      case 'base':
        return [
          word('Base plate', true),
          ...thick,
          word('on'),
          value('members', ['kind', 'base', 'of'], { names: 'members', list: true }),
          word('at'),
          choice('which end', ['kind', 'base', 'at'], 'both', ENDS),
          word(':'),
          ...shapeParts(operation, ['do', 'plate', 'kind', 'base', 'shape']),
          word(','),
          yes('within the length', ['kind', 'base', 'within'], 'beyond the member', 'within its length'),
          ...tail,
          word('.'),
        ];
      case 'face':
        return [
          word('Plate', true),
          ...thick,
          word('on the'),
          choice('face', ['kind', 'face', 'face'], 'top', FACES),
          word('of'),
          value('members', ['kind', 'face', 'of'], { names: 'members', list: true }),
          word('at'),
          value('distance along', ['kind', 'face', 'at']),
          word(','),
          choice('how it stands', ['kind', 'face', 'stands'], '', [
            ['', 'lying on it', puts(undefined)],
            ['along', 'standing along it'],
            ['across', 'standing across it'],
          ]),
          word(':'),
          ...shapeParts(operation, ['do', 'plate', 'kind', 'face', 'shape']),
          word(', beside the middle'),
          value('beside the middle', ['kind', 'face', 'off'], { ghost: '0', optional: true }),
          ...(get(['kind', 'face', 'lifts']) !== undefined
            ? [
                word('; lifts'),
                value('load', ['kind', 'face', 'lifts', 'load']),
                word('on a pin of'),
                value('pin', ['kind', 'face', 'lifts', 'pin']),
                word(', yield'),
                value('yield strength, MPa', ['kind', 'face', 'lifts', 'yield_strength']),
                word('tensile'),
                value('tensile strength, MPa', ['kind', 'face', 'lifts', 'tensile_strength']),
                word('MPa, design factor'),
                value('design factor', ['kind', 'face', 'lifts', 'design_factor']),
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
          value('members round it', ['kind', 'panel', 'between'], { names: 'members', list: true }),
          word(','),
          yes('where the panel lies', ['kind', 'panel', 'on_top'], 'in the opening', 'on top of them'),
          word('with a clearance of'),
          value('clearance', ['kind', 'panel', 'clearance'], { ghost: '0', optional: true }),
          ...tail,
          word('.'),
        ];
    }
  },
  changes: ({ get }) => {
    const list: Change<ActionOf<'plate'>>[] = [];
    if (get(['kind', 'face']) !== undefined && get(['kind', 'face', 'lifts']) === undefined)
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
  },
});
