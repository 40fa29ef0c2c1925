// Work made again.
import { word, type Part } from '../../../bench/parts';
import { verb } from '../../verb';
import { fieldsOf } from '../common';

export const AGAIN = verb<'again'>({
  key: 'again',
  phrases: [
    {
      verb: 'mirror',
      words: 'operations, about panel, along x or y',
      example: 'mirror flange, about base',
      read: (parts) => {
        const { rest } = fieldsOf(parts);
        const about = rest.map((part) => /^about\s+(\S+)(?:\s+along\s+([xy]))?$/.exec(part)).find(Boolean);
        const of = rest.filter((part) => !part.startsWith('about '));
        if (!about || of.length === 0) return undefined;
        return {
          stem: 'other',
          action: { again: { of, how: { mirror: { panel: about[1], ...(about[2] ? { along: about[2] } : {}) } } } },
        };
      },
    },
    {
      verb: 'repeat',
      words: 'operations, count at spacing along x, or x … and y …',
      example: 'repeat hole, 4 at 25 mm',
      read: (parts) => {
        const { rest, fields } = fieldsOf(parts);
        const steps = rest.map((part) => /^([xy])\s+(.+)$/.exec(part)).filter((found) => found !== null);
        const of = rest.filter((part) => !/^[xy]\s/.test(part));
        if (!fields.count || of.length === 0 || (steps.length === 0 && !fields.spacing)) return undefined;
        const shift = {
          count: fields.count,
          ...(fields.spacing ? { x: fields.spacing } : {}),
          ...Object.fromEntries(steps.map((found) => [found[1] ?? 'x', found[2]])),
        };
        return { stem: 'row', action: { again: { of, how: { shift } } } };
      },
    },
  ],
  sentence: (writer) => {
    const { value, choice, get } = writer;
    const mirror = get(['how', 'mirror']) !== undefined;
    const parts: Part[] = [
      word(mirror ? 'Mirror' : 'Repeat', true),
      value('operations', ['of'], { list: true, names: 'operations' }),
    ];
    if (mirror)
      return [
        ...parts,
        word('across the middle of'),
        value('panel', ['how', 'mirror', 'panel'], { names: 'panels' }),
        choice('mirrored along', ['how', 'mirror', 'along'], 'x', [
          ['x', 'to the other side along x'],
          ['y', 'to the other side along y'],
        ]),
        word('.'),
      ];
    return [
      ...parts,
      word(','),
      value('count', ['how', 'shift', 'count']),
      word('in all, each'),
      value('across', ['how', 'shift', 'x'], { ghost: '0', optional: true }),
      word('along x and'),
      value('up', ['how', 'shift', 'y'], { ghost: '0', optional: true }),
      word('along y.'),
    ];
  },
});
