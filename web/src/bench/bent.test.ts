import { describe, expect, it } from 'vitest';
import type { BuildAnswer, Operation, Piece } from '../api/client';
import { bentChanges } from './bent';
import { differences } from './differences';
import { rename, renameCallout } from './edit';
import { readPhrase } from './phrase';
import { sentence, type Part } from './sentence';
import { readSet } from './Variants';

const piece = { operations: [] } as unknown as Piece;
const read = (line: string) => {
  const found = readPhrase(line, piece);
  return 'operation' in found ? found.operation.do : found.fault;
};
const said = (operation: unknown, sides: string[] = []) =>
  sentence(operation as Operation, sides)
    .map((part: Part) => (part.kind === 'word' ? part.text : part.kind === 'value' ? part.text || part.ghost || '' : (part.options.find(([key]) => key === part.value)?.[1] ?? '')))
    .join(' ');

describe('typed lines of bent work', () => {
  it('reads a profile with its turns, arcs and sizes', () => {
    expect(read('profile 15 mm, 90 deg, 40 mm, round 20 mm through 90 deg, 30 mm, wide 200 mm, inside, centred')).toEqual({
      profile: { legs: [{ line: { length: '15 mm' } }, { line: { length: '40 mm', turn: '90 deg' } }, { arc: { radius: '20 mm', sweep: '90 deg' } }, { line: { length: '30 mm' } }], width: '200 mm', width_from: 'centre', sizes: 'inside' },
    });
    expect(read('profile 15 mm, 90 deg, 40 mm')).toContain('profile needs');
  });
  it('reads rolls and tubes', () => {
    expect(read('roll radius 300 mm, 120 deg, wide 200 mm, lead in 40 mm')).toEqual({ roll: { width: '200 mm', radius: '300 mm', span: { angle: '120 deg' }, lead_in: '40 mm' } });
    expect(read('roll radius 30 mm, outside, tube 2 mm, wide 1 m')).toEqual({ roll: { width: '1 m', radius: '30 mm', to: 'outside', span: { tube: '2 mm' } } });
  });
  it('reads flanges on several edges, by another panel, up to something', () => {
    expect(read('bend base.front base.left, 40 mm, 90 deg, closed 0.5 mm')).toEqual({ bend: { edge: 'base.front', also: ['base.left'], leg: '40 mm', angle: '90 deg', corners: { closed: { gap: '0.5 mm' } } } });
    expect(read('bend slope.end, 20 mm, parallel to base, down')).toEqual({ bend: { edge: 'slope.end', leg: '20 mm', stands: { parallel: 'base' }, direction: 'down' } });
    expect(read('bend base.front, up to lid.bottom less 1 mm')).toEqual({ bend: { edge: 'base.front', angle: '90 deg', up_to: { feature: 'lid.bottom', gap: '1 mm' } } });
  });
  it('reads hems, joggles, lines, notches, tabs, slots, mirrors and repeats', () => {
    expect(read('hem base.back, open 2 mm, 12 mm, down')).toEqual({ hem: { edge: 'base.back', style: { open: { length: '12 mm', gap: '2 mm' } }, direction: 'down' } });
    expect(read('hem base.back, teardrop, 14 mm, radius 3 mm')).toEqual({ hem: { edge: 'base.back', style: { teardrop: { length: '14 mm', radius: '3 mm' } } } });
    expect(read('joggle base.back, 12 mm, leg 25 mm, 45 deg')).toEqual({ joggle: { edge: 'base.back', offset: '12 mm', leg: '25 mm', angle: '45 deg' } });
    expect(read('crease base, 30 mm from base.back, 60 deg, down')).toEqual({ crease: { panel: 'base', distance: '30 mm', edge: 'base.back', angle: '60 deg', direction: 'down' } });
    expect(read('notch base.front, vee 12 mm by 8 mm, 2 off 40 mm')).toEqual({ notch: { edge: 'base.front', shape: { vee: { width: '12 mm', depth: '8 mm' } }, count: '2', spacing: '40 mm' } });
    expect(read('tab lid.end, 12 mm by 4 mm, at 20 mm')).toEqual({ tab: { edge: 'lid.end', width: '12 mm', height: '4 mm', at: '20 mm' } });
    expect(read('slots tabs, front, clear 0.3 mm')).toEqual({ slots: { tabs: 'tabs', panel: 'front', clearance: '0.3 mm' } });
    expect(read('mirror lip, eye, about base along y')).toEqual({ again: { of: ['lip', 'eye'], how: { mirror: { panel: 'base', along: 'y' } } } });
    expect(read('repeat hole, 4 off 25 mm')).toEqual({ again: { of: ['hole'], how: { shift: { count: '4', x: '25 mm' } } } });
    for (const line of ['hem base.back, folded', 'joggle base.back', 'crease base', 'notch base.front', 'tab lid.end', 'slots tabs', 'mirror lip', 'repeat hole', 'roll 30 mm']) expect(read(line), line).toContain('needs');
  });
});

describe('sentences of bent work', () => {
  it('say what was typed, in order', () => {
    expect(said({ name: 'x', do: { hem: { edge: 'base.back', style: { open: { length: '9 mm', gap: '1 mm' } } } } }, ['left'])).toContain('Hem base.back up , open , 9 mm long over all , gap 1 mm');
    expect(said({ name: 'x', do: { bend: { edge: 'base.front', also: ['base.left', 'base.right'], angle: '90 deg', leg: '40 mm', corners: { mitred: { gap: '0.5 mm', relief: { round: '4 mm' } } } } } })).toContain('and base.left, base.right , corners mitred with a gap of 0.5 mm with a round relief of 4 mm');
    expect(said({ name: 'x', do: { again: { of: ['lip', 'eye'], how: { mirror: { panel: 'base' } } } } })).toContain('Mirror lip, eye across the middle of base');
    expect(said({ name: 'x', do: { profile: { legs: [{ line: { length: '40 mm', name: 'web' } }, { arc: { radius: '9 mm', sweep: '90 deg' } }], width: '1 m' } } })).toContain(': web 40 mm ; round leg-2 radius 9 mm through 90 deg , sizes outside');
  });
  it('offer what can be changed', () => {
    const bend = { name: 'up', do: { bend: { edge: 'base.front', angle: '90 deg', leg: '40 mm' } } } as unknown as Operation;
    const all = bentChanges(bend, 'bend', ['base.front', 'base.left', 'base.right', 'lid.end']);
    expect(all.map((one) => one.words)).toContain('+ base.left');
    expect(all.find((one) => one.words === 'along every edge of the panel')?.sets).toEqual([[['also'], ['base.left', 'base.right']]]);
    expect(all.find((one) => one.words === 'its leg as far as something')?.sets).toEqual([[['leg'], undefined], [['up_to'], { feature: 'lid.end' }]]);
  });
});

describe('names follow', () => {
  const named = {
    operations: [
      { name: 'lip', do: { bend: { edge: 'base.front', also: ['base.left'], stands: { square: 'base' }, leg: 'A', corners: { closed: { gap: '1 mm', relief: { square: 'A' } } } } } },
      { name: 'other', do: { again: { of: ['lip'], how: { mirror: { panel: 'base' } } } } },
    ],
    callouts: [{ name: 'A', value: '10 mm' }],
    stock: { thickness: '2 mm' },
    variants: [{ name: 'light', rest: ['lip'], set: { A: '20 mm' } }],
  } as unknown as Piece;
  it('of operations and panels, into lists and variants', () => {
    const first = rename(named, 'base', 'floor').operations?.[0]?.do as unknown as { bend: { also: string[]; stands: object } };
    expect(first.bend.also).toEqual(['floor.left']);
    expect(first.bend.stands).toEqual({ square: 'floor' });
    const next = rename(named, 'lip', 'rim');
    expect(next.operations?.[1]?.do).toEqual({ again: { of: ['rim'], how: { mirror: { panel: 'base' } } } });
    expect(next.variants?.[0]?.rest).toEqual(['rim']);
  });
  it('of call-outs, into reliefs and variants', () => {
    const next = renameCallout(named, 'A', 'Q');
    expect(JSON.stringify(next.operations?.[0]?.do)).toContain('"square":"Q"');
    expect(next.variants?.[0]?.set).toEqual({ Q: '20 mm' });
  });
});

it('reads the call-outs that a variant changes', () => {
  expect(readSet('A = 150 mm, B=2*A')).toEqual({ A: '150 mm', B: '2*A' });
  expect(readSet('nonsense')).toBeUndefined();
});

it('tells what a change of stock did', () => {
  const answer = (mass: string, verdict: string, broken: number, error?: string) =>
    ({ figures: [{ key: 'mass', label: 'mass', text: mass }], blank: { bends: [{ name: 'up', allowance: mass }] }, callouts: [{ name: 'A', verdict, measured_text: '1 mm', off_by: '' }], rules: [{ rule: 'r', title: 'Least leg', broken }], findings: error ? [{ severity: 'error', message: error }] : [] }) as unknown as BuildAnswer;
  expect(differences(answer('1 kg', 'holds', 0), answer('2 kg', 'off', 1, 'too short'))).toEqual(['mass: 1 kg → 2 kg', 'bend up: allowance 1 kg → 2 kg', 'call-out A: holds → off', 'Least leg: held → 1 broken', 'new: too short']);
  expect(differences(answer('1 kg', 'holds', 0), answer('1 kg', 'holds', 0))).toEqual([]);
});
