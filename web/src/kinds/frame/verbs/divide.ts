// A line parted with nodes.
import { word } from '../../../bench/parts';
import { verb } from '../../verb';

export const DIVIDE = verb<'divide'>({
  key: 'divide',
  phrases: [
    {
      verb: 'divide',
      words: 'a line, into a number of parts or at distances',
      example: 'divide rect.front, 3',
      read: (parts) => {
        const [one, two] = parts;
        if (!one || !two) return undefined;
        return {
          stem: 'divide',
          action: {
            divide: two.startsWith('at ')
              ? { line: one, at: [two.slice(3), ...parts.slice(2)] }
              : { line: one, into: two.replace(/^into\s+/, '') },
          },
        };
      },
    },
  ],
  sentence: (writer) => {
    const { value, get } = writer;
    return [
      word('Divide', true),
      value('line', ['line'], { names: 'lines3' }),
      ...(get(['into']) !== undefined
        ? [word('into'), value('parts', ['into']), word('equal parts.')]
        : [word('at'), value('distances', ['at'], { list: true }), word('.')]),
    ];
  },
});
