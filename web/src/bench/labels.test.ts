import { expect, it } from 'vitest';
import { layOut, meet, ringed, type Rect, type Wanted } from './labels';

const ROOM: Rect = { x: 0, y: 0, width: 400, height: 300 };

/** Whether two boxes share a point of a fine raster: another way to say that they meet. */
function share(one: Rect, two: Rect): boolean {
  for (let x = Math.ceil(one.x * 2) / 2 + 0.25; x < one.x + one.width; x += 0.5)
    for (let y = Math.ceil(one.y * 2) / 2 + 0.25; y < one.y + one.height; y += 0.5)
      if (x > two.x && x < two.x + two.width && y > two.y && y < two.y + two.height) return true;
  return false;
}

it('puts no label on another, on a hole or out of the room, whatever there is', () => {
  let seed = 7;
  const dice = (most: number) => {
    seed = (seed * 1103515245 + 12345) % 2147483648;
    return (seed / 2147483648) * most;
  };
  let placed = 0;
  for (let round = 0; round < 200; round += 1) {
    const taken = Array.from({ length: 12 }, (): Rect => {
      const size = 4 + dice(40);
      return { x: dice(400), y: dice(300), width: size, height: size };
    });
    const wanted = Array.from({ length: 20 }, (_, at): Wanted => {
      const [width, height] = [20 + dice(60), 14];
      return { rank: at % 3, width, height, at: ringed([dice(400), dice(300)], width, height, [4, 14, 30]) };
    });
    const found = layOut(wanted, taken, ROOM);
    const boxes = found.flatMap((place, at) => {
      const { width, height } = wanted[at]!;
      return place ? [{ x: place[0] - width / 2, y: place[1] - height / 2, width, height }] : [];
    });
    placed += boxes.length;
    boxes.forEach((one, at) => {
      expect(one.x >= 0 && one.y >= 0 && one.x + one.width <= 400 && one.y + one.height <= 300).toBe(true);
      for (const other of [...taken, ...boxes.slice(at + 1)]) expect(share(one, other)).toBe(false);
    });
  }
  // Most find a place.
  expect(placed / 4000).toBeGreaterThan(0.7);
});

it('lets the more important one stay where it would, and the other give way', () => {
  const label = (rank: number): Wanted => ({ rank, width: 50, height: 14, at: [[100, 100]] });
  expect(layOut([label(2), label(1)], [], ROOM)).toEqual([null, [100, 100]]);
  expect(
    layOut(
      [
        {
          ...label(2),
          at: [
            [100, 100],
            [100, 120],
          ],
        },
        label(1),
      ],
      [],
      ROOM,
    ),
  ).toEqual([
    [100, 120],
    [100, 100],
  ]);
});

it('lets a balloon lie in its own hole and in no other', () => {
  const hole: Rect = { x: 80, y: 80, width: 40, height: 40 };
  const balloon: Wanted = { rank: 1, width: 14, height: 14, at: [[100, 100]], on: 0 };
  expect(layOut([balloon], [hole], ROOM)).toEqual([[100, 100]]);
  expect(layOut([balloon], [{ ...hole, x: 300 }, hole], ROOM)).toEqual([null]);
});

it('shows what must be shown', () => {
  const wall: Rect = { ...ROOM };
  expect(layOut([{ rank: 0, width: 10, height: 10, at: [[50, 50]], always: true }], [wall], ROOM)).toEqual([[50, 50]]);
  expect(meet({ x: 0, y: 0, width: 10, height: 10 }, { x: 10, y: 0, width: 10, height: 10 })).toBe(false);
});
