// Parting a piece into blanks.
import { keyOf, puts, word, type Part } from '../../../bench/parts';
import { verb } from '../../verb';
import { fieldsOf, seamAs } from '../common';

export const SPLIT = verb<'split'>({
  key: 'split',
  phrases: [
    {
      verb: 'part',
      words: 'panel, distance from edge, turned … — or the bend to part it at',
      example: 'part base, 150 mm from left.mould-outside',
      read: (parts) => {
        const { rest, fields } = fieldsOf(parts);
        const [one] = rest;
        const place = rest.map((part) => /^(.+?)\s+from\s+(\S+)$/.exec(part)).find(Boolean);
        if (one && place) {
          const line = { panel: one, distance: place[1], edge: place[2], ...fields };
          return { stem: 'split', action: { split: { at: { line } } } };
        }
        const at = /^at\s+(\S+)$/.exec(one ?? '')?.[1];
        return at ? { stem: 'split', action: { split: { at: { bend: { bend: at } } } } } : undefined;
      },
    },
  ],
  sentence: (writer) => {
    const { value, whole, choice, get } = writer;
    const line: [string, string, ReturnType<typeof puts>][] = [
      ['line', 'along a line on a panel', puts({ line: { panel: 'base', edge: 'base.left', distance: '50 mm' } })],
      ['bend', 'at a bend', puts({ bend: { bend: 'flange' } })],
    ];
    const parts: Part[] = [word('Part the piece', true), whole('where it is parted', ['at'], 'line', line)];
    if (keyOf(get(['at']), 'line') === 'bend')
      parts.push(
        value('bend', ['at', 'bend', 'bend'], { names: 'bends' }),
        word(';'),
        choice('the bent strip', ['at', 'bend', 'strip'], 'parent', [
          ['parent', 'the strip stays with the panel that was bent'],
          ['flange', 'the strip goes with the flange'],
        ]),
      );
    else
      parts.push(
        value('panel', ['at', 'line', 'panel'], { names: 'panels' }),
        word(','),
        value('distance', ['at', 'line', 'distance']),
        word('from'),
        value('edge', ['at', 'line', 'edge'], { names: 'edges' }),
        word(', turned'),
        value('turn', ['at', 'line', 'turn'], { ghost: '0 deg', optional: true }),
        word(','),
        choice('what it parts', ['at', 'line', 'reach'], 'flat', [
          ['flat', 'across bends'],
          ['panel', 'through this panel alone'],
        ]),
      );
    return [...parts, ...seamAs(writer), word('.')];
  },
});
