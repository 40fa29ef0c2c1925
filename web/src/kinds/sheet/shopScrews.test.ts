import { beforeEach, expect, test, vi } from 'vitest';
import type { Piece } from '../../api/client';

const insert = {
  head: 'flat',
  size: 'Insert 5',
  diameter: 9.4,
  height: 1.2,
  angle: 100,
  counterbore: null,
  source: '',
};
const stud = {
  head: 'socket',
  size: 'Stud 6',
  diameter: 10,
  height: 6,
  angle: null,
  counterbore: [11.5, 7],
  source: '',
};
const asked: string[] = [];
let list: unknown[] | 'unreachable' = [];

beforeEach(() => {
  vi.resetModules();
  asked.length = 0;
  list = [insert, stud];
  vi.stubGlobal('fetch', (request: Request) => {
    asked.push(new URL(request.url).pathname);
    if (list === 'unreachable') return Promise.reject(new TypeError('no server'));
    return Promise.resolve(Response.json({ version: 1, screws: list }));
  });
});

const piece = (head: object) =>
  ({
    kind: 'plate',
    operations: [
      { name: 'base', do: { base: {} } },
      { name: 'hole', note: 'kept', do: { drill: { panel: 'base', diameter: '5.5 mm', ...head } } },
    ],
  }) as unknown as Piece;
const run = async (given: Piece) => (await import('./shopScrews')).withShopScrews(given);

test("a screw of the shop's is taken over by its numbers, and nothing else is touched", async () => {
  expect(await run(piece({ countersink: { screw: ' insert 5' } }))).toEqual(
    piece({ countersink: { diameter: '9.4 mm', angle: '100 deg' } }),
  );
  expect(await run(piece({ counterbore: { screw: 'STUD 6' } }))).toEqual(
    piece({ counterbore: { diameter: '11.5 mm', depth: '7 mm' } }),
  );
});

test('a screw of the standards, the wrong head, or a shop that cannot be asked leave the piece as it is', async () => {
  for (const head of [{ countersink: { screw: 'M5' } }, { countersink: { screw: 'Stud 6' } }]) {
    const given = piece(head);
    expect(await run(given)).toBe(given);
  }
  vi.resetModules();
  list = 'unreachable';
  const given = piece({ countersink: { screw: 'Insert 5' } });
  expect(await run(given)).toBe(given);
});

test('a piece without such a head does not ask the shop', async () => {
  const given = piece({ countersink: { diameter: '18 mm' } });
  expect(await run(given)).toBe(given);
  expect(asked).toEqual([]);
});
