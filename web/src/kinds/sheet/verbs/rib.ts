// Ribs pressed across a bend.
import { puts, word, type Part, type Way } from '../../../bench/parts';
import { COUNTED, verb } from '../../verb';

export const RIB = verb<'rib'>({
  key: 'rib',
  phrases: [
    {
      verb: 'rib',
      words:
        'bend, leg by leg (or leg and angle), wide …, round, draft …, count at pitch, from end distance, last distance',
      example: 'rib wall, 25 mm by 25 mm, wide 12 mm, 3 at 60 mm',
      read: (parts) => {
        const [bend, legs, ...rest] = parts;
        const both = /^(.+?)\s+by\s+(.+)$/.exec(legs ?? '');
        const leaning = /^(.+?)\s+and\s+(.+)$/.exec(legs ?? '');
        if (!bend || (!both && !leaning)) return undefined;
        const rib: Record<string, unknown> = both
          ? { bend, panel_leg: both[1], flange_leg: both[2] }
          : { bend, panel_leg: leaning?.[1], angle: leaning?.[2] };
        for (const part of rest) {
          const [, wide] = /^wide\s+(.+)$/.exec(part) ?? [];
          const [, draft] = /^draft\s+(.+)$/.exec(part) ?? [];
          const [, radius] = /^radius\s+(.+)$/.exec(part) ?? [];
          const [, end, at] = /^from\s+(\S+)\s+(.+)$/.exec(part) ?? [];
          const [, last] = /^last\s+(.+)$/.exec(part) ?? [];
          const [, count, pitch] = COUNTED.exec(part) ?? [];
          const [, alone] = /^(\d+)$/.exec(part) ?? [];
          if (wide) rib.width = wide;
          else if (draft) rib.draft = draft;
          else if (radius) rib.radius = radius;
          else if (part === 'round') rib.ridge = 'round';
          else if (end) Object.assign(rib, { from: end, at });
          else if (last) rib.last = last;
          else if (count) Object.assign(rib, { count }, pitch ? { pitch } : {});
          else if (alone) rib.count = alone;
          else return undefined;
        }
        return rib.width ? { stem: 'rib', action: { rib } } : undefined;
      },
    },
  ],
  sentence: ({ value, choice, get }, { sides }) => {
    const given = get(['from']) as string | undefined;
    const ends = [...sides, ...(given && !sides.includes(given) ? [given] : [])];
    const several = get(['count']) !== undefined || get(['pitch']) !== undefined;
    const parts: Part[] = [
      word('Press a rib', true),
      choice('ridge', ['ridge'], 'flat', [
        ['flat', 'with a flat ridge'],
        ['round', 'with a round ridge'],
      ]),
      value('rib width', ['width']),
      word('wide across'),
      value('bend', ['bend'], { names: 'bends' }),
      word(', from'),
      value('leg on the panel', ['panel_leg']),
      word('on the panel'),
    ];
    if (get(['angle']) !== undefined) parts.push(word('at'), value('angle to the panel', ['angle']), word('to it'));
    else parts.push(word('to'), value('leg on the flange', ['flange_leg']), word('on the flange'));
    parts.push(
      word(', sides leaning'),
      value('draft', ['draft'], { ghost: '15 deg', optional: true }),
      word(', edges'),
      value('radius of its edges', ['radius'], { ghost: 'sharp', optional: true }),
      word(','),
      value('count', ['count'], { ghost: several ? 'as many as fit' : '1', optional: true }),
      word('of them,'),
      value('pitch', ['pitch'], { ghost: 'evenly', optional: true }),
      word('apart, the first'),
      value('first at', ['at'], { ghost: several ? 'evenly' : 'in the middle', optional: true }),
    );
    const placed = several || get(['at']) !== undefined || get(['last']) !== undefined;
    if (!placed) return [...parts, word('.')];
    parts.push(
      word('to its'),
      choice('measured to', ['at_is'], 'middle', [
        ['middle', 'middle'],
        ['edge', 'edge'],
      ]),
      word('from'),
      choice(
        'end of the bend',
        ['from'],
        ends[0] ?? 'start',
        ends.length > 0 ? ends.map((end): Way => [end, end]) : [['start', 'its start', puts(undefined)]],
      ),
      word(', the last'),
      value('last at', ['last'], { ghost: several ? 'alike' : 'not said', optional: true }),
      word('from the other end.'),
    );
    return parts;
  },
  changes: ({ get }) => {
    const [panel, width] = [get(['panel_leg']) as string | undefined, get(['width']) as string | undefined];
    return [
      get(['angle']) === undefined
        ? {
            words: 'its angle to the panel in place of the leg on the flange',
            sets: [
              [['flange_leg'], undefined],
              [['angle'], '45 deg'],
            ],
          }
        : {
            words: 'its leg on the flange in place of the angle',
            sets: [
              [['angle'], undefined],
              [['flange_leg'], panel],
            ],
          },
      ...(get(['count']) === undefined && get(['pitch']) === undefined
        ? [{ words: 'a row between the ends of the bend', sets: [[['count'], '3']] as never }]
        : []),
      ...(get(['pitch']) === undefined && get(['count']) !== undefined
        ? [{ words: 'at a pitch', sets: [[['pitch'], `4*(${width ?? '12 mm'})`]] as never }]
        : []),
    ];
  },
});
