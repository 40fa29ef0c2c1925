import { beforeEach, describe, expect, it } from 'vitest';
import { countStale, isStale, noteTaken, useTaken } from './taken';

describe('files that were taken', () => {
  beforeEach(() => {
    localStorage.clear();
    useTaken.setState({ pieces: {} });
  });
  it('are stale once the piece has changed, saved or not', () => {
    noteTaken(7, 'frame/cutlist.pdf', 3);
    const files = useTaken.getState().pieces['7'];
    expect(countStale(files, 3, true)).toBe(0);
    expect(countStale(files, 3, false)).toBe(1);
    expect(countStale(files, 4, true)).toBe(1);
    expect(isStale(undefined, 4, false)).toBe(false);
    expect(countStale(useTaken.getState().pieces['8'], 1, true)).toBe(0);
  });
  it('are fresh again when taken again, each by itself', () => {
    noteTaken(7, 'a', 3);
    noteTaken(7, 'b', 4);
    expect(countStale(useTaken.getState().pieces['7'], 4, true)).toBe(1);
    noteTaken(7, 'a', 4);
    expect(countStale(useTaken.getState().pieces['7'], 4, true)).toBe(0);
  });
  it('are remembered, for no more pieces than can be kept', () => {
    for (let id = 1; id <= 230; id += 1) noteTaken(id, 'a', 1, new Date('2026-01-02T03:04:05Z'));
    const kept = JSON.parse(localStorage.getItem('steelk-taken') ?? '{}') as Record<
      string,
      Record<string, { version: number; at: string }>
    >;
    expect(Object.keys(kept)).toHaveLength(200);
    expect(kept['230']?.a).toEqual({ version: 1, at: '2026-01-02T03:04:05.000Z' });
    expect(kept['1']).toBeUndefined();
  });
});
