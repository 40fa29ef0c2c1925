import { describe, expect, it } from 'vitest';
import { clock, headAt, unpack } from './timeline';

const pack = (points: number[][]) => {
  const bytes = new Uint8Array(points.length * 16);
  const view = new DataView(bytes.buffer);
  points.flat().forEach((value, at) => view.setFloat32(at * 4, value, true));
  return btoa(String.fromCharCode(...bytes));
};

describe('the head over time', () => {
  const line = unpack(
    pack([
      [1, 10, 0, 0],
      [1.5, 10, 0, 2],
      [3.5, 10, -20, 1],
    ]),
  );
  it('goes from the zero, stands for a pierce, and cuts', () => {
    expect(line.seconds).toBeCloseTo(3.5);
    expect(headAt(line, 0.5)).toMatchObject({ x: 5, y: 0, state: 0, at: -1 });
    expect(headAt(line, 1.2)).toMatchObject({ x: 10, y: 0, state: 2, at: 0 });
    expect(headAt(line, 2.5)).toMatchObject({ x: 10, y: -10, state: 1, at: 1 });
  });
  it('stays where it ended', () => {
    expect(headAt(line, 99)).toMatchObject({ x: 10, y: -20, state: 0, at: 2 });
  });
  it('has nothing to do in an empty program', () => {
    expect(headAt(unpack(''), 1)).toMatchObject({ x: 0, y: 0, at: -1 });
  });
});

describe('time in words', () => {
  it('takes the unit that fits', () => {
    expect(clock(9.04)).toBe('9.0 s');
    expect(clock(89)).toBe('1 min 29 s');
    expect(clock(3723)).toBe('1 h 02 min 03 s');
  });
});
