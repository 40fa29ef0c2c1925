// A place of a frame with a name.
import { word } from '../../../bench/parts';
import { verb } from '../../verb';
import { offsets, place, tagged } from '../common';

export const NODE = verb<'node'>({
  key: 'node',
  phrases: [
    {
      verb: 'node',
      words: 'from a node or the origin, x …, y …, z …',
      example: 'node from rect.n1, x 250 mm',
      read: (parts) => {
        const from = tagged(parts, 'from');
        const by = offsets(parts);
        return from === undefined && Object.keys(by).length === 0
          ? undefined
          : { stem: 'node', action: { node: { at: { ...(from ? { from } : {}), ...by } } } };
      },
    },
  ],
  sentence: (writer) => {
    const { value, get } = writer;
    const kind = get(['on']) !== undefined ? 'on' : get(['meet']) !== undefined ? 'meet' : 'at';
    if (kind === 'on')
      return [
        word('Node', true),
        word('on'),
        value('line', ['on', 'line'], { names: 'lines3' }),
        word('at'),
        value('distance', ['on', 'distance']),
        word('from its start.'),
      ];
    if (kind === 'meet')
      return [
        word('Node', true),
        word('where'),
        value('node a', ['meet', 'one', 0], { names: 'nodes' }),
        word('to'),
        value('node b', ['meet', 'one', 1], { names: 'nodes' }),
        word('meets'),
        value('node c', ['meet', 'two', 0], { names: 'nodes' }),
        word('to'),
        value('node d', ['meet', 'two', 1], { names: 'nodes' }),
        word('.'),
      ];
    return [word('Node', true), word('from'), ...place(writer, ['at'], 'node'), word('.')];
  },
});
