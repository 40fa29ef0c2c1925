import { expect, test } from 'vitest';
import { word, type Part } from './parts';
import { folded } from './usual';

const value = (label: string, text = ''): Part => ({ kind: 'value', path: [label], text, label, optional: true });
const read = (parts: Part[]) => parts.map((part) => (part.kind === 'word' ? part.text : part.label)).join(' ');
const empty = (part: Part) => part.kind === 'value' && part.text === '';

test('what stands as usual goes with the words that belong to it, before and after', () => {
  const bend = [word('Bend', true), value('edge', 'base.back'), word(', inside radius'), value('radius')];
  const set = [
    word(', set in'),
    value('right'),
    word('at right'),
    word(', set in'),
    value('left', '5'),
    word('at left'),
  ];
  expect(read(folded([...bend, ...set, word('.')], empty))).toBe('Bend edge , set in left at left .');
});

test('words that lead up to several values stay while one of them is shown', () => {
  const line = (x: string) => [word('Lines', true), word('from'), value('node'), value('x', x), word('.')];
  expect(read(folded(line('5'), empty))).toBe('Lines from x .');
  expect(read(folded(line(''), empty))).toBe('Lines .');
  const apart = [word('Lines', true), word('from'), value('node'), word('x'), value('across', '5'), word('.')];
  expect(read(folded(apart, empty))).toBe('Lines from x across .');
  const cut = [word('with'), value('relief', 'square'), value('width'), word('wide,'), value('depth'), word('deep.')];
  expect(read(folded(cut, empty))).toBe('with relief deep.');
});

test('a verb is never folded away', () => {
  expect(read(folded([word('Mitre', true), value('members')], empty))).toBe('Mitre');
});
