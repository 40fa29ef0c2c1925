import { describe, expect, it } from 'vitest';
import type { Operation, Piece } from '../api/client';
import { merge } from './merge';

const step = (name: string, depth = '80 mm'): Operation => ({
  name,
  do: { lay_down: { shape: { rectangle: { width: 'A', depth } } } },
});

const piece = (steps: Operation[], more: Partial<Piece> = {}): Piece => ({
  steelk: 1,
  kind: 'sheet',
  mark: 'X-1',
  title: 'first',
  quantity: 1,
  unit: 'mm',
  stock: { material: 'S275', thickness: '3 mm' },
  callouts: [{ name: 'A', value: '60 mm' }],
  operations: steps,
  ...more,
});

const names = (one: Piece | null) => (one?.operations ?? []).map((own) => own.name);

describe('two windows', () => {
  const base = piece([step('a'), step('b'), step('c')]);

  it('keep both changes where they do not touch', () => {
    const mine = piece([step('a', '90 mm'), step('b'), step('new'), step('c')], { quantity: 4 });
    const theirs = piece([step('a'), step('c', '70 mm'), step('last')], { title: 'other' });
    const { both, differences } = merge(base, mine, theirs);
    expect(names(both)).toEqual(['a', 'new', 'c', 'last']);
    expect([both?.quantity, both?.title]).toEqual([4, 'other']);
    expect(both?.operations?.[0]).toEqual(step('a', '90 mm'));
    expect(both?.operations?.[2]).toEqual(step('c', '70 mm'));
    expect(differences.map((one) => [one.what, one.mine, one.theirs])).toEqual([
      ['title', '', 'changed'],
      ['quantity', 'changed', ''],
      ['step a', 'changed', ''],
      ['step b', '', 'deleted'],
      ['step c', '', 'changed'],
      ['step new', 'added', ''],
      ['step last', '', 'added'],
    ]);
  });

  it('are not put together where both changed one thing', () => {
    const cases: [Piece, Piece][] = [
      [piece([step('a', '1'), step('b'), step('c')]), piece([step('a', '2'), step('b'), step('c')])],
      // Deleted here, changed there.
      [piece([step('b'), step('c')]), piece([step('a', '2'), step('b'), step('c')])],
      [piece([step('a'), step('c'), step('b')]), piece([step('b'), step('a'), step('c')])],
      [piece(base.operations ?? [], { title: 'x' }), piece(base.operations ?? [], { title: 'y' })],
    ];
    for (const [mine, theirs] of cases) {
      const { both, differences } = merge(base, mine, theirs);
      expect(both).toBeNull();
      expect(differences.filter((one) => one.touches)).toHaveLength(1);
    }
  });

  it('that did the same have nothing to say to each other', () => {
    const mine = piece([step('a', '9 mm'), step('b'), step('c')]);
    expect(merge(base, mine, structuredClone(mine)).both).toEqual(mine);
  });

  // Over every pair of a few changes: one that changed nothing gives way, and who asks first is of no matter.
  it('obey the laws of merging', () => {
    const [a, b, c] = [step('a'), step('b'), step('c')];
    const ways: Piece[] = [
      base,
      piece([a, b]),
      piece([step('a', '5 mm'), b, c]),
      piece([a, b, c, step('d')]),
      piece([c, a, b]),
      piece([a, b, c], { callouts: [] }),
      piece([a, b, c], { grain: 'along_x' }),
    ];
    for (const mine of ways) {
      expect(merge(base, mine, base).both).toEqual(mine);
      expect(merge(base, base, mine).both).toEqual(mine);
      for (const theirs of ways) {
        const [one, two] = [merge(base, mine, theirs), merge(base, theirs, mine)];
        expect(one.both === null).toBe(two.both === null);
        if (one.both) {
          expect(new Set(names(one.both))).toEqual(new Set(names(two.both)));
          const again = merge(base, one.both, theirs);
          expect(again.both).toEqual(one.both);
        }
      }
    }
  });
});
