import { beforeEach, expect, test, vi } from 'vitest';
import type { Piece } from '../../api/client';

const own = (name: string) => ({ name, outline: { rectangle: { width: '40 mm', depth: '20 mm' } } });
const asked: string[] = [];
let list: unknown[] | 'unreachable' = [];

beforeEach(() => {
  vi.resetModules();
  asked.length = 0;
  vi.stubGlobal('fetch', (request: Request) => {
    asked.push(new URL(request.url).pathname);
    if (list === 'unreachable') return Promise.reject(new TypeError('no server'));
    return Promise.resolve(Response.json({ version: 1, settings: { sections: list }, shown: [] }));
  });
});

const piece = (section: string, more: object = {}, outline?: object) =>
  ({
    kind: 'frame',
    operations: [{ name: 'rail', do: { member: { section, on: ['a'], ...(outline ? { outline } : {}) } } }],
    ...more,
  }) as unknown as Piece;

const run = async (given: Piece) => (await import('./shopSections')).withShopSections(given);

test('a section of the shop is taken into the piece that asks for it, whatever its letters', async () => {
  list = [own('Keel rail'), own('Other')];
  const made = await run(piece(' keel RAIL'));
  expect(made.frame?.sections).toEqual([own('Keel rail')]);
});

test('what the piece keeps stays as it is, and the shop is not asked', async () => {
  list = [own('Keel rail')];
  const given = piece('keel rail', { frame: { kerf: '2 mm', sections: [own('Keel rail')] } });
  expect(await run(given)).toBe(given);
  const drawn = piece('Keel rail', {}, { rectangle: {} });
  expect(await run(drawn)).toBe(drawn);
  expect(asked).toEqual([]);
});

test('a catalogue section, or a shop that cannot be asked, leaves the piece as it is', async () => {
  list = [own('Keel rail')];
  const given = piece('SHS 50x50x3', { frame: { kerf: '2 mm' } });
  expect(await run(given)).toBe(given);
  vi.resetModules();
  list = 'unreachable';
  const other = piece('Keel rail');
  expect(await run(other)).toBe(other);
});
