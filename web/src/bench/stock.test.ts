import { expect, it } from 'vitest';
import { inchText } from './stock';

it('says inches as a shop does', () => {
  expect([0.125, 0.1875, 0.5, 0.875, 1, 1.25, 1.5, 2, 0.063, 0.19].map(inchText)).toEqual([
    '1/8 in',
    '3/16 in',
    '1/2 in',
    '7/8 in',
    '1 in',
    '1 1/4 in',
    '1 1/2 in',
    '2 in',
    '0.063 in',
    '0.19 in',
  ]);
});
