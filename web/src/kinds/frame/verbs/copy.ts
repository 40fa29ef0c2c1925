// Lines, members and all, made again.
import { keyOf, puts, word, type Part } from '../../../bench/parts';
import { verb } from '../../verb';
import { AXES, axes, names, offsets, place, tagged } from '../common';

export const COPY = verb<'copy'>({
  key: 'copy',
  phrases: [
    {
      verb: 'mirror',
      words: 'about x, y or z, at …; operations where not all',
      example: 'mirror about x',
      read: (parts) => {
        const [one] = parts;
        const axis = parts.map((part) => /about\s+([xyz])$/.exec(part)?.[1]).find(Boolean);
        const of = one && !/^about/.test(one) ? names(one.replace(/\s*about\s+[xyz]$/, '')) : [];
        const at = tagged(parts, 'at');
        return axis
          ? {
              stem: 'mirror',
              action: { copy: { ...(of.length > 0 ? { of } : {}), how: { mirror: { axis, ...(at ? { at } : {}) } } } },
            }
          : undefined;
      },
    },
    {
      verb: 'repeat',
      words: 'operations, x … or y … or z …, count',
      example: 'repeat post, x 600 mm, 3 more',
      read: (parts) => {
        const [one] = parts;
        const by = offsets(parts);
        const count = parts.map((part) => /^(\S+)\s+more$/.exec(part)?.[1]).find(Boolean) ?? '1';
        return one && Object.keys(by).length > 0
          ? { stem: 'copies', action: { copy: { of: names(one), how: { shift: { ...by, count } } } } }
          : undefined;
      },
    },
  ],
  sentence: (writer) => {
    const { value, choice, whole, get } = writer;
    const kind = keyOf(get(['how']));
    const parts: Part[] = [
      word('Make again', true),
      value('what is made again', ['of'], {
        ghost: 'everything so far',
        optional: true,
        names: 'operations',
        list: true,
      }),
      whole('copied how', ['how'], 'mirror', [
        ['mirror', 'mirrored', puts({ mirror: { axis: 'x' } })],
        ['shift', 'at a spacing', puts({ shift: { x: '500 mm', count: '1' } })],
        ['turn', 'turned', puts({ turn: { axis: 'z', angle: '90 deg', count: '3' } })],
      ]),
    ];
    if (kind === 'mirror')
      parts.push(
        word('about the plane square to'),
        choice('axis', ['how', 'mirror', 'axis'], 'x', AXES),
        word('at'),
        value('plane', ['how', 'mirror', 'at'], { ghost: '0', optional: true }),
      );
    if (kind === 'shift')
      parts.push(
        word('of'),
        ...axes(writer, ['how', 'shift'], (axis) => axis),
        word(','),
        value('count', ['how', 'shift', 'count']),
        word('more'),
      );
    if (kind === 'turn')
      parts.push(
        word('by'),
        value('angle', ['how', 'turn', 'angle']),
        word('about'),
        choice('axis', ['how', 'turn', 'axis'], 'z', AXES),
        word('through'),
        ...place(writer, ['how', 'turn', 'about'], 'axis'),
        word(','),
        value('count', ['how', 'turn', 'count']),
        word('more'),
      );
    return [...parts, word('.')];
  },
});
