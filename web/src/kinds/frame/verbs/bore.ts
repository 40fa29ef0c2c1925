// Holes in members.
import { word } from '../../../bench/parts';
import { COUNTED, verb } from '../../verb';
import { FACES, names, tagged } from '../common';

export const BORE = verb<'bore'>({
  key: 'bore',
  phrases: [
    {
      verb: 'bore',
      words: 'members, diameter, face, at a distance, count at spacing, one wall, drain or vent',
      example: 'bore legs, 9 mm, top, at 40 mm',
      read: (parts) => {
        const [one, two] = parts;
        const face = ['top', 'bottom', 'left', 'right'].find((name) => parts.includes(name)) ?? 'top';
        const at = tagged(parts, 'at');
        const [, count, spacing] = parts.map((part) => COUNTED.exec(part)).find(Boolean) ?? [];
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
      },
    },
  ],
  sentence: (writer) => {
    const { value, choice, yes } = writer;
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
      word('from the long point, beside the middle'),
      value('beside the middle', ['off'], { ghost: '0', optional: true }),
      word(','),
      value('count', ['count'], { ghost: '1', optional: true }),
      word('in a row,'),
      value('spacing', ['spacing'], { ghost: '—', optional: true }),
      word('apart,'),
      yes('walls', ['one_wall'], 'through', 'one wall only'),
      word('.'),
    ];
  },
});
