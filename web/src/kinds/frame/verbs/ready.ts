// Ready frames from their numbers.
import { plain } from '../../../bench/edit';
import { word, type Part, type Way } from '../../../bench/parts';
import { verb } from '../../verb';
import { place, tagged } from '../common';

const LIES: Way[] = [
  ['flat', 'on the floor'],
  ['across', 'standing across'],
  ['lengthwise', 'standing lengthwise'],
];

/** Sizes that each ready frame has; those after the bar may be left out. */
export const READY: Record<string, { words: string; needed: string[]; more: string[] }> = {
  rectangle: { words: 'a rectangle', needed: ['width', 'depth'], more: [] },
  box: { words: 'a box', needed: ['width', 'depth', 'height'], more: [] },
  table: { words: 'a table', needed: ['width', 'depth', 'height'], more: ['rail'] },
  trestle: { words: 'a trestle', needed: ['length', 'spread', 'height'], more: ['rail'] },
  a_frame: { words: 'an A-frame', needed: ['width', 'height'], more: ['bar'] },
  flat_truss: { words: 'a flat truss', needed: ['length', 'height', 'bays'], more: [] },
  pitched_truss: { words: 'a pitched truss', needed: ['span', 'rise', 'bays'], more: [] },
  ladder: { words: 'a ladder', needed: ['length', 'width', 'rungs'], more: ['first'] },
  stair: { words: 'a stair', needed: ['rise', 'going', 'width', 'steps'], more: [] },
};

/** A section's name, of a standard or after "of". */
const SECTION = /^(?:of\s+\S|[a-z]+\s*\d+(?:\.\d+)?\s*x)/i;
/** How members meet, as it is typed. */
const JOINTS: Record<string, string> = {
  'mitred ring': 'mitred_ring',
  'legs through': 'legs_through',
  'joints open': 'open',
};
const WORDS = ['across', 'lengthwise', 'flat', 'outside', 'to the lines', ...Object.keys(JOINTS)];

export const READY_FRAME = verb<'ready'>({
  key: 'ready',
  phrases: [
    {
      verb: 'frame',
      words:
        'rectangle, box, table, trestle, a-frame, flat truss, pitched truss, ladder or stair and its ' +
        'sizes; rail …, across or lengthwise; a section, its sizes outside unless to the lines; mitred ring, legs ' +
        'through or joints open',
      example: 'frame table, 1200 mm, 700 mm, 850 mm, rail 150 mm',
      read: (parts) => {
        const [one] = parts;
        const kind = (one ?? '')
          .toLowerCase()
          .replace(/^(a |an )/, '')
          .replace(/[\s-]+/g, '_');
        const ready = READY[kind];
        if (!ready)
          return `A frame is one of: ${Object.keys(READY)
            .map((key) => key.replace('_', ' '))
            .join(', ')}.`;
        // A section makes members at once: "SHS 50x50x3", or one of the shop's own, "of keel rail".
        const said = parts.slice(1).find((part) => SECTION.test(part));
        const section = said?.replace(/^of\s+/, '');
        const joints = Object.keys(JOINTS).find((words) => parts.includes(words));
        const plain = parts
          .slice(1)
          .filter((part) => !/^(rail|bar|first)\s/.test(part) && !SECTION.test(part) && !WORDS.includes(part));
        if (plain.length < ready.needed.length) return `${ready.words} needs ${ready.needed.join(', ')}.`;
        const sizes: Record<string, string> = {};
        ready.needed.forEach((name, index) => (sizes[name] = plain[index] ?? ''));
        for (const name of ready.more) {
          const given = tagged(parts, name);
          if (given) sizes[name] = given;
        }
        const lies = parts.includes('across') ? 'across' : parts.includes('lengthwise') ? 'lengthwise' : undefined;
        return {
          stem: kind.replace('_', '-').replace('a-frame', 'aframe'),
          action: {
            ready: {
              kind,
              ...(lies ? { lies } : {}),
              sizes,
              ...(section ? { section, sizes_to: parts.includes('to the lines') ? 'lines' : 'outside' } : {}),
              ...(joints ? { joints: JOINTS[joints] } : {}),
            },
          },
        };
      },
    },
  ],
  sentence: (writer) => {
    const { value, choice, get } = writer;
    const kind = plain(get(['kind']) ?? 'rectangle');
    const ready = READY[kind];
    const section = get(['section']);
    const stands = kind === 'table' || kind === 'box';
    const sizes = [
      ...(ready?.needed ?? []).map((name) => [name, false] as const),
      ...(ready?.more ?? []).map((name) => [name, true] as const),
    ];
    return [
      word('Lay', true),
      word(ready?.words ?? kind),
      ...sizes.flatMap(([name, optional], place): Part[] => [
        word(place === 0 ? ':' : ','),
        word(name === 'rail' && get(['sizes_to']) === 'outside' ? 'rails clear of the floor' : name),
        value(name, ['sizes', name], optional ? { ghost: 'none', optional: true } : {}),
      ]),
      ...(section === undefined
        ? []
        : [
            choice('what its sizes are told to', ['sizes_to'], 'lines', [
              ['outside', 'outside'],
              ['lines', 'to the centre lines'],
            ]),
            word(', of'),
            value('section', ['section'], { names: 'sections' }),
            word(','),
            choice('how its members meet', ['joints'], 'mitred_ring', [
              ['mitred_ring', stands ? 'rings mitred, legs under them' : 'corners mitred'],
              ['legs_through', stands ? 'legs through, rings and rails between' : 'corners butted'],
              ['open', 'joints left to other steps'],
            ]),
          ]),
      word(', at'),
      ...place(writer, ['at'], 'corner'),
      word(','),
      choice('how it lies', ['lies'], 'flat', LIES),
      word('.'),
    ];
  },
  changes: ({ get }) =>
    get(['section']) === undefined
      ? [
          {
            words: 'with its section on',
            sets: [[['section'], 'SHS 50x50x3']],
          },
        ]
      : [
          {
            words: 'as bare centre lines',
            sets: [
              [['section'], undefined],
              [['sizes_to'], undefined],
              [['joints'], undefined],
            ],
          },
        ],
});
