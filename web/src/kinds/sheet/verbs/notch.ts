// A notch on an edge.
import { keyOf, puts, word, type Part } from '../../../bench/parts';
import { verb } from '../../verb';
import { fieldsOf, pair, row } from '../common';

export const NOTCH = verb<'notch'>({
  key: 'notch',
  phrases: [
    {
      verb: 'notch',
      words: 'edge, vee width by depth or square width by depth (corner radius) or radius …, count at spacing, at …',
      example: 'notch base.front, vee 12 mm by 8 mm',
      read: (parts) => {
        const { rest, fields } = fieldsOf(parts);
        const [one, two, three] = rest;
        const [, corner] = /^corner\s+(.+)$/.exec(three ?? '') ?? [];
        if (three && !corner) return undefined;
        const round = corner ? { corner } : {};
        const vee = pair(/^vee\s+(.+)$/.exec(two ?? '')?.[1] ?? '');
        const square = pair((two ?? '').replace(/^square\s+/, ''));
        const shape = vee
          ? { vee: { width: vee[0], depth: vee[1], ...round } }
          : fields.radius
            ? { round: fields.radius }
            : square
              ? { square: { width: square[0], depth: square[1], ...round } }
              : undefined;
        if (!one || !shape) return undefined;
        const notch: Record<string, unknown> = { edge: one, shape, ...fields };
        delete notch.radius;
        return { stem: 'notch', action: { notch } };
      },
    },
  ],
  sentence: (writer) => {
    const { value, whole, get } = writer;
    const kind = keyOf(get(['shape']), 'square');
    const parts: Part[] = [
      word('Notch', true),
      value('edge', ['edge'], { names: 'edges' }),
      word('with'),
      whole('kind of notch', ['shape'], 'square', [
        ['square', 'a square notch', puts({ square: { width: '10 mm', depth: '10 mm' } })],
        ['vee', 'a vee', puts({ vee: { width: '12 mm', depth: '8 mm' } })],
        ['round', 'half a circle', puts({ round: '6 mm' })],
      ]),
    ];
    if (kind === 'round') parts.push(word('of radius'), value('notch radius', ['shape', 'round']));
    else
      parts.push(
        value('notch width', ['shape', kind as 'vee', 'width']),
        word('wide,'),
        value('notch depth', ['shape', kind as 'vee', 'depth']),
        word('deep, inner corners'),
        value('radius of its corners', ['shape', kind as 'vee', 'corner'], { ghost: 'sharp', optional: true }),
      );
    return [...parts, ...row(writer), word('.')];
  },
});
