// Joining two edges.
import { word } from '../../../bench/parts';
import { verb } from '../../verb';
import { fieldsOf, seamAs } from '../common';

export const SEAM = verb<'seam'>({
  key: 'seam',
  phrases: [
    {
      verb: 'seam',
      words: 'edge, the edge that lies beside it',
      example: 'seam front.left, left.front',
      read: (parts) => {
        const [from, to] = fieldsOf(parts).rest;
        return from && to ? { stem: 'seam', action: { seam: { from, to } } } : undefined;
      },
    },
  ],
  sentence: (writer) => {
    const { value } = writer;
    return [
      word('Join', true),
      value('first edge', ['from'], { names: 'edges' }),
      word('to'),
      value('second edge', ['to'], { names: 'edges' }),
      ...seamAs(writer),
      word('.'),
    ];
  },
});
