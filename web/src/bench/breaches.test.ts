import { describe, expect, it } from 'vitest';
import type { BuildAnswer, Piece } from '../api/client';
import { wrongPlaces } from '../kinds/sheet/wrong';
import {
  acceptedIn,
  accepting,
  askingAgain,
  brokenIn,
  countOf,
  dayOf,
  grouped,
  stands,
  summed,
  type Breach,
} from './breaches';

const breach = (rule: string, level: 'broken' | 'doubtful' | 'hint') =>
  ({ rule, level, message: rule, way_out: '', operations: [], features: [], why: {} }) as unknown;
const rule = (key: string, about: string) =>
  ({ rule: key, title: key, about, broken: 0, doubtful: 0, hints: 0, accepted: 0 }) as never;

describe('rules that do not hold', () => {
  const answer = {
    breaches: [breach('a', 'broken'), breach('b', 'hint'), breach('c', 'doubtful'), breach('d', 'hint')],
  } as unknown as BuildAnswer;

  it('are faults only where they are broken', () => {
    expect(brokenIn(answer).map((one) => one.rule)).toEqual(['a']);
    expect([countOf(answer, 'broken'), countOf(answer, 'doubtful'), countOf(answer, 'hint')]).toEqual([1, 1, 2]);
  });

  it('are told by what they are about, each once', () => {
    const groups = grouped([rule('radius', 'bends'), rule('sheet', 'stock'), rule('leg', 'bends')]);
    expect(groups.map((one) => [one.words, one.rules.map((own) => own.rule)])).toEqual([
      ['Bends', ['radius', 'leg']],
      ['Stock and machines', ['sheet']],
    ]);
  });

  it('stand in words', () => {
    expect(stands({ broken: 0, doubtful: 0, hints: 0, accepted: 0 })).toBe('');
    expect(stands({ broken: 2, doubtful: 1, hints: 1, accepted: 3 })).toBe('2 broken, 3 accepted, 1 doubtful, 1 hint');
    expect(stands({ broken: 0, doubtful: 0, hints: 3, accepted: 0 })).toBe('3 hints');
  });

  it('are summed over a group', () => {
    const one = { broken: 1, doubtful: 0, hints: 2, accepted: 1 };
    expect(summed([one, one, { broken: 0, doubtful: 1, hints: 0, accepted: 0 }])).toEqual({
      broken: 2,
      doubtful: 1,
      hints: 4,
      accepted: 2,
    });
  });
});

describe('what is accepted', () => {
  const words = { reason: 'tried on a sample', by: 'A. Smith', on: '2026-11-29' };
  const near = { rule: 'hole_to_bend', level: 'broken', message: 'bore is 0.039 in too near up', features: ['bore'] };
  const one = { ...near, said: 'bore is 1 mm too near up' } as unknown as Breach;
  const other = { ...near, message: 'hole is 2 mm too near up', features: ['hole'] } as unknown as Breach;
  const piece = { mark: 'P1' } as unknown as Piece;

  it("is kept in the piece's own unit, once a place, and can be asked again", () => {
    const now = accepting(accepting(piece, [one, other], words), [one], { ...words, reason: 'twice' });
    expect(now.accepted?.map((own) => [own.said, own.reason])).toEqual([
      ['hole is 2 mm too near up', 'tried on a sample'],
      ['bore is 1 mm too near up', 'twice'],
    ]);
    expect(askingAgain(now, one).accepted?.map((own) => own.said)).toEqual(['hole is 2 mm too near up']);
    expect(piece).toEqual({ mark: 'P1' });
  });

  it('is no fault any more, and is marked only where it is chosen', () => {
    const answered = { breaches: [{ ...one, accepted: words }, other] } as unknown as BuildAnswer;
    expect(brokenIn(answered)).toEqual([other]);
    expect(acceptedIn(answered)).toHaveLength(1);
    const at = (name: string, x: number) => ({ name, label: { x, y: 0 } });
    const blank = {
      panels: [at('up', 9)],
      edges: [],
      holes: [at('bore', 1), at('hole', 2)],
      bends: [
        {
          name: 'up',
          line: [
            { x: 4, y: 0 },
            { x: 6, y: 2 },
          ],
        },
      ],
    } as unknown as NonNullable<BuildAnswer['blank']>;
    const signs = (features: string[], breach?: string) =>
      wrongPlaces(blank, answered.breaches, { features, ...(breach ? { breach } : {}) }).map((one) => one.name);
    expect(signs([])).toEqual(['hole']);
    expect(signs(['bore'])).toEqual(['hole']);
    expect(signs(['bore', 'up'], 'bore is 0.039 in too near up')).toEqual(['bore', 'up', 'hole']);
    // A flange has its bend's name: the sign stands on the bend.
    const [, up] = wrongPlaces(blank, [], { features: ['bore', 'up.bend.left'], breach: 'chosen' });
    expect(up).toEqual({ name: 'up.bend.left', x: 5, y: 1 });
  });

  it('has the day of this machine', () => {
    expect(dayOf(new Date(2026, 0, 5, 23, 59))).toBe('2026-01-05');
  });
});
