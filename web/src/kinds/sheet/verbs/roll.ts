// Rolled: an arc with lead-ins, a tube.
import { keyOf, puts, word, type Part } from '../../../bench/parts';
import { verb } from '../../verb';
import { fieldsOf, method, UP_DOWN, WIDTH } from '../common';

export const ROLL = verb<'roll'>({
  key: 'roll',
  phrases: [
    {
      verb: 'roll',
      words:
        'radius …, an angle or arc … or chord … or tube …, inside or middle or outside, ' +
        'lead in …, lead out …, wide …',
      example: 'roll radius 300 mm, 120 deg, wide 200 mm',
      read: (parts) => {
        const { fields } = fieldsOf(parts, 'radius');
        const roll: Record<string, unknown> = { ...fields };
        for (const part of parts) {
          const [, key, text] = /^(radius|arc|chord|tube|lead in|lead out)\s+(.+)$/.exec(part) ?? [];
          if (key === 'radius') roll.radius = text;
          else if (key === 'lead in' || key === 'lead out') roll[key.replace(' ', '_')] = text;
          else if (key) roll.span = { [key]: text };
          else if (/(deg|rad|°)$/.test(part)) roll.span = { angle: part };
          else if (['inside', 'middle', 'outside'].includes(part)) roll.to = part;
        }
        if (!roll.radius || !roll.span || !roll.width) return undefined;
        return { stem: 'roll', action: { roll } };
      },
    },
  ],
  sentence: (writer) => {
    const { value, choice, whole, get } = writer;
    const kind = keyOf(get(['span']), 'angle');
    const parts: Part[] = [
      word('Roll', true),
      choice('direction', ['direction'], 'up', UP_DOWN),
      word('to a radius of'),
      value('radius', ['radius']),
      choice('radius measured', ['to'], 'inside', [
        ['inside', 'inside'],
        ['middle', 'to the middle'],
        ['outside', 'outside'],
      ]),
      word(','),
      whole('rolled by', ['span'], 'angle', [
        ['angle', 'through', puts({ angle: '90 deg' })],
        ['arc', 'an arc of', puts({ arc: '200 mm' })],
        ['chord', 'on a chord of', puts({ chord: '100 mm' })],
        ['tube', 'a whole tube, its seam open by', puts({ tube: '1 mm' })],
      ]),
      value(kind === 'tube' ? 'seam gap' : kind, ['span', kind as 'angle']),
    ];
    if (kind !== 'tube')
      parts.push(
        word(', lead in'),
        value('lead in', ['lead_in'], { ghost: '0', optional: true }),
        word('and out'),
        value('lead out', ['lead_out'], { ghost: '0', optional: true }),
      );
    parts.push(
      word(', width'),
      value('width', ['width']),
      choice('where the width lies', ['width_from'], 'side', WIDTH),
      ...method(writer, 'the middle of the metal'),
      word('.'),
    );
    return parts;
  },
});
