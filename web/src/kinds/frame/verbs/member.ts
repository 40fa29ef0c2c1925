// A section on lines.
import type { Piece } from '../../../api/client';
import { at, operations } from '../../../bench/edit';
import { word, type Change, type Part, type Way } from '../../../bench/parts';
import { verb, type ActionOf } from '../../verb';
import { maybe, names, tagged } from '../common';

const ALIGN: Way[] = [
  ['centre', 'its middle on the line'],
  ['centroid', 'its centroid on the line'],
  ['top', 'its top on the line'],
  ['bottom', 'its bottom on the line'],
  ['left', 'its left on the line'],
  ['right', 'its right on the line'],
  ['top_left', 'its top left corner on the line'],
  ['top_right', 'its top right corner on the line'],
  ['bottom_left', 'its bottom left corner on the line'],
  ['bottom_right', 'its bottom right corner on the line'],
];

/** A letter for marks that no other group has, so that they read as a shop writes them: M1, not MEMBERS1. */
function freeLetter(piece: Piece): string | undefined {
  const taken = new Set(operations(piece).map((one) => at(one, ['do', 'member', 'mark'])));
  return ['M', 'N', 'Q', 'V', 'W'].find((letter) => !taken.has(letter));
}

export const MEMBER = verb<'member'>({
  key: 'member',
  phrases: [
    {
      verb: 'put',
      words: 'a section, on lines',
      example: 'put SHS 50x50x3, on table',
      read: (parts, piece) => {
        const [one] = parts;
        const lines = names(tagged(parts, 'on'));
        // Named after the lines: table.leg* gives legs.
        const stem = /\.([a-z][a-z-]*)/.exec(lines[0] ?? '')?.[1]?.replace(/-+$/, '');
        return one && lines.length > 0
          ? {
              stem: stem ? `${stem}s` : 'members',
              action: { member: { section: one, lines, ...(stem ? {} : { mark: freeLetter(piece) }) } },
            }
          : undefined;
      },
    },
  ],
  sentence: (writer, { operation }) => {
    const { value, choice, get } = writer;
    return [
      word('Put', true),
      value('section', ['section'], { names: 'sections' }),
      word('on'),
      value('lines', ['lines'], { names: 'lines3', list: true }),
      word(','),
      choice('what lies on the line', ['align'], 'centre', ALIGN),
      ...maybe(writer, 'rolled', 'roll', ['roll']),
      ...maybe(writer, 'across', 'offset across', ['across']),
      ...maybe(writer, 'up', 'offset up', ['up']),
      word('; marks'),
      value('letters of the marks', ['mark'], { ghost: operation.name.toUpperCase(), optional: true }),
      ...maybe(writer, 'material', 'material of the group', ['material'], { names: 'materials' }),
      ...maybe(writer, 'weldment', 'sub-weldment', ['weldment']),
      ...(get(['grip']) !== undefined ? [word(', grip'), value('grip', ['grip'])] : []),
      ...Object.keys((get(['columns']) as object | undefined) ?? {}).flatMap((name): Part[] => [
        word(`, ${name}`),
        value(name, ['columns', name], { optional: true }),
      ]),
      word('.'),
    ];
  },
  changes: ({ get }) => {
    const list: Change<ActionOf<'member'>>[] = [];

    if (get(['grip']) === undefined) list.push({ words: 'with a grip allowance', sets: [[['grip'], '100 mm']] });
    for (const name of ['part number', 'finish'])
      if (get(['columns', name]) === undefined)
        list.push({ words: `with a column: ${name}`, sets: [[['columns', name], '—']] });

    return list;
  },
});
