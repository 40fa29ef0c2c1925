// Holes of other shapes.
import { word, type Part } from '../../../bench/parts';
import type { PathIn } from '../../../bench/paths';
import { verb, type ActionOf } from '../../verb';
import { holeChanges, placing, reaching, readHole } from '../hole';
import { shapeParts } from '../shape';

export const CUT = verb<'cut'>({
  key: 'cut',
  phrases: [
    {
      verb: 'cut',
      words:
        'panel, width, height, radius …, or slot length overall (or between centres) by width, ' +
        'keyhole for M5 with washer (or head by slot by travel), turned …, then as drill',
      example: 'cut base, 40 mm, 12 mm, radius 3 mm',
      read: (parts) => {
        if (parts.length < 2) return undefined;
        const hole = readHole('cut', parts);
        if (typeof hole === 'string') return hole;
        const sized = hole.slot ?? hole.keyhole ?? hole.height;
        return sized === undefined ? undefined : { stem: 'cut', action: { cut: { panel: parts[0], ...hole } } };
      },
    },
  ],
  sentence: (writer, { operation }) => {
    const { value, choice, get } = writer;
    const has = (path: PathIn<ActionOf<'cut'>>) => get(path) !== undefined;
    const parts: Part[] = [{ kind: 'word', text: 'Cut', strong: true }];
    if (has(['slot']))
      parts.push(
        word('a slot'),
        value('slot length', ['slot', 'length']),
        choice('what the slot length is', ['slot', 'length_is'], 'centres', [
          ['centres', 'between centres,'],
          ['overall', 'overall,'],
        ]),
        value('slot width', ['slot', 'width']),
        word('wide'),
      );
    else if (has(['keyhole', 'screw']))
      parts.push(
        word('a keyhole for'),
        value('screw', ['keyhole', 'screw']),
        word('with a'),
        choice('bears', ['keyhole', 'bears'], 'socket', [
          ['socket', 'socket head'],
          ['button', 'button head'],
          ['hex', 'hexagon head'],
          ['washer', 'washer'],
        ]),
        word(', travel'),
        value('travel', ['keyhole', 'travel'], { ghost: 'so that it bears whole', optional: true }),
      );
    else if (has(['keyhole']))
      parts.push(
        word('a keyhole, head'),
        value('head', ['keyhole', 'head']),
        word(', slot'),
        value('slot width', ['keyhole', 'slot']),
        word(', travel'),
        value('travel', ['keyhole', 'travel']),
      );
    else if (has(['outline'])) parts.push(...shapeParts(operation, ['do', 'cut', 'outline']));
    else {
      parts.push(value('width', ['width']), word('by'), value('height', ['height']));
      const open = get(['open']) as Record<string, string> | undefined;
      const way = open ? Object.keys(open)[0] : undefined;
      if (way)
        parts.push(
          word(way === 'dog_bone' ? ', corners opened by a tool of radius' : ', corners overcut by a tool of radius'),
          value('tool radius', ['open', way as 'dog_bone']),
        );
      else parts.push(word(', corners'), value('corner radius', ['corner'], { ghost: '0', optional: true }));
    }
    if (has(['turn'])) parts.push(word(', turned'), value('turn', ['turn']));
    return [
      ...parts,
      word(', through'),
      value('panel', ['panel'], { names: 'panels' }),
      ...reaching(writer),
      ...placing(writer),
    ];
  },
  changes: ({ operation, edges, holes }) => {
    return holeChanges('cut', operation, edges, holes);
  },
});
