import { describe, expect, it } from 'vitest';
import type { Piece } from '../api/client';
import { at, freshLetter, freshName, move, named, put } from './edit';
import { readPhrase } from './phrase';
import { fieldOf, sentence } from './sentence';

const piece: Piece = {
  steelk: 1,
  kind: 'sheet',
  mark: 'X-1',
  title: '',
  quantity: 1,
  unit: 'mm',
  stock: { material: 'S275', thickness: 'A/20' },
  bending: { radius: '3 mm' },
  callouts: [
    { name: 'A', value: '60 mm', measure: { leg: { bend: 'up', to: 'outside' } } },
    { name: 'AB', value: 'A + AB1', measure: { distance: { from: 'bore', to: 'up.end' } } },
  ],
  operations: [
    { name: 'base', do: { lay_down: { shape: { rectangle: { width: 'A', depth: '80 mm' } } } } },
    { name: 'up', do: { bend: { edge: 'base.back', angle: '90 deg', leg: 'A - 2*T' } } },
    {
      name: 'bore',
      do: {
        drill: { panel: 'up', diameter: '5 mm', place: { from: [{ edge: 'up.mould-outside', distance: 'A/2' }] } },
      },
    },
  ],
};

describe('editing a document', () => {
  it('sets and takes out fields without touching the old document', () => {
    const before = JSON.stringify(piece);
    const next = put(piece, ['operations', 1, 'do', 'bend', 'set_in', 'left'], '5 mm');
    expect(at(next, ['operations', 1, 'do', 'bend', 'set_in', 'left'])).toBe('5 mm');
    expect(
      at(put(next, ['operations', 1, 'do', 'bend', 'set_in'], undefined), ['operations', 1, 'do', 'bend']),
    ).toEqual(at(piece, ['operations', 1, 'do', 'bend']));
    expect(JSON.stringify(piece)).toBe(before);
  });

  it('moves operations and finds free names', () => {
    expect(move(piece, 'bore', -1).operations?.map((one) => one.name)).toEqual(['base', 'bore', 'up']);
    expect(freshName(piece, 'bore')).toBe('bore-2');
    expect(freshLetter(piece)).toBe('B');
  });
});

describe('typed operations', () => {
  it('reads a bend with everything said', () => {
    const read = readPhrase(
      '/bend base.front, A/2, 45 deg, down, inside, beyond, radius 4 mm, set in 5 mm at left, relief',
      piece,
    );
    expect(read).toEqual({
      operation: {
        name: 'flange',
        do: {
          bend: {
            edge: 'base.front',
            leg: 'A/2',
            angle: '45 deg',
            direction: 'down',
            leg_to: 'inside',
            position: 'bend_outside',
            radius: '4 mm',
            set_in: { left: '5 mm' },
            relief: { shape: 'rectangular' },
          },
        },
      },
    });
  });

  it('reads holes placed and repeated', () => {
    const read = readPhrase('drill up, 9 mm, from up.end 20 mm, 2 off A/3, 3 off 10 mm along up.left', piece);
    expect(read).toEqual({
      operation: {
        name: 'hole',
        do: {
          drill: {
            panel: 'up',
            diameter: '9 mm',
            place: { from: [{ edge: 'up.end', distance: '20 mm' }] },
            repeat: [
              { count: '2', spacing: 'A/3' },
              { count: '3', spacing: '10 mm', along: 'up.left' },
            ],
          },
        },
      },
    });
  });

  it('says what is missing', () => {
    expect(readPhrase('fold it', piece)).toHaveProperty('fault');
    expect(readPhrase('cut up, 9 mm', piece)).toHaveProperty('fault');
    expect(readPhrase('drill up, 9 mm, nowhere', piece)).toHaveProperty('fault');
  });
});

describe('entries by name', () => {
  it('are found wherever they stand by now, and refused where they are gone', () => {
    const path = ['operations', named('bore'), 'do', 'drill', 'diameter'];
    // Another change was first: what stood before it is gone.
    const shorter = { ...piece, operations: piece.operations?.slice(1) };
    expect(at(shorter, path)).toBe('5 mm');
    const next = put(shorter, path, '6 mm');
    expect(at(next, path)).toBe('6 mm');
    expect(next.operations?.map((one) => one.name)).toEqual(['up', 'bore']);
    expect(next.operations?.[0]).toEqual(piece.operations?.[1]);
    const gone = { ...piece, operations: piece.operations?.slice(0, 2) };
    expect(at(gone, path)).toBeUndefined();
    expect(() => put(gone, path, '6 mm')).toThrow('bore is no longer there.');
    expect(() => move(gone, 'bore', 1)).toThrow('bore is no longer there.');
    expect(put(piece, ['operations', named('up')], undefined).operations?.map((one) => one.name)).toEqual([
      'base',
      'bore',
    ]);
  });
});

describe('sentences', () => {
  it('carry every value of an operation, with the path that the server names', () => {
    const bore = piece.operations?.[2];
    if (!bore) throw new Error('no operation');
    const values = sentence(piece, bore, []).flatMap((part) =>
      part.kind === 'value' ? [[fieldOf(part.path), part.text]] : [],
    );
    expect(values).toEqual([
      ['diameter', '5 mm'],
      ['panel', 'up'],
      ['place.from.0.distance', 'A/2'],
      ['place.from.0.edge', 'up.mould-outside'],
    ]);
  });
});
