// A hem along an edge.
import { keyOf, puts, word, type Part } from '../../../bench/parts';
import { verb } from '../../verb';
import { fieldsOf, method, POSITION, relief, setIns, UP_DOWN } from '../common';

export const HEM = verb<'hem'>({
  key: 'hem',
  phrases: [
    {
      verb: 'hem',
      words: 'edge, closed or open gap or teardrop or rolled, length, radius …, up or down',
      example: 'hem base.back, closed, 10 mm',
      read: (parts) => {
        const { rest, fields } = fieldsOf(parts);
        const [one, two, three] = rest;
        const kind = two ?? 'closed';
        const { radius, ...others } = fields;
        const [, gap] = /^open\s+(.+)$/.exec(kind) ?? [];
        const style = gap
          ? { open: { length: three ?? '10*T', gap } }
          : kind === 'teardrop'
            ? { teardrop: { length: three ?? '12*T', radius: radius ?? 'T' } }
            : kind === 'rolled'
              ? { rolled: { radius: radius ?? '2*T' } }
              : kind === 'closed'
                ? { closed: { length: three ?? '8*T' } }
                : undefined;
        if (!one || !style) return undefined;
        return { stem: 'hem', action: { hem: { edge: one, style, ...others } } };
      },
    },
  ],
  sentence: (writer, { sides }) => {
    const { value, choice, whole, get } = writer;
    const kind = keyOf(get(['style']), 'closed');
    const parts: Part[] = [
      word('Hem', true),
      value('edge', ['edge'], { names: 'edges' }),
      choice('direction', ['direction'], 'up', UP_DOWN),
      word(','),
      whole('kind of hem', ['style'], 'closed', [
        ['closed', 'closed', puts({ closed: { length: '8*T' } })],
        ['open', 'open', puts({ open: { length: '10*T', gap: 'T' } })],
        ['teardrop', 'as a teardrop', puts({ teardrop: { length: '12*T', radius: 'T' } })],
        ['rolled', 'rolled', puts({ rolled: { radius: '2*T' } })],
      ]),
    ];
    if (kind === 'rolled')
      parts.push(
        word('to an inside radius of'),
        value('hem radius', ['style', 'rolled', 'radius']),
        word('through'),
        value('hem angle', ['style', 'rolled', 'angle'], { ghost: '270 deg', optional: true }),
      );
    else {
      parts.push(word(','), value('hem length', ['style', kind as 'closed', 'length']), word('long over all'));
      if (kind === 'open') parts.push(word(', gap'), value('hem gap', ['style', 'open', 'gap']));
      if (kind === 'teardrop')
        parts.push(word(', inside radius'), value('hem radius', ['style', 'teardrop', 'radius']));
    }
    return [
      ...parts,
      word(','),
      choice('position', ['position'], 'material_inside', POSITION),
      ...setIns(writer, sides),
      ...relief(writer),
      ...method(writer),
      word('.'),
    ];
  },
});
