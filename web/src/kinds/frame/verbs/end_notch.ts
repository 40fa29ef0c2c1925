// Notches and slots at the ends of members.
import { word, type Change, type Typed } from '../../../bench/parts';
import { verb, type ActionOf } from '../../verb';
import { ENDS, FACES, maybe, names, tagged } from '../common';

/** Reads a notch or a slot. */
function readNotch(verb: 'notch' | 'slot', parts: string[]): Typed {
  const [one] = parts;
  const at = parts.includes('start') ? 'start' : parts.includes('finish') ? 'finish' : undefined;
  const face = ['top', 'bottom', 'left', 'right'].find((name) => parts.includes(name)) ?? 'top';
  const plain = parts
    .slice(1)
    .filter((part) => !['start', 'finish', face].includes(part) && !/^(deep|beside|off)\s/.test(part));
  if (!one || plain.length < 2) return undefined;
  const [first, length] = plain;
  const beside = tagged(parts, 'beside') ?? tagged(parts, 'off');
  const sizes =
    verb === 'notch'
      ? { depth: first, length }
      : {
          width: first,
          length,
          ...(tagged(parts, 'deep') ? { depth: tagged(parts, 'deep') } : {}),
          ...(beside ? { off: beside } : {}),
        };
  return { stem: verb, action: { end_notch: { of: names(one), ...(at ? { at } : {}), face, ...sizes } } };
}

export const END_NOTCH = verb<'end_notch'>({
  key: 'end_notch',
  phrases: [
    {
      verb: 'notch',
      words: 'members, start or finish, face, depth, length',
      example: 'notch rail, finish, top, 20 mm, 30 mm',
      read: (parts) => {
        return readNotch('notch', parts);
      },
    },
    {
      verb: 'slot',
      words: 'members, start or finish, face, width, length; deep …, beside …',
      example: 'slot brace, start, top, 8 mm, 60 mm',
      read: (parts) => {
        return readNotch('slot', parts);
      },
    },
  ],
  sentence: (writer) => {
    const { value, choice, get } = writer;
    const slot = get(['width']) !== undefined;
    const from = [
      choice('face', ['face'], 'top', FACES),
      ...(slot
        ? [
            value('width of the slot', ['width']),
            word('wide'),
            ...maybe(writer, 'beside the middle', 'beside the middle', ['off']),
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
  },
  changes: ({ get }) => {
    const list: Change<ActionOf<'end_notch'>>[] = [];

    if (get(['width']) === undefined)
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
          [['depth'], get(['depth']) ?? '20 mm'],
        ],
      });

    return list;
  },
});
