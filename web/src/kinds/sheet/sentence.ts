// Sheet work as shop sentences, and what their choices put in place of a whole field.
import type { Operation } from '../../api/client';
import { word, type Change, type Choices, type Part, type Writer } from '../../bench/parts';
import { BENT_CHOICES, bentChanges, bentParts, CURVE } from './bent';
import { changes, cornerParts, cutParts, drillParts } from './hole';
import { SHAPE_CHOICES, shapeParts } from './shape';

/** The sentence of an operation of this verb; `sides` are the ends of a bend's edge. */
export function sheetParts(key: string, operation: Operation, writer: Writer, sides: string[]): Part[] {
  switch (key) {
    case 'lay_down':
      return [word('Lay down', true), ...shapeParts(operation, ['do', key, 'shape']), word('.')];
    case 'drill':
      return drillParts(writer);
    case 'corner':
      return cornerParts(writer);
    case 'cut':
      return cutParts(operation, writer);
    default:
      return bentParts(key, writer, sides) ?? [];
  }
}

/** What can be changed of an operation in one click. */
export const sheetChanges = (
  operation: Operation,
  key: string,
  names: { edges: string[]; holes: string[] },
): Change[] => [...changes(operation, names.edges, names.holes), ...bentChanges(operation, key, names.edges)];

export const SHEET_CHOICES: Choices = {
  ...SHAPE_CHOICES,
  'corner shape': {
    round: { round: '10 mm' },
    chamfer: { chamfer: { leg: '10 mm' } },
    notch: { notch: { width: '10 mm', depth: '10 mm' } },
    full_round: 'full_round',
  },
  relief: { none: undefined, rectangular: { shape: 'rectangular' }, obround: { shape: 'obround' } },
  'blank by': {
    piece: undefined,
    k_factor: { k_factor: '0.44' },
    allowance: { allowance: 'pi/2 * (R + 0.44*T)' },
    deduction: { deduction: '2*(R + T) - pi/2 * (R + 0.44*T)' },
    din6935: 'din6935',
    k_curve: CURVE,
  },
  ...BENT_CHOICES,
};
