// Round holes.
import { word, type Part } from '../../../bench/parts';
import type { PathIn } from '../../../bench/paths';
import { verb, type ActionOf } from '../../verb';
import { holeChanges, placing, reaching, readHole } from '../hole';

export const DRILL = verb<'drill'>({
  key: 'drill',
  phrases: [
    {
      verb: 'drill',
      words:
        'panel, a diameter or clearance M8 or tapped M8, blind depth, countersunk for M5 or to a diameter, ' +
        'counterbored for M5, punched, 4x 15 mm from the edges, from edge ' +
        'distance, count at spacing, circle count on diameter, along edge distance pitch …, fill ' +
        'pitch margin …',
      example: 'drill base, 9 mm, from base.front 20 mm, 2 at 40 mm',
      read: (parts) => {
        if (parts.length < 2) return undefined;
        const hole = readHole('drill', parts);
        if (typeof hole === 'string') return hole;
        const heads = [hole.countersink, hole.counterbore] as ({ screw?: string } | undefined)[];
        const sized = hole.diameter ?? hole.clearance ?? hole.tapped ?? heads.find((one) => one?.screw)?.screw;
        return sized === undefined ? undefined : { stem: 'hole', action: { drill: { panel: parts[0], ...hole } } };
      },
    },
  ],
  sentence: (writer) => {
    const { value, choice, get } = writer;
    const has = (path: PathIn<ActionOf<'drill'>>) => get(path) !== undefined;
    const parts: Part[] = [{ kind: 'word', text: 'Drill', strong: true }];
    if (has(['clearance']))
      parts.push(
        word('a clearance hole for'),
        value('bolt', ['clearance', 'bolt']),
        choice('fit', ['clearance', 'fit'], 'medium', [
          ['fine', 'fine'],
          ['medium', 'medium'],
          ['coarse', 'coarse'],
        ]),
      );
    else if (has(['tapped'])) {
      parts.push(word('and tap'), value('thread', ['tapped', 'thread']));
      if (has(['tapped', 'depth']))
        parts.push(word(','), value('thread depth', ['tapped', 'depth']), word('of thread'));
    } else if (!has(['diameter']) && (has(['countersink', 'screw']) || has(['counterbore', 'screw'])))
      parts.push(word('a clearance hole for its screw'));
    else parts.push(value('diameter', ['diameter']));
    if (has(['depth'])) parts.push(word(','), value('depth', ['depth']), word('deep into'));
    else parts.push(word('through'));
    parts.push(value('panel', ['panel'], { names: 'panels' }), ...reaching(writer));
    if (has(['countersink', 'screw']))
      parts.push(word(', countersunk for'), value('screw', ['countersink', 'screw'], { names: 'flat heads' }));
    else if (has(['countersink']))
      parts.push(
        word(', countersunk to'),
        value('head diameter', ['countersink', 'diameter']),
        word('at'),
        value('countersink angle', ['countersink', 'angle'], { ghost: '90 deg', optional: true }),
      );
    if (has(['counterbore', 'screw']))
      parts.push(word(', counterbored for'), value('screw', ['counterbore', 'screw'], { names: 'socket heads' }));
    else if (has(['counterbore']))
      parts.push(
        word(', counterbored'),
        value('counterbore diameter', ['counterbore', 'diameter']),
        word('by'),
        value('counterbore depth', ['counterbore', 'depth']),
        word('deep'),
      );
    if (has(['face']))
      parts.push(
        word(', from'),
        choice('face', ['face'], 'top', [
          ['top', 'above'],
          ['bottom', 'below'],
        ]),
      );
    if (has(['make']))
      parts.push(
        word(', the cutter'),
        choice('made by', ['make'], 'cut', [
          ['cut', 'cuts it'],
          ['mark', 'marks its centre'],
          ['leave', 'leaves it to the drill press'],
          ['punch', 'leaves it to the punch'],
        ]),
      );
    return [...parts, ...placing(writer)];
  },
  changes: ({ operation, edges, holes }) => {
    return holeChanges('drill', operation, edges, holes);
  },
});
