// An end cut in its own way.
import { keyOf, puts, word, type Part } from '../../../bench/parts';
import { verb } from '../../verb';
import { AXES, ENDS, names, tagged } from '../common';

export const END = verb<'end'>({
  key: 'end',
  phrases: [
    {
      verb: 'end',
      words:
        'members, start or finish, trim to … or extend to … or cope into … or square … or angle … or ' +
        'cap …; beyond keeps the other side',
      example: 'end brace, finish, trim to post',
      read: (parts) => {
        const [one] = parts;
        if (!one) return undefined;
        const at = parts.includes('start') ? 'start' : parts.includes('finish') ? 'finish' : undefined;
        const gap = tagged(parts, 'gap');
        const to = (tag: string) => names(tagged(parts, `${tag} to`));
        let how: object | undefined;
        if (to('trim').length > 0)
          how = {
            trim: { to: to('trim'), ...(gap ? { gap } : {}), ...(parts.includes('beyond') ? { beyond: true } : {}) },
          };
        else if (names(tagged(parts, 'cope into')).length > 0)
          how = { cope: { to: names(tagged(parts, 'cope into')), ...(gap ? { gap } : {}) } };
        else if (to('extend').length > 0) how = { extend: { to: to('extend'), ...(gap ? { gap } : {}) } };
        else if (tagged(parts, 'square')) how = { square: { by: tagged(parts, 'square') } };
        else if (tagged(parts, 'angle'))
          how = {
            angle: { angle: tagged(parts, 'angle'), ...(tagged(parts, 'tilt') ? { tilt: tagged(parts, 'tilt') } : {}) },
          };
        else if (tagged(parts, 'cap'))
          how = {
            cap: {
              thickness: tagged(parts, 'cap'),
              ...(tagged(parts, 'inset') ? { inset: tagged(parts, 'inset') } : {}),
            },
          };
        return how ? { stem: 'end', action: { end: { of: names(one), ...(at ? { at } : {}), how } } } : undefined;
      },
    },
  ],
  sentence: (writer) => {
    const { value, choice, whole, yes, get } = writer;
    const how = keyOf(get(['how']));
    const parts: Part[] = [
      word('Cut', true),
      choice('which end', ['at'], 'both', ENDS),
      word('of'),
      value('members', ['of'], { names: 'members', list: true }),
      whole('how the end is cut', ['how'], 'trim', [
        ['trim', 'back to', puts({ trim: { to: [] } })],
        ['extend', 'on to', puts({ extend: { to: [] } })],
        ['cope', 'into the outline of', puts({ cope: { to: [] } })],
        ['plane', 'by the plane square to', puts({ plane: { axis: 'z', at: '0 mm' } })],
        ['square', 'square', puts({ square: { by: '0 mm' } })],
        ['angle', 'at', puts({ angle: { angle: '30 deg' } })],
        ['cap', 'and cap it with', puts({ cap: { thickness: '3 mm' } })],
      ]),
    ];
    if (how === 'trim' || how === 'extend')
      parts.push(
        value('cut to', ['how', how, 'to'], { names: 'members', list: true }),
        word(','),
        yes('which face', ['how', how, 'far'], 'the near face', 'the far face'),
        ...(how === 'trim'
          ? [
              word(','),
              yes('which side is kept', ['how', how, 'beyond'], 'keeping this side', 'keeping what lies beyond'),
            ]
          : []),
        word(', gap'),
        value('gap', ['how', how, 'gap'], { ghost: '0', optional: true }),
      );
    if (how === 'cope')
      parts.push(
        value('fitted into', ['how', 'cope', 'to'], { names: 'members', list: true }),
        word(', gap'),
        value('gap', ['how', 'cope', 'gap'], { ghost: '0', optional: true }),
      );
    if (how === 'plane')
      parts.push(
        choice('axis', ['how', 'plane', 'axis'], 'z', AXES),
        word('at'),
        value('plane', ['how', 'plane', 'at'], { ghost: '0', optional: true }),
        word(','),
        yes('which side is kept', ['how', 'plane', 'beyond'], 'keeping this side', 'keeping what lies beyond'),
        word(','),
        yes('whether it grows', ['how', 'plane', 'grows'], 'never longer', 'made longer too'),
      );
    if (how === 'square')
      parts.push(
        value('beyond the node', ['how', 'square', 'by'], { ghost: '0', optional: true }),
        word('beyond the node'),
      );
    if (how === 'angle')
      parts.push(
        value('angle', ['how', 'angle', 'angle']),
        word('from square, tilted'),
        value('tilt', ['how', 'angle', 'tilt'], { ghost: '0 deg', optional: true }),
      );
    if (how === 'cap')
      parts.push(
        value('thickness', ['how', 'cap', 'thickness']),
        word(', inside the tube with a clearance of'),
        value('inset clearance', ['how', 'cap', 'inset'], { ghost: 'over the end', optional: true }),
      );
    return [...parts, word('.')];
  },
});
