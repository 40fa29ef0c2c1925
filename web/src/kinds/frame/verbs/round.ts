// The corner of two lines rounded.
import { word } from '../../../bench/parts';
import { verb } from '../../verb';

export const ROUND = verb<'round'>({
  key: 'round',
  phrases: [
    {
      verb: 'round',
      words: 'a node, radius',
      example: 'round path.n2, 150 mm',
      read: (parts) => {
        const [one, two] = parts;
        return one && two
          ? { stem: 'round', action: { round: { node: one, radius: two.replace(/^radius\s+/, '') } } }
          : undefined;
      },
    },
  ],
  sentence: (writer) => {
    const { value } = writer;
    return [
      word('Round', true),
      word('the corner at'),
      value('node', ['node'], { names: 'nodes' }),
      word('to a radius of'),
      value('radius', ['radius']),
      word('.'),
    ];
  },
});
