// Slots for tabs.
import { word } from '../../../bench/parts';
import { verb } from '../../verb';
import { fieldsOf } from '../common';

export const SLOTS = verb<'slots'>({
  key: 'slots',
  phrases: [
    {
      verb: 'slots',
      words: 'the tabs, the panel that they go through, clear …',
      example: 'slots tabs, front, clear 0.2 mm',
      read: (parts) => {
        const { rest } = fieldsOf(parts);
        const [one, two] = rest;
        const clearance = rest.map((part) => /^(?:clear|clearance)\s+(.+)$/.exec(part)?.[1]).find(Boolean) ?? '0.2 mm';
        if (!one || !two) return undefined;
        return { stem: 'slots', action: { slots: { tabs: one, panel: two, clearance } } };
      },
    },
  ],
  sentence: (writer) => {
    const { value } = writer;
    return [
      word('Cut slots', true),
      word('in'),
      value('panel', ['panel'], { names: 'panels' }),
      word('for the tabs'),
      value('tabs', ['tabs'], { names: 'operations' }),
      word(', clear by'),
      value('clearance', ['clearance']),
      word('all round.'),
    ];
  },
});
