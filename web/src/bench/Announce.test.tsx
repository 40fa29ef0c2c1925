import { act, render, screen } from '@testing-library/react';
import { expect, test } from 'vitest';
import type { BuildAnswer } from '../api/client';
import { Announce, announced } from './Announce';
import { useBench, type BenchState } from './store';

const answer = (rules: string[], off: string[] = [], errors: string[] = []) =>
  ({
    findings: errors.map((message) => ({ severity: 'error', message })),
    breaches: rules.map((message) => ({ level: 'broken', rule: 'edge', features: [message], message })),
    callouts: off.map((name) => ({ name, verdict: 'off', off_by: '+2 mm' })),
  }) as unknown as BuildAnswer;

test('what broke is said, what holds again is counted, and nothing is said of what is as it was', () => {
  expect(announced(answer([]), answer([]))).toBe('');
  expect(announced(answer([]), answer(['hole too near'], ['A']))).toBe(
    'Broken: hole too near; call-out A is off by +2 mm.',
  );
  expect(announced(answer(['hole too near'], ['A']), answer(['hole too near']))).toBe('1 hold again, 1 do not.');
  expect(announced(answer(['one']), answer([]))).toBe('Everything holds.');
  expect(announced(answer(['one']), answer(['one']))).toBe('');
  const many = announced(answer([]), answer(['a', 'b', 'c', 'd', 'e']));
  expect(many).toBe('Broken: a; b; c, and 2 more.');
});

test('looking at less of the piece is no change of it', () => {
  const set = (now: Partial<BenchState>) => act(() => useBench.setState(now));
  render(<Announce />);
  const said = () => screen.getByTestId('announced').textContent;
  set({ id: 1, caret: null, answer: answer(['hole too near']) });
  // Shown up to a step before the hole, and whole again.
  set({ caret: 1 });
  set({ answer: answer([]) });
  expect(said()).toBe('');
  set({ caret: null });
  set({ answer: answer(['hole too near']) });
  expect(said()).toBe('');
  set({ answer: answer([]) });
  expect(said()).toBe('Everything holds.');
});

test('the same fault told in inches is no other, and what changes beside a change of unit is said', () => {
  const metric = answer([], [], ['a leg of 4 mm is too short; 8.5 mm is needed']);
  const inch = answer([], [], ['a leg of 0.157 in is too short; 0.335 in is needed']);
  expect(announced(metric, inch)).toBe('');
  expect(announced(answer([]), inch)).toBe('Broken: a leg of 0.157 in is too short; 0.335 in is needed.');
});
