// A profile seen from its end.
import { at } from '../../../bench/edit';
import { word, type Change, type Part, type Writer } from '../../../bench/parts';
import { inside } from '../../../bench/paths';
import { verb, type ActionOf } from '../../verb';
import { fieldsOf, method, WIDTH } from '../common';

function legs({ value, get }: Writer<ActionOf<'profile'>>): Part[] {
  const list = (get(['legs']) as Record<string, unknown>[] | undefined) ?? [];
  return list.flatMap((leg, index): Part[] => {
    const form = Object.keys(leg)[0] ?? 'line';
    const own = (rest: string) => inside<ActionOf<'profile'>>(['legs', index], form, rest);
    const parts: Part[] = [word(index === 0 ? ':' : ';')];
    const turn =
      at(leg, [form, 'direction']) !== undefined
        ? [word('toward'), value(`direction of leg ${index + 1}`, own('direction'))]
        : index === 0
          ? []
          : [word('turned'), value(`turn of leg ${index + 1}`, own('turn'), { ghost: '0 deg', optional: true })];
    if (form === 'line')
      parts.push(
        ...turn,
        value(`name of leg ${index + 1}`, own('name'), { ghost: `leg-${index + 1}`, optional: true }),
        value(`length of leg ${index + 1}`, own('length')),
      );
    else if (form === 'arc')
      parts.push(
        word('round'),
        value(`name of leg ${index + 1}`, own('name'), { ghost: `leg-${index + 1}`, optional: true }),
        word('radius'),
        value(`radius of leg ${index + 1}`, own('radius')),
        word('through'),
        value(`sweep of leg ${index + 1}`, own('sweep')),
      );
    else
      parts.push(
        word('round past'),
        value(`across past of leg ${index + 1}`, own('through_x')),
        value(`up past of leg ${index + 1}`, own('through_y')),
        word('to'),
        value(`across of leg ${index + 1}`, own('x')),
        value(`up of leg ${index + 1}`, own('y')),
      );
    return parts;
  });
}

export const PROFILE = verb<'profile'>({
  key: 'profile',
  phrases: [
    {
      verb: 'profile',
      words:
        'lengths and turns in order, round radius through sweep, wide …, outside or inside or middle ' +
        'or metal left, centred',
      example: 'profile 40 mm, 90 deg, 100 mm, 90 deg, 40 mm, wide 200 mm',
      read: (parts) => {
        const { rest, fields } = fieldsOf(parts);
        const list: object[] = [];
        let turn: string | undefined;
        for (const part of rest) {
          const arc = /^round\s+(.+?)\s+through\s+(.+)$/.exec(part);
          if (['outside', 'inside', 'middle', 'metal left', 'metal right'].includes(part))
            fields.sizes = part.replace(' ', '_');
          else if (arc) list.push({ arc: { radius: arc[1], sweep: arc[2] } });
          else if (/(deg|rad|°)$/.test(part)) turn = part;
          else {
            list.push({ line: { length: part, ...(turn && list.length > 0 ? { turn } : {}) } });
            turn = undefined;
          }
        }
        if (list.length === 0 || !fields.width) return undefined;
        return { stem: 'profile', action: { profile: { legs: list, ...fields } } };
      },
    },
  ],
  sentence: (writer) => {
    const { value, choice } = writer;
    return [
      word('Lay down', true),
      word('a profile seen from its end'),
      ...legs(writer),
      word(', sizes'),
      choice('sizes of the profile', ['sizes'], 'outside', [
        ['outside', 'outside'],
        ['inside', 'inside'],
        ['middle', 'along the middle'],
        ['metal_left', 'along one face, metal to the left'],
        ['metal_right', 'along one face, metal to the right'],
      ]),
      word(', inside radius'),
      value('inside radius', ['radius'], { ghost: 'R', optional: true }),
      word(', width'),
      value('width', ['width']),
      choice('where the width lies', ['width_from'], 'side', WIDTH),
      word(','),
      value('leg that stays', ['stays'], { ghost: 'the longest leg', optional: true }),
      word('stays put'),
      ...method(writer),
      word('.'),
    ];
  },
  changes: ({ get }) => {
    const all: Change<ActionOf<'profile'>>[] = [];

    const list = (get(['legs']) as unknown[] | undefined) ?? [];
    all.push({ words: '+ straight leg', sets: [[['legs'], [...list, { line: { length: '40 mm', turn: '90 deg' } }]]] });
    all.push({ words: '+ round leg', sets: [[['legs'], [...list, { arc: { radius: '30 mm', sweep: '90 deg' } }]]] });
    if (list.length > 1) all.push({ words: '− last leg', sets: [[['legs'], list.slice(0, -1)]] });

    return all;
  },
});
