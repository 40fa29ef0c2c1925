// Two outlines joined by flat panels.
import { word } from '../../../bench/parts';
import { verb } from '../../verb';
import { method, pair, seamAs } from '../common';
import { shapeParts } from '../shape';

const rectangle = (text: string) => {
  const round = /^(?:circle|round|dia)\s+(.+)$/.exec(text)?.[1];
  if (round) return { circle: { diameter: round } };
  const sizes = pair(text);
  return sizes ? { rectangle: { width: sizes[0], depth: sizes[1] } } : undefined;
};

export const TRANSITION = verb<'transition'>({
  key: 'transition',
  phrases: [
    {
      verb: 'transition',
      words: 'lower width by depth, upper width by depth (or circle …), height',
      example: 'transition 400 mm by 300 mm, 200 mm by 100 mm, 150 mm',
      read: ([one, two, height]) => {
        const [lower, upper] = [rectangle(one ?? ''), rectangle(two ?? '')];
        return lower && upper && height
          ? { stem: 'hood', action: { transition: { lower, upper, height } } }
          : undefined;
      },
    },
  ],
  sentence: (writer, { operation }) => {
    const { value, choice } = writer;
    const zero = { ghost: '0', optional: true };
    return [
      word('Join', true),
      ...shapeParts(operation, ['do', 'transition', 'lower']),
      word('to'),
      ...shapeParts(operation, ['do', 'transition', 'upper']),
      word('at a height of'),
      value('height', ['height']),
      word(', over to the right by'),
      value('offset along x', ['offset_x'], zero),
      word(', back by'),
      value('offset along y', ['offset_y'], zero),
      word(', turned'),
      value('turn', ['turn'], zero),
      word(', its back raised'),
      value('tilt about x', ['tilt_x'], zero),
      word(', its left raised'),
      value('tilt about y', ['tilt_y'], zero),
      word(';'),
      choice('sizes of', ['sizes'], 'outside', [
        ['outside', 'outside sizes'],
        ['inside', 'inside sizes'],
      ]),
      word(','),
      choice('edges between panels', ['corners'], 'bent', [
        ['bent', 'bent from one sheet with one seam'],
        ['seams', 'a sheet a panel, all edges seams'],
      ]),
      word(', gap'),
      value('gap', ['gap'], zero),
      ...seamAs(writer),
      word(', flats a quarter of a round'),
      value('flats a quarter', ['lines'], { ghost: '4', optional: true }),
      word(','),
      choice('crease of sides that are not plane', ['crease'], 'shorter', [
        ['shorter', 'creased along the shorter diagonal'],
        ['rising', 'creased along the rising diagonal'],
        ['falling', 'creased along the falling diagonal'],
      ]),
      word(', inside radius'),
      value('inside radius', ['radius'], { ghost: 'R', optional: true }),
      ...method(writer),
      word('.'),
    ];
  },
});
