import { describe, expect, it } from 'vitest';
import type { Operation, Piece } from '../../api/client';
import { changesOf } from '../../bench/sentence';
import { readHole } from './hole';
import { readCorner } from './verbs/corner';
import { readPhrase } from '../../bench/phrase';
import { sentence } from '../../bench/sentence';

const piece = { kind: 'sheet', operations: [] } as unknown as Piece;
const words = (operation: Operation) =>
  sentence(piece, operation, [])
    .map((part) =>
      part.kind === 'word'
        ? part.text
        : part.kind === 'choice'
          ? (part.options.find(([value]) => value === part.value)?.[1] ?? part.value)
          : part.text || part.ghost,
    )
    .join(' ')
    .replace(/ ([,.;:])/g, '$1');
const typed = (text: string): Operation => {
  const read = readPhrase(text, piece);
  if ('fault' in read) throw new Error(read.fault);
  return read.operation;
};

describe('a typed hole', () => {
  it('says back what was typed', () => {
    expect(words(typed('drill base, clearance M12 fine, circle 6 on 120 mm from 30 deg'))).toBe(
      'Drill a clearance hole for M12 fine through base, 6 on a circle of 120 mm, the first at 30 deg, in the middle.',
    );
    expect(words(typed('drill base, tapped M8 9 mm deep, blind 11 mm, below, marked, 2 off H'))).toBe(
      'Drill and tap M8, 9 mm of thread, 11 mm deep into base, from below, the cutter marks its ' +
        'centre, 2 in a row, H apart, in the middle.',
    );
    expect(words(typed('drill base, 5 mm, along base.front 15 mm pitch 20 mm inset 10 mm'))).toBe(
      'Drill 5 mm through base, in a row along base.front, 15 mm from it, at most 20 mm apart, ends 10 mm in.',
    );
    expect(words(typed('drill hood.rim-front, 9 mm, rim 12 mm from the outer edge spaces 6 with corners'))).toBe(
      'Drill 9 mm through hood.rim-front, in a row along the rim, 12 mm from the outer edge with 6 equal spaces from ' +
        'corner to corner and holes at the corners.',
    );
    expect(words(typed('drill hood.rim-front, 9 mm, rim 12 mm pitch 80 mm'))).toBe(
      "Drill 9 mm through hood.rim-front, in a row along the rim, 12 mm from the opening's edge with holes at most " +
        '80 mm apart from corner to corner and none at the corners.',
    );
    expect(words(typed('drill base, 4x Ø9, 15 from the edges'))).toBe(
      'Drill Ø9 through base, at the four corners, 15 from the edges (at a bend from its outside).',
    );
    expect(words(typed('drill base, dia 9, 4x 15 x 20 from the edges'))).toBe(
      'Drill dia 9 through base, at the four corners, 15 from left and right, 20 from the others (at a bend from its ' +
        'outside).',
    );
    expect(words(typed('drill base, 6x clearance M8, circle on 120'))).toBe(
      'Drill a clearance hole for M8 medium through base, 6 on a circle of 120, the first at 0 deg, in the middle.',
    );
    expect(() => typed('drill base, 4x Ø9')).toThrow('4x says how many and not where');
    expect(() => typed('drill base, 6x Ø9, 15 from the edges')).toThrow('A panel has four corners, and 6x is said');
    expect(() => typed('drill base, 4x Ø9, circle 6 on 120')).toThrow('4x is said, and 6 on the circle');
    expect(words(typed('cut base, slot 10 x 30 overall'))).toBe(
      'Cut a slot 30 overall, 10 wide, through base, in the middle.',
    );
    expect(() => typed('cut base, slot 30 x 10 overall')).toThrow('is wider than long');
    expect(words(typed('cut base, 40 x 12, radius R3'))).toBe('Cut 40 by 12, corners R3, through base, in the middle.');
    expect(words(typed('drill base, countersunk for #8, punched'))).toBe(
      'Drill a clearance hole for its screw through base, countersunk for #8, the cutter leaves it to the punch, ' +
        'in the middle.',
    );
    expect(words(typed('drill base, 6 mm, counterbored M5'))).toBe(
      'Drill 6 mm through base, counterbored for M5, in the middle.',
    );
    expect(words(typed('drill base, 1/4 in, countersunk for 1/4'))).toBe(
      'Drill 1/4 in through base, countersunk for 1/4, in the middle.',
    );
    expect(words(typed('cut base, keyhole for M5 with washer'))).toBe(
      'Cut a keyhole for M5 with a washer, travel so that it bears whole, through base, in the middle.',
    );
    expect(() => typed('cut base, keyhole for M5 with nail')).toThrow('"nail" is no head');
    expect(words(typed('drill base, C, fill square D margin 14 mm, without 2 5'))).toBe(
      'Drill C through base, filling it in squares at D, margin 14 mm, place 2, 5 left out.',
    );
    expect(
      words(typed('drill base, 4.8 mm, countersunk 8 mm, from base.left 9 mm, from base.front 9 mm, mirrored both')),
    ).toBe(
      'Drill 4.8 mm through base, countersunk to 8 mm at 90 deg, 9 mm from base.left and 9 mm from ' +
        'base.front, mirrored both ways.',
    );
    expect(words(typed('cut base, slot 30 mm between centres by 12 mm, turned 30 deg'))).toBe(
      'Cut a slot 30 mm between centres, 12 mm wide, turned 30 deg, through base, in the middle.',
    );
    expect(words(typed('cut base, keyhole 16 mm by 8 mm by 20 mm'))).toBe(
      'Cut a keyhole, head 16 mm, slot 8 mm, travel 20 mm, through base, in the middle.',
    );
    expect(words(typed('corner base, front/right, back/right, chamfer 12 mm at 30 deg'))).toBe(
      'Chamfer the corners front/right and back/right of base, 12 mm at 30 deg.',
    );
    expect(words(typed('corner base, round G'))).toBe('Round every corner of base, radius G.');
  });

  it('asks how a slot is measured and says what its length is', () => {
    expect(readPhrase('cut base, slot 10 mm by 30 mm', piece)).toMatchObject({
      fault: expect.stringContaining('overall or between') as string,
    });
    expect(readHole('cut', ['base', 'slot 30 mm overall by 10 mm'])).toMatchObject({
      slot: { length: '30 mm', width: '10 mm', length_is: 'overall' },
    });
    expect(readHole('cut', ['base', 'slot 20 mm between centres by 10 mm'])).toMatchObject({
      slot: { length: '20 mm', width: '10 mm' },
    });
  });

  it('names what it does not understand', () => {
    expect(readHole('drill', ['base', '9 mm', 'somewhere'])).toContain('"somewhere"');
    expect(readCorner(['base', 'bite 3 mm!'])).toContain('"bite 3 mm!"');
    expect(readPhrase('corner base, front/right', piece)).toMatchObject({
      fault: expect.stringContaining('what is done') as string,
    });
    expect(readPhrase('cut base, 40 mm', piece)).toMatchObject({ fault: expect.stringContaining('needs') as string });
  });
});

describe('shapes', () => {
  it('are typed by name and sizes', () => {
    expect(words(typed('lay down 120 mm, 80 mm'))).toBe('Lay down a rectangle 120 mm by 80 mm.');
    expect(words(typed('lay down lug, 140 mm, 80 mm, 42 mm, 34 mm'))).toBe(
      'Lay down a lug on a foot of 140 mm, hole 34 mm 80 mm up, crown radius 42 mm.',
    );
    expect(words(typed('lay down eared, 76 mm, 2, 110 mm, 16 mm'))).toContain(
      '2 ears on a circle of 110 mm, ear radius 16 mm, holes none.',
    );
    expect(words(typed('lay down outline'))).toBe('Lay down a drawn outline of 4 corners, 0 things said of it.');
    expect(readPhrase('lay down ring, 80 mm', piece)).toHaveProperty('fault');
  });
});

describe('what can be added to a hole', () => {
  const plain = typed('drill base, 9 mm, from base.front 20 mm');
  const named = (operation: Operation, label: string) =>
    changesOf({ kind: 'sheet' }, operation, { edges: ['base.front', 'base.left'], holes: ['hole', 'bore'] }).find(
      (one) => one.words === label,
    );

  it('replaces one size by another, and takes back what was added', () => {
    expect(named(plain, 'tapped thread')?.sets).toEqual([
      [['diameter'], undefined],
      [['tapped'], { thread: 'M8' }],
    ]);
    expect(named(plain, 'plain diameter')).toBeUndefined();
    expect(named(plain, 'countersink')?.sets).toEqual([[['countersink'], { diameter: '18 mm' }]]);
    const bolted = typed('drill base, clearance M8');
    expect(named(bolted, 'countersink')?.sets).toEqual([[['countersink'], { screw: 'M8' }]]);
    const sunk = typed('drill base, countersunk for M8');
    expect(named(sunk, 'countersink by its numbers')?.sets).toEqual([
      [['clearance'], { bolt: 'M8' }],
      [['countersink'], { diameter: '18 mm' }],
    ]);
    // Without its screw it would have no size at all.
    expect(named(sunk, 'no countersink')).toBeUndefined();
    expect(named(typed('drill base, 9 mm, countersunk 18 mm'), 'no countersink')?.sets).toEqual([
      [['countersink'], undefined],
    ]);
  });

  it('places holes as drawings do', () => {
    const hole = (...parts: string[]) => readHole('drill', ['base', '9 mm', ...parts]);
    expect(hole('from front 20 mm')).toMatchObject({ place: { from: [{ edge: 'base.front', distance: '20 mm' }] } });
    expect(hole('20 mm from the left', '3 1/8 in from back')).toMatchObject({
      place: {
        from: [
          { edge: 'base.left', distance: '20 mm' },
          { edge: 'base.back', distance: '3 1/8 in' },
        ],
      },
    });
    // A bend is measured from its outside.
    expect(hole('20 mm from upright')).toMatchObject({ place: { from: [{ edge: 'upright.mould-outside' }] } });
    expect(hole('from base.front 12 mm to its far side')).toMatchObject({ place: { from: [{ to: 'far' }] } });
    expect(hole('from base.front 12 mm to its centre')).toEqual(hole('from base.front 12 mm'));
    expect(hole('3 off 40 mm clear')).toMatchObject({
      repeat: [{ count: '3', spacing: '40 mm', spacing_is: 'clear' }],
    });
    expect(hole('4x along base.front 15 mm inset 20 mm and 35 mm')).toMatchObject({
      pattern: { along: { count: '4', distance: '15 mm', inset: '20 mm', last_inset: '35 mm' } },
    });
    expect(hole('3 by 2', '15 mm x 10 mm from the edges')).toMatchObject({
      pattern: { between: { columns: '3', rows: '2', distance: '15 mm', other: '10 mm' } },
    });
    expect(hole('5x', '3 by 2', '15 mm from the edges')).toContain('3 by 2 makes 6');
    expect(hole('3 by 2')).toContain('from the edges');
    expect(hole('in the middle of base.edge-2')).toMatchObject({ place: { round: { edge: 'base.edge-2' } } });
    expect(hole('in the middle of base.edge-2 18 mm in')).toMatchObject({ place: { round: { distance: '18 mm' } } });
    expect(hole('over the edge')).toMatchObject({ reach: 'open' });
  });

  it('answers what it did not understand with the values that were typed', () => {
    expect(readHole('drill', ['base', '9 mm', '12 mm form front'])).toContain('Say "from base.front 12 mm"');
    expect(readHole('drill', ['base', '9 mm', '12 mm form left'])).toContain('Say "from base.left 12 mm"');
    expect(readHole('drill', ['base', 'clearence M12'])).toContain('"clearence M12" is not understood');
    expect(readHole('drill', ['hood.lower-rim-front', '5.5 mm', 'rim 14 mm'])).toBe(
      '"rim 14 mm" is not understood. Say "rim 14 mm from the opening spaces 6".',
    );
    expect(readPhrase('bend base.back, 42 mm', { kind: 'sheet', operations: [] } as never)).toBeDefined();
  });

  it('offers a second distance, another hole, a pattern instead of rows', () => {
    expect(named(plain, '+ distance')?.sets[0]?.[1]).toMatchObject({
      from: [{ edge: 'base.front' }, { edge: 'base.left' }],
    });
    expect(named(plain, 'from another hole')?.sets[0]?.[1]).toMatchObject({ hole: { hole: 'bore' } });
    expect(named(plain, 'on a circle')?.sets[0]).toEqual([['repeat'], undefined]);
    expect(named(typed('drill base, 9 mm, circle 6 on 60 mm'), 'a single one')?.sets).toEqual([
      [['pattern'], undefined],
    ]);
  });
});

describe('a typed form', () => {
  it('says back what was typed', () => {
    expect(words(typed('press wall, louvre 60 mm by 16 mm by 6 mm, from wall.end 20 mm, 4 at 30 mm'))).toBe(
      'Press a louvre 60 mm by 16 mm, 6 mm high, ends at 60 deg, open away from its edge, ' +
        'out of the upper face of wall, 4 in a row, 30 mm apart, 20 mm from wall.end, on the centre line.',
    );
    expect(words(typed('press base, louvre 60 mm by 16 mm by 6 mm toward, below'))).toContain(
      'open toward its edge, out of the lower face of base, in the middle.',
    );
    expect(words(typed('press base, bead 80 mm by 12 mm by 3 mm, turned 30 deg'))).toBe(
      'Press a bead 80 mm by 12 mm, 3 mm high, sides at 45 deg, turned 30 deg ' +
        'out of the upper face of base, in the middle.',
    );
    expect(words(typed('press base, dimple 20 mm by 3 mm'))).toContain('a dimple 20 mm wide, 3 mm high');
    expect(words(typed('press base, knock-out 20.5 mm, below'))).toContain(
      'a knock-out 20.5 mm wide, pushed half of the sheet out of the lower face of base',
    );
    expect(words(typed('press base, extruded for M8 by 2 mm'))).toContain(
      'an extruded hole for M8, its collar 2 mm high',
    );
  });

  it('says what it does not understand', () => {
    const read = readPhrase('press base, louver 60 by 16', piece);
    expect('fault' in read && read.fault).toContain('louver 60 by 16');
  });

  it('becomes another form in one click, and keeps its place', () => {
    const operation = typed('press base, dimple 20 mm by 3 mm, from base.left 30 mm');
    const changes = changesOf(piece, operation, { edges: ['base.left'], holes: [] });
    const change = changes.find((one) => one.words === 'a bead');
    expect(change?.sets).toEqual([[['shape'], { bead: { length: '60 mm', width: '14 mm', height: '3 mm' } }]]);
    const all = changes.map((one) => one.words);
    expect(all).not.toContain('a dimple');
    expect(all.some((one) => one.includes('in the flat'))).toBe(false);
  });
});
