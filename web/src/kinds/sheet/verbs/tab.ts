// Tabs on an edge.
import { word } from '../../../bench/parts';
import { verb } from '../../verb';
import { fieldsOf, pair, row } from '../common';

export const TAB = verb<'tab'>({
  key: 'tab',
  phrases: [
    {
      verb: 'tab',
      words: 'edge, width by height, count at spacing, at …',
      example: 'tab lid.end, 12 mm by 4 mm, 2 at 50 mm',
      read: (parts) => {
        const { rest, fields } = fieldsOf(parts);
        const [one, two] = rest;
        const size = pair(two ?? '');
        if (!one || !size) return undefined;
        return { stem: 'tabs', action: { tab: { edge: one, width: size[0], height: size[1], ...fields } } };
      },
    },
  ],
  sentence: (writer) => {
    const { value } = writer;
    return [
      word('Put tabs', true),
      word('on'),
      value('edge', ['edge'], { names: 'edges' }),
      word(','),
      value('tab width', ['width']),
      word('wide,'),
      value('tab height', ['height']),
      word('high'),
      ...row(writer),
      word('.'),
    ];
  },
});
