import { describe, expect, it } from 'vitest';
import { put, type Stamp } from './stamps';

/** Numbers that look drawn by lot and are the same each time. */
function lots(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state * 1664525 + 1013904223) % 4294967296;
    return state / 4294967296;
  };
}

/** A square from -1.5 to 1.5 about its place: a pixel is as dense as it is covered. */
const half = 1.5;
const square: Stamp = { x: -half, y: -half, width: 2 * half, height: 2 * half, draw: () => {} };
const covered = (from: number, to: number) => Math.max(0, Math.min(to, half) - Math.max(from, -half));
const density = (x: number, y: number) => Math.round(255 * covered(x, x + 1) * covered(y, y + 1));

describe('stamps', () => {
  it('cover what lies under them, to a quarter of a pixel, and nothing beside the picture', () => {
    const next = lots(7);
    for (let round = 0; round < 200; round += 1) {
      const [width, height] = [3 + Math.floor(next() * 20), 3 + Math.floor(next() * 20)];
      // Beyond every side too, and places that fall on whole pixels.
      const places = new Float32Array(
        Array.from({ length: 16 }, () => {
          const at = -5 + next() * 30;
          return next() < 0.3 ? Math.round(at) : at;
        }),
      );
      const picture = { data: new Uint8ClampedArray(width * height * 4), width, height };
      put(picture, square, places, (_, left, top, x, y) => {
        const [wide, high] = [left + 4, top + 4];
        const data = new Uint32Array(wide * high).map((_unused, at) => {
          const [column, row] = [at % wide, Math.floor(at / wide)];
          return density(column - left - x, row - top - y) * 2 ** 24;
        });
        return { data, wide, high };
      });
      for (let at = 0; at < width * height; at += 1) {
        let most = 0;
        for (let one = 0; one < places.length; one += 2) {
          const near = (value: number) => Math.round(value * 4) / 4;
          most = Math.max(
            most,
            density((at % width) - near(places[one]!), Math.floor(at / width) - near(places[one + 1]!)),
          );
        }
        expect(picture.data[at * 4 + 3]).toBe(most);
      }
    }
  });

  it('leave the picture alone where nothing can be drawn', () => {
    const picture = { data: new Uint8ClampedArray(16), width: 2, height: 2 };
    put(picture, square, new Float32Array([1, 1]), () => null);
    expect([...picture.data]).toEqual(Array.from({ length: 16 }, () => 0));
  });
});
