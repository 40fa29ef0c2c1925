import { describe, expect, it } from 'vitest';
import type { BuildAnswer, Operation, Piece } from '../../api/client';
import { changesOf } from '../../bench/sentence';
import { differences } from '../../bench/differences';
import { readPhrase } from '../../bench/phrase';
import { sentence } from '../../bench/sentence';
import type { Part } from '../../bench/parts';
import { readSet } from '../../bench/Variants';

const piece = { kind: 'sheet', operations: [] } as unknown as Piece;
const read = (line: string) => {
  const found = readPhrase(line, piece);
  return 'operation' in found ? found.operation.do : found.fault;
};
const said = (operation: unknown, sides: string[] = []) =>
  sentence(piece, operation as Operation, sides)
    .map((part: Part) =>
      part.kind === 'word'
        ? part.text
        : part.kind === 'value'
          ? part.text || part.ghost || ''
          : (part.options.find(([key]) => key === part.value)?.[1] ?? ''),
    )
    .join(' ');

describe('typed lines of bent work', () => {
  it('reads a profile with its turns, arcs and sizes', () => {
    expect(
      read('profile 15 mm, 90 deg, 40 mm, round 20 mm through 90 deg, 30 mm, wide 200 mm, inside, centred'),
    ).toEqual({
      profile: {
        legs: [
          { line: { length: '15 mm' } },
          { line: { length: '40 mm', turn: '90 deg' } },
          { arc: { radius: '20 mm', sweep: '90 deg' } },
          { line: { length: '30 mm' } },
        ],
        width: '200 mm',
        width_from: 'centre',
        sizes: 'inside',
      },
    });
    expect(read('profile 15 mm, 90 deg, 40 mm')).toContain('profile needs');
  });
  it('reads two outlines, one of them round or a point, and says rims and tabs back', () => {
    const lower = { rectangle: { width: '300 mm', depth: '200 mm' } };
    expect(read('transition 300 mm by 200 mm, circle 150 mm, 180 mm')).toEqual({
      transition: { lower, upper: { circle: { diameter: '150 mm' } }, height: '180 mm' },
    });
    expect(read('transition 300 mm by 200 mm, point, 180 mm')).toEqual({
      transition: { lower, apex: true, height: '180 mm' },
    });
    const words = said({
      name: 'hood',
      do: {
        transition: {
          lower,
          apex: true,
          height: '180 mm',
          flanges: [{ width: '25 mm', along: ['front'], full: true }],
          tabs: [{ along: ['left/front'], width: '12 mm', held: 'rivets' }],
        },
      },
    });
    expect(words).toContain('to a point at a height of 180 mm');
    expect(words).toContain('25 mm wide outward over the full width along front');
    expect(words).toContain('tabs 12 mm wide along left/front , ends clipped at 45 deg');
    expect(words).toContain('riveted');
  });
  it('offers the next rim flanges where a rim has none', () => {
    const next = (flanges: unknown) => {
      const lower = { rectangle: { width: '300 mm', depth: '200 mm' } };
      const transition = { lower, upper: lower, height: '180 mm', flanges };
      const operation = { name: 'hood', do: { transition } } as unknown as Operation;
      const [, list] =
        changesOf(piece, operation, { edges: [], holes: [] }).find((one) => one.words === '+ rim flanges')?.sets[0] ??
        [];
      return (list as unknown[]).at(-1);
    };
    expect(next(undefined)).toEqual({ end: 'lower', width: '25 mm' });
    expect(next([{ end: 'lower', width: '25 mm', along: ['front', 'back'], full: true }])).toEqual({
      end: 'lower',
      width: '25 mm',
      along: ['right', 'left'],
    });
    expect(next([{ width: '25 mm' }])).toEqual({ end: 'upper', width: '25 mm' });
  });
  it('reads rolls and tubes', () => {
    expect(read('roll radius 300 mm, 120 deg, wide 200 mm, lead in 40 mm')).toEqual({
      roll: { width: '200 mm', radius: '300 mm', span: { angle: '120 deg' }, lead_in: '40 mm' },
    });
    expect(read('roll radius 30 mm, outside, tube 2 mm, wide 1 m')).toEqual({
      roll: { width: '1 m', radius: '30 mm', to: 'outside', span: { tube: '2 mm' } },
    });
  });
  it('reads flanges on several edges, by another panel, up to something', () => {
    expect(read('bend base.front base.left, 40 mm, 90 deg, closed 0.5 mm')).toEqual({
      bend: {
        edge: 'base.front',
        also: ['base.left'],
        leg: '40 mm',
        angle: '90 deg',
        corners: { closed: { gap: '0.5 mm' } },
      },
    });
    expect(read('bend slope.end, 20 mm, parallel to base, down')).toEqual({
      bend: { edge: 'slope.end', leg: '20 mm', stands: { parallel: 'base' }, direction: 'down' },
    });
    expect(read('bend base.front, up to lid.bottom less 1 mm')).toEqual({
      bend: { edge: 'base.front', angle: '90 deg', up_to: { feature: 'lid.bottom', gap: '1 mm' } },
    });
  });
  it('reads hems, joggles, lines, notches, tabs, slots, mirrors and repeats', () => {
    expect(read('hem base.back, open 2 mm, 12 mm, down')).toEqual({
      hem: { edge: 'base.back', style: { open: { length: '12 mm', gap: '2 mm' } }, direction: 'down' },
    });
    expect(read('hem base.back, teardrop, 14 mm, radius 3 mm')).toEqual({
      hem: { edge: 'base.back', style: { teardrop: { length: '14 mm', radius: '3 mm' } } },
    });
    expect(read('joggle base.back, 12 mm, leg 25 mm, 45 deg')).toEqual({
      joggle: { edge: 'base.back', offset: '12 mm', leg: '25 mm', angle: '45 deg' },
    });
    expect(read('crease base, 30 mm from base.back, 60 deg, down')).toEqual({
      crease: { panel: 'base', distance: '30 mm', edge: 'base.back', angle: '60 deg', direction: 'down' },
    });
    expect(read('notch base.front, vee 12 mm by 8 mm, 2 off 40 mm')).toEqual({
      notch: { edge: 'base.front', shape: { vee: { width: '12 mm', depth: '8 mm' } }, count: '2', spacing: '40 mm' },
    });
    expect(read('tab lid.end, 12 mm by 4 mm, at 20 mm')).toEqual({
      tab: { edge: 'lid.end', width: '12 mm', height: '4 mm', at: '20 mm' },
    });
    expect(read('slots tabs, front, clear 0.3 mm')).toEqual({
      slots: { tabs: 'tabs', panel: 'front', clearance: '0.3 mm' },
    });
    expect(read('mirror lip, eye, about base along y')).toEqual({
      again: { of: ['lip', 'eye'], how: { mirror: { panel: 'base', along: 'y' } } },
    });
    expect(read('repeat hole, 4 off 25 mm')).toEqual({
      again: { of: ['hole'], how: { shift: { count: '4', x: '25 mm' } } },
    });
    for (const line of [
      'hem base.back, folded',
      'joggle base.back',
      'crease base',
      'notch base.front',
      'tab lid.end',
      'slots tabs',
      'mirror lip',
      'repeat hole',
      'roll 30 mm',
    ])
      expect(read(line), line).toContain('needs');
  });
});

describe('sentences of bent work', () => {
  it('say what was typed, in order', () => {
    expect(
      said({ name: 'x', do: { hem: { edge: 'base.back', style: { open: { length: '9 mm', gap: '1 mm' } } } } }, [
        'left',
      ]),
    ).toContain('Hem base.back up , open , 9 mm long over all , gap 1 mm');
    expect(
      said({
        name: 'x',
        do: {
          bend: {
            edge: 'base.front',
            also: ['base.left', 'base.right'],
            angle: '90 deg',
            leg: '40 mm',
            corners: { mitred: { gap: '0.5 mm', relief: { round: '4 mm' } } },
          },
        },
      }),
    ).toContain('and base.left, base.right , corners mitred with a gap of 0.5 mm with a round relief of 4 mm');
    expect(said({ name: 'x', do: { again: { of: ['lip', 'eye'], how: { mirror: { panel: 'base' } } } } })).toContain(
      'Mirror lip, eye across the middle of base',
    );
    expect(
      said({
        name: 'x',
        do: {
          profile: {
            legs: [{ line: { length: '40 mm', name: 'web' } }, { arc: { radius: '9 mm', sweep: '90 deg' } }],
            width: '1 m',
          },
        },
      }),
    ).toContain(': web 40 mm ; round leg-2 radius 9 mm through 90 deg , sizes outside');
  });
  it('offer what can be changed', () => {
    const bend = {
      name: 'up',
      do: { bend: { edge: 'base.front', angle: '90 deg', leg: '40 mm' } },
    } as unknown as Operation;
    const all = changesOf(piece, bend, { edges: ['base.front', 'base.left', 'base.right', 'lid.end'], holes: [] });
    expect(all.map((one) => one.words)).toContain('+ base.left');
    expect(all.find((one) => one.words === 'along every edge of the panel')?.sets).toEqual([
      [['also'], ['base.left', 'base.right']],
    ]);
    expect(all.find((one) => one.words === 'its leg as far as something')?.sets).toEqual([
      [['leg'], undefined],
      [['up_to'], { feature: 'lid.end' }],
    ]);
  });
});

it('reads the call-outs that a variant changes', () => {
  expect(readSet('A = 150 mm, B=2*A')).toEqual({ A: '150 mm', B: '2*A' });
  expect(readSet('nonsense')).toBeUndefined();
});

it('tells what a change of stock did', () => {
  const answer = (mass: string, verdict: string, broken: number, error?: string) =>
    ({
      figures: [{ key: 'mass', label: 'mass', text: mass }],
      blank: { bends: [{ name: 'up', allowance: mass }] },
      callouts: [{ name: 'A', verdict, measured_text: '1 mm', off_by: '' }],
      rules: [{ rule: 'r', title: 'Least leg', broken }],
      findings: error ? [{ severity: 'error', message: error }] : [],
    }) as unknown as BuildAnswer;
  expect(differences(answer('1 kg', 'holds', 0), answer('2 kg', 'off', 1, 'too short'))).toEqual([
    'mass: 1 kg → 2 kg',
    'bend up: allowance 1 kg → 2 kg',
    'call-out A: holds → off',
    'Least leg: held → 1 broken',
    'new: too short',
  ]);
  expect(differences(answer('1 kg', 'holds', 0), answer('1 kg', 'holds', 0))).toEqual([]);
});

describe('a typed line is said back in its sentence', () => {
  const back = (line: string, sides: string[] = []) => {
    const found = readPhrase(line, piece);
    if ('fault' in found) throw new Error(found.fault);
    return said(found.operation, sides).replace(/ ([,.;:])/g, '$1');
  };
  it.each([
    [
      'roll radius 300 mm, 120 deg, lead in 40 mm, wide 200 mm',
      'Roll up to a radius of 300 mm inside, through 120 deg, lead in 40 mm and out 0, width 200 mm ' +
        'to one side, blank by the middle of the metal.',
    ],
    [
      'roll radius 30 mm, outside, tube 2 mm, wide 1 m, centred',
      'Roll up to a radius of 30 mm outside, a whole tube, its seam open by 2 mm, width 1 m half to ' +
        'each side, blank by the middle of the metal.',
    ],
    [
      'joggle base.back, 12 mm, leg 25 mm, 45 deg, down',
      'Joggle base.back down by 12 mm at 45 deg, leg 25 mm past it, bend outside the edge, inside ' +
        "radius R, no relief, blank by the piece's way.",
    ],
    [
      'crease base, 30 mm from base.back, 60 deg',
      'Bend base up 60 deg along a line 30 mm from base.back, turned 0 deg; the part toward that ' +
        "edge moves, the line its middle, inside radius R, blank by the piece's way.",
    ],
    [
      'notch base.front, vee 12 mm by 8 mm, 2 off 40 mm',
      'Notch base.front with a vee 12 mm wide, 8 mm deep, inner corners sharp, the first at the middle, ' +
        '2 in a row, 40 mm apart.',
    ],
    [
      'tab lid.end, 12 mm by 4 mm, at 20 mm',
      'Put tabs on lid.end, 12 mm wide, 4 mm high, the first at 20 mm, 1 in a row, evenly apart.',
    ],
    ['slots tabs, front, clear 0.3 mm', 'Cut slots in front for the tabs tabs, clear by 0.3 mm all round.'],
    ['mirror lip, eye, about base along y', 'Mirror lip, eye across the middle of base to the other side along y.'],
    [
      'notch base.front, square 12 mm by 8 mm, corner 2 mm',
      'Notch base.front with a square notch 12 mm wide, 8 mm deep, inner corners 2 mm, the first at the middle, ' +
        '1 in a row, evenly apart.',
    ],
    [
      'rib wall, 25 mm by 30 mm, wide 12 mm, round, 3 at 60 mm, from left 40 mm',
      'Press a rib with a round ridge 12 mm wide across wall, from 25 mm on the panel to 30 mm on the flange, ' +
        'sides leaning 15 deg, edges sharp, 3 of them, 60 mm apart, the first 40 mm to its middle from left, ' +
        'the last alike from the other end.',
    ],
    [
      'rib wall, 20 mm and 45 deg, wide 12 mm',
      'Press a rib with a flat ridge 12 mm wide across wall, from 20 mm on the panel at 45 deg to it, ' +
        'sides leaning 15 deg, edges sharp, 1 of them, evenly apart, the first in the middle.',
    ],
    ['repeat hole, 4 off 25 mm', 'Repeat hole, 4 in all, each 25 mm along x and 0 along y.'],
  ])('%s', (line, words) => expect(back(line)).toBe(words));
  it('of a hem in each of its kinds', () => {
    expect(back('hem base.back, closed, 10 mm', ['left'])).toContain(
      'Hem base.back up, closed, 10 mm long over all, material inside the edge, set in 0 at left, no relief',
    );
    expect(back('hem base.back, teardrop, 14 mm, radius 3 mm')).toContain(
      'as a teardrop, 14 mm long over all, inside radius 3 mm',
    );
    expect(back('hem base.back, rolled, radius 3 mm')).toContain('rolled to an inside radius of 3 mm through 270 deg');
  });
  it('of a flange by another panel and as far as something', () => {
    expect(back('bend slope.end, 20 mm, parallel to base, down')).toContain(
      'Bend down until parallel to base along slope.end, leg 20 mm outside',
    );
    expect(back('bend base.front, up to lid.bottom less 1 mm')).toContain(
      'along base.front, as far as lid.bottom less 1 mm',
    );
    expect(back('bend base.front, 40 mm, 120 deg, included')).toContain('Bend up 120 deg included along base.front');
    expect(back('bend base.front base.left, 40 mm, 90 deg, overlapped 0.3 mm')).toContain(
      'and base.left, corners overlapped, the first named over with a gap of 0.3 mm',
    );
  });
  it('of holes on more panels and through everything', () => {
    const hole = (more: object) =>
      said({ name: 'x', do: { drill: { panel: 'wall.front', diameter: '5 mm', ...more } } });
    expect(hole({ also: ['wall.left', 'wall.back'] })).toContain('through wall.front and wall.left, wall.back');
    expect(hole({ reach: 'through' })).toContain('straight through everything');
    expect(hole({ reach: 'flat' })).toContain('in the flat, across bends');
  });
  it('of curves of K, point by point', () => {
    expect(
      said({
        name: 'x',
        do: {
          bend: {
            edge: 'base.front',
            angle: '90 deg',
            leg: '40 mm',
            method: {
              k_curve: [
                { ratio: '1', k: '0.33' },
                { ratio: '2', k: '0.4' },
              ],
            },
          },
        },
      }),
    ).toContain('blank by K by R/T 1 : 0.33 ; 2 : 0.4');
  });
  it('of walls with numbers of their own', () => {
    expect(
      said({
        name: 'x',
        do: {
          bend: {
            edge: 'base.front',
            also: ['base.left'],
            angle: '90 deg',
            leg: '40 mm',
            own: { 'base.left': { leg: '25 mm' } },
          },
        },
      }),
    ).toContain('; base.left by the same angle leg 25 mm');
  });
});
