import { expect, test } from 'vitest';
import { told, unitOf } from './amounts';

test('lengths and masses are told in the unit of the list', () => {
  expect(told('length', 'mm').text(31.75, 1)).toBe('31.8 mm');
  expect(told('length', 'in').text(31.75, 1)).toBe('1.250 in');
  // NIST SP 811: a pound is 0.45359237 kg.
  expect(told('mass', 'in').text(0.45359237, 3)).toBe('1.000 lb');
  // NIST SP 811, B.8: a pound a foot is 1.488164 kg/m.
  expect(told('mass per run', 'in').figure(1.488164)).toBeCloseTo(1, 6);
});

test('a list is in inches where all of it is, or where that is set', () => {
  expect(unitOf(null, ['in', 'in'])).toBe('in');
  expect(unitOf(null, ['in', 'mm'])).toBe('mm');
  expect(unitOf(null, [])).toBe('mm');
  expect(unitOf('in', ['mm'])).toBe('in');
  expect(unitOf('mm', ['in'])).toBe('mm');
});
