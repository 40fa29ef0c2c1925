// A bend along a line drawn on a panel.
import { word } from '../../../bench/parts';
import { verb } from '../../verb';
import { fieldsOf, method, UP_DOWN } from '../common';

export const CREASE = verb<'crease'>({
  key: 'crease',
  phrases: [
    {
      verb: 'crease',
      words: 'panel, distance from edge, angle, up or down, radius …',
      example: 'crease base, 30 mm from base.back, 90 deg',
      read: (parts) => {
        const { rest, fields } = fieldsOf(parts);
        const [one] = rest;
        const place = rest.map((part) => /^(.+?)\s+from\s+(\S+)$/.exec(part)).find(Boolean);
        const angle = rest.find((part) => /(deg|rad|°)$/.test(part)) ?? '90 deg';
        if (!one || !place) return undefined;
        return {
          stem: 'fold',
          action: { crease: { panel: one, distance: place[1], edge: place[2], angle, ...fields } },
        };
      },
    },
  ],
  sentence: (writer) => {
    const { value, choice } = writer;
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
  },
});
