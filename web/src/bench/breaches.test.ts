import { describe, expect, it } from 'vitest';
import type { BuildAnswer } from '../api/client';
import { brokenIn, countOf, grouped, stands } from './breaches';

const breach = (rule: string, level: 'broken' | 'doubtful' | 'hint') =>
  ({ rule, level, message: rule, way_out: '', operations: [], features: [], why: {} }) as unknown;
const rule = (key: string, about: string) =>
  ({ rule: key, title: key, about, broken: 0, doubtful: 0, hints: 0 }) as never;

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
    expect(stands({ broken: 0, doubtful: 0, hints: 0 })).toBe('');
    expect(stands({ broken: 2, doubtful: 1, hints: 1 })).toBe('2 broken, 1 doubtful, 1 hint');
    expect(stands({ broken: 0, doubtful: 0, hints: 3 })).toBe('3 hints');
  });
});
