// An operation as a shop sentence: words and the values in them.
import type { Operation } from '../api/client';
import { at, verb, type Path } from './edit';
import { BENT_CHOICES, bentParts, CURVE } from './bent';
import { FRAME_CHOICES, frameParts } from './frame';
import { cornerParts, cutParts, drillParts } from './hole';
import type { Names, Part } from './parts';
import { SHAPES, shapeParts } from './shape';

const word = (text: string, strong = false): Part => ({ kind: 'word', text, strong });

/** The sentence of an operation; `sides` are the ends of a bend's edge. */
export function sentence(operation: Operation, sides: string[]): Part[] {
  const key = verb(operation);
  const root: Path = ['do', key];
  const text = (path: Path) => {
    const found = at(operation, [...root, ...path]) ?? '';
    return Array.isArray(found) ? found.join(', ') : String(found);
  };
  const value = (
    label: string,
    path: Path,
    more: { ghost?: string; optional?: boolean; names?: Names; list?: boolean } = {},
  ): Part => ({ kind: 'value', path: [...root, ...path], text: text(path), label, ...more });
  const choice = (label: string, path: Path, standard: string, options: [string, string][]): Part => ({
    kind: 'choice',
    path: [...root, ...path],
    value: text(path) || standard,
    label,
    options,
  });
  const writer = { value, choice, get: (path: Path) => at(operation, [...root, ...path]) };
  const bent = bentParts(key, writer, sides);
  if (bent) return bent;
  const frame = frameParts(key, operation, writer);
  if (frame) return frame;
  switch (key) {
    case 'lay_down':
      return [word('Lay down', true), ...shapeParts(operation, [...root, 'shape']), word('.')];
    case 'drill':
      return drillParts(writer);
    case 'corner':
      return cornerParts(writer);
    default:
      return cutParts(operation, writer);
  }
}

/** What a choice that stands for a whole field puts there; undefined takes the field out. */
export const CHOICES: Record<string, Record<string, unknown>> = {
  shape: Object.fromEntries(SHAPES.map((one) => [one.key, one.start])),
  'corner shape': {
    round: { round: '10 mm' },
    chamfer: { chamfer: { leg: '10 mm' } },
    notch: { notch: { width: '10 mm', depth: '10 mm' } },
    full_round: 'full_round',
  },
  'end of the run': { closed: undefined, open: { thickness: 'T' } },
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
  ...FRAME_CHOICES,
  // A yes or no as a choice of words.
  ...Object.fromEntries(
    ['within the length', 'where the panel lies', 'where the through one ends', 'which face', 'walls'].map((label) => [
      label,
      { '': undefined, true: true },
    ]),
  ),
  'how it stands': { '': undefined, along: 'along', across: 'across' },
};

/** The path of a field as the server names it: inside the action, joined by dots. */
export const fieldOf = (path: Path): string => path.slice(2).join('.');
