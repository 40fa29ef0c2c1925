// Centre lines end to end.
import { word, type Change, type Part, type Way, type Writer } from '../../../bench/parts';
import { inside } from '../../../bench/paths';
import { verb, type ActionOf } from '../../verb';
import { axes, offsets, place, tagged } from '../common';

const WAYS: Way[] = [
  ['right', 'right'],
  ['left', 'left'],
  ['away', 'away'],
  ['toward', 'toward'],
  ['up', 'up'],
  ['down', 'down'],
];

function legs(writer: Writer<ActionOf<'path'>>): Part[] {
  const { value, choice, get } = writer;
  const list = (get(['legs']) as Record<string, unknown>[] | undefined) ?? [];
  return list.flatMap((leg, index): Part[] => {
    const form = Object.keys(leg)[0] ?? 'by';
    const own = (...rest: string[]) => inside<ActionOf<'path'>>(['legs', index], form, ...rest);
    const parts: Part[] = [
      word(';'),
      value(`name of line ${index + 1}`, own('name'), { ghost: `line ${index + 1}`, optional: true }),
    ];
    if (form === 'by') parts.push(word('by'), ...axes(writer, own(), (axis) => `${axis} of line ${index + 1}`));
    else {
      parts.push(word(form === 'arc' ? 'round to' : 'to'), ...place(writer, own('place'), `line ${index + 1}`));
      if (form === 'arc') {
        if (get(own('how', 'radius')) !== undefined)
          parts.push(
            word('radius'),
            value(`radius of line ${index + 1}`, own('how', 'radius', 'radius')),
            word('bulging'),
            choice(`bulge of line ${index + 1}`, own('how', 'radius', 'toward'), 'up', WAYS),
          );
        else parts.push(word('past'), ...place(writer, own('how', 'through'), `line ${index + 1} past`));
      }
    }
    return parts;
  });
}

export const PATH = verb<'path'>({
  key: 'path',
  phrases: [
    {
      verb: 'line',
      words: 'from a node, x …, y …, z … (the way to the next node), or to a node; several with “then”',
      example: 'line from post.n2, x 600 mm, then z -200 mm',
      read: (parts) => {
        const legs: object[] = [];
        let now: string[] = [];
        const flush = () => {
          if (now.length === 0) return;
          const to = now.map((part) => /^to\s+(\S+)$/.exec(part)?.[1]).find(Boolean);
          const by = offsets(now);
          legs.push(to ? { to: { place: { from: to, ...by } } } : { by });
          now = [];
        };
        const from = tagged(parts, 'from');
        for (const part of parts) {
          if (/^from\s/.test(part)) continue;
          const then = /^then\s+(.+)$/.exec(part);
          if (then?.[1]) {
            flush();
            now = [then[1]];
          } else now.push(part);
        }
        flush();
        if (
          legs.length === 0 ||
          legs.some((leg) => 'by' in leg && Object.keys((leg as { by: object }).by).length === 0)
        )
          return undefined;
        return { stem: 'path', action: { path: { start: from ? { from } : {}, legs } } };
      },
    },
  ],
  sentence: (writer) => {
    const { get } = writer;
    return [
      word('Lines', true),
      word('from'),
      ...place(writer, ['start'], 'start'),
      ...legs(writer),
      word(get(['close']) ? '; back to the start.' : '.'),
    ];
  },
  changes: ({ get }) => {
    const list: Change<ActionOf<'path'>>[] = [];

    const count = ((get(['legs']) as unknown[] | undefined) ?? []).length;
    list.push(
      { words: '+ line', sets: [[['legs', count], { by: { x: '500 mm' } }]] },
      {
        words: '+ arc',
        sets: [
          [['legs', count], { arc: { place: { x: '500 mm' }, how: { radius: { radius: '500 mm', toward: 'up' } } } }],
        ],
      },
    );
    if (count > 1) list.push({ words: '− last line', sets: [[['legs', count - 1], undefined]] });
    list.push(
      get(['close'])
        ? { words: 'leave it open', sets: [[['close'], undefined]] }
        : { words: 'close it', sets: [[['close'], true]] },
    );

    return list;
  },
});
