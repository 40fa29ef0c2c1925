import { describe, expect, it } from 'vitest';
import type { BuildAnswer, Operation, Piece } from '../../api/client';
import { putBy } from '../../bench/parts';
import { READY } from './verbs/ready';
import { FRAME_VERBS } from './verbs';
import { readPhrase } from '../../bench/phrase';
import { changesOf, sentence } from '../../bench/sentence';
import { kindOfPiece } from '..';

const frame = {
  steelk: 1,
  kind: 'frame',
  mark: 'FR-1',
  title: '',
  quantity: 1,
  unit: 'mm',
  stock: { material: 'S275' },
  operations: [],
} as unknown as Piece;
const read = (text: string) => {
  const found = readPhrase(text, frame);
  return 'operation' in found ? found.operation : found.fault;
};
const readJoint = (parts: string[]) =>
  FRAME_VERBS.flatMap((one) => one.phrases)
    .find((one) => one.verb === 'joint')
    ?.read(parts, frame);
const words = (operation: Operation) =>
  sentence(frame, operation, [])
    .map((part) =>
      part.kind === 'word' ? part.text : part.kind === 'value' ? part.text || part.ghost || '' : part.value,
    )
    .join(' ');

describe('frame work typed in a line', () => {
  it('names words of a joint that it does not understand', () => {
    expect(readJoint(['corners', 'mitre', 'nicely'])).toContain('"nicely"');
    expect(readJoint(['corners', 'mitre between rails and ring', 'gap 1 mm'])).toMatchObject({
      action: { joint: { how: { mitre: { between: ['rails', 'ring'], gap: '1 mm' } } } },
    });
  });

  it('reads every example of its own help, and says it in a sentence', () => {
    for (const phrase of FRAME_VERBS.flatMap((one) => one.phrases)) {
      const operation = read(phrase.example);
      expect(typeof operation, `${phrase.example}: ${JSON.stringify(operation)}`).toBe('object');
      expect(words(operation as Operation).length).toBeGreaterThan(10);
    }
  });
  it('lays ready frames by their sizes in order', () => {
    expect(read('frame flat truss, 4 m, 600 mm, 6, across')).toMatchObject({
      do: { ready: { kind: 'flat_truss', lies: 'across', sizes: { length: '4 m', height: '600 mm', bays: '6' } } },
    });
    expect(read('frame a-frame, 900 mm, 1200 mm, bar 400 mm')).toMatchObject({
      do: { ready: { kind: 'a_frame', sizes: { width: '900 mm', height: '1200 mm', bar: '400 mm' } } },
    });
    expect(read('frame table, 900 mm')).toContain('needs width, depth, height');
    expect(read('frame sofa, 900 mm')).toContain('A frame is one of');
    expect(Object.keys(READY)).toHaveLength(9);
  });
  it('goes from node to node', () => {
    expect(read('line from post.n2, x 600 mm, then z -200 mm')).toMatchObject({
      do: { path: { start: { from: 'post.n2' }, legs: [{ by: { x: '600 mm' } }, { by: { z: '-200 mm' } }] } },
    });
    expect(read('line from a.n1, to b.n2')).toMatchObject({
      do: { path: { legs: [{ to: { place: { from: 'b.n2' } } }] } },
    });
    expect(read('line from a.n1')).toContain('line needs');
  });
  it('puts sections on lines and names the group after them', () => {
    expect(read('put SHS 40x40x3, on table.leg*')).toMatchObject({
      name: 'legs',
      do: { member: { section: 'SHS 40x40x3', lines: ['table.leg*'] } },
    });
    expect(read('put SHS 40x40x3, on table and posts')).toMatchObject({
      name: 'members',
      do: { member: { lines: ['table', 'posts'] } },
    });
    expect(read('put SHS 40x40x3')).toContain('put needs');
  });
  it('settles joints and cuts ends', () => {
    expect(read('joint corners, butt through legs rails, gap 2 mm')).toMatchObject({
      do: { joint: { at: 'corners', how: { butt: { through: ['legs', 'rails'], gap: '2 mm' } } } },
    });
    expect(read('joint a.n1 a.n2, mitre')).toMatchObject({
      do: { joint: { at: { nodes: ['a.n1', 'a.n2'] }, how: { mitre: {} } } },
    });
    expect(read('end brace, finish, trim to post')).toMatchObject({
      do: { end: { of: ['brace'], at: 'finish', how: { trim: { to: ['post'] } } } },
    });
    expect(read('end brace, angle 30 deg, tilt 10 deg')).toMatchObject({
      do: { end: { how: { angle: { angle: '30 deg', tilt: '10 deg' } } } },
    });
    expect(read('end brace')).toContain('end needs');
    expect(read('joint tees, cope, gap 1 mm')).toMatchObject({
      do: { joint: { at: 'tees', how: { cope: { gap: '1 mm' } } } },
    });
    expect(read('end rail, finish, cope into runner, gap 2 mm')).toMatchObject({
      do: { end: { of: ['rail'], at: 'finish', how: { cope: { to: ['runner'], gap: '2 mm' } } } },
    });
    expect(read('end rail, start, trim to post, beyond')).toMatchObject({
      do: { end: { how: { trim: { to: ['post'], beyond: true } } } },
    });
  });
  it('notches and slots ends', () => {
    expect(read('notch rail, finish, bottom, 20 mm, 30 mm')).toMatchObject({
      do: { end_notch: { of: ['rail'], at: 'finish', face: 'bottom', depth: '20 mm', length: '30 mm' } },
    });
    const slot = read('slot brace, start, left, 8 mm, 60 mm, deep 12 mm, off 5 mm') as Operation;
    expect(slot).toMatchObject({
      do: {
        end_notch: {
          of: ['brace'],
          at: 'start',
          face: 'left',
          width: '8 mm',
          length: '60 mm',
          depth: '12 mm',
          off: '5 mm',
        },
      },
    });
    expect(words(slot)).toBe(
      'Slot start of brace from the left 8 mm wide beside the middle 5 mm , 12 mm deep and 60 mm long.',
    );
    expect(read('notch rail, finish, top, 20 mm')).toContain('notch needs');
    expect(changesOf(frame, slot, { edges: [], holes: [] })[0]?.words).toContain('a notch over the whole face');
    expect(
      changesOf(frame, read('notch rail, top, 20 mm, 30 mm') as Operation, { edges: [], holes: [] })[0]?.words,
    ).toContain('a slot for a plate');
  });
  it('refuses sheet work by its own words', () => {
    expect(read('bend base.back, 60 mm')).toContain('Start with one of');
    expect(kindOfPiece(frame).verbs).toBe(FRAME_VERBS);
    expect(read('nothing at all')).toContain('Start with one of');
  });
});

describe('frame work in sentences', () => {
  const path = read('line from post.n2, x 600 mm') as Operation;
  it('offers what can be added', () => {
    expect(changesOf(frame, path, { edges: [], holes: [] }).map((one) => one.words)).toEqual([
      '+ line',
      '+ arc',
      'close it',
    ]);
    expect(
      changesOf(frame, read('put SHS 40x40x3, on a') as Operation, { edges: [], holes: [] }).map((one) => one.words),
    ).toContain('with a grip allowance');
  });
  it('says only the axes that are given, and keeps a place for the others', () => {
    expect(words(path)).toBe('Lines from post.n2 x y z ; line 1 by x 600 mm y z .');
    const labels = sentence(frame, path, []).flatMap((part) => (part.kind === 'value' ? [part.label] : []));
    expect(labels).toEqual([
      'start from',
      'start x',
      'start y',
      'start z',
      'name of line 1',
      'x of line 1',
      'y of line 1',
      'z of line 1',
    ]);
  });
  it('puts a whole field or a yes or no by what is chosen, and not by its words', () => {
    const put = (operation: Operation, label: string, key: string) => {
      const part = sentence(frame, operation, []).find((one) => one.kind === 'choice' && one.label === label);
      return part?.kind === 'choice' ? putBy(part.options, key) : 'no such choice';
    };
    const joint = read('joint all, mitre') as Operation;
    expect(words(joint)).toContain('mitre');
    expect(put(joint, 'how they meet', 'butt')).toEqual({ butt: {} });
    expect(put(joint, 'where the joint is', 'tees')).toBe('tees');
    // The server takes a true here, and no text that says so.
    const end = read('end brace, finish, trim to post') as Operation;
    expect(put(end, 'which side is kept', 'true')).toBe(true);
    expect(put(end, 'which side is kept', '')).toBeUndefined();
    expect(put(end, 'which end', 'start')).toBe('start');
    expect(put(end, 'how the end is cut', 'square')).toEqual({ square: { by: '0 mm' } });
  });
});

describe('picking', () => {
  const answer = {
    names: {
      pieces: ['table.leg', 'table.leg-1', 'foot'],
      made_by: { 'table.leg-1.drain-2': 'drain' },
    },
  } as unknown as BuildAnswer;
  it('takes the piece that a face is of, and a hole by itself', () => {
    const { pick } = kindOfPiece(frame).stage;
    expect(pick(answer, 'table.leg-1.top')).toBe('table.leg-1');
    expect(pick(answer, 'table.leg.inside-left')).toBe('table.leg');
    expect(pick(answer, 'foot.base.top')).toBe('foot');
    expect(pick(answer, 'table.leg-1.drain-2')).toBe('table.leg-1.drain-2');
  });
});
