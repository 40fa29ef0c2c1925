// A joggle along an edge.
import { word } from '../../../bench/parts';
import { verb } from '../../verb';
import { fieldsOf, method, POSITION, relief, setIns, UP_DOWN } from '../common';

export const JOGGLE = verb<'joggle'>({
  key: 'joggle',
  phrases: [
    {
      verb: 'joggle',
      words: 'edge, offset, leg …, angle, up or down',
      example: 'joggle base.back, 12 mm, leg 25 mm',
      read: (parts) => {
        const { rest, fields } = fieldsOf(parts);
        const [one, two] = rest;
        const leg = rest.map((part) => /^leg\s+(.+)$/.exec(part)?.[1]).find(Boolean);
        const angle = rest.find((part) => /(deg|rad|°)$/.test(part));
        if (!one || !two || !leg) return undefined;
        return {
          stem: 'step',
          action: { joggle: { edge: one, offset: two, leg, ...(angle ? { angle } : {}), ...fields } },
        };
      },
    },
  ],
  sentence: (writer, { sides }) => {
    const { value, choice } = writer;
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
  },
});
