// An operation as a shop sentence: words and the values in them.
import type { Operation } from '../api/client';
import { at, verb, type Path } from './edit';
import { cornerParts, cutParts, drillParts } from './hole';
import { SHAPES, shapeParts } from './shape';

export type Part =
  | { kind: 'word'; text: string; strong?: boolean }
  | { kind: 'value'; path: Path; text: string; label: string; ghost?: string; optional?: boolean; names?: 'edges' | 'panels' | 'lines' | 'holes' }
  | { kind: 'choice'; path: Path; value: string; label: string; options: [string, string][] };

const word = (text: string, strong = false): Part => ({ kind: 'word', text, strong });

/** The sentence of an operation; `sides` are the ends of a bend's edge. */
export function sentence(operation: Operation, sides: string[]): Part[] {
  const key = verb(operation);
  const root: Path = ['do', key];
  const text = (path: Path) => String(at(operation, [...root, ...path]) ?? '');
  const value = (label: string, path: Path, more: { ghost?: string; optional?: boolean; names?: 'edges' | 'panels' | 'lines' | 'holes' } = {}): Part => ({ kind: 'value', path: [...root, ...path], text: text(path), label, ...more });
  const choice = (label: string, path: Path, standard: string, options: [string, string][]): Part => ({ kind: 'choice', path: [...root, ...path], value: text(path) || standard, label, options });
  const writer = { value, choice, get: (path: Path) => at(operation, [...root, ...path]) };
  switch (key) {
    case 'lay_down':
      return [word('Lay down', true), ...shapeParts(operation, [...root, 'shape']), word('.')];
    case 'bend': {
      const relief = at(operation, [...root, 'relief']) as { shape?: string } | undefined;
      const parts: Part[] = [
        word('Bend', true),
        choice('direction', ['direction'], 'up', [['up', 'up'], ['down', 'down']]),
        value('angle', ['angle']),
        word('along'),
        value('edge', ['edge'], { names: 'edges' }),
        word(', leg'),
        value('leg', ['leg']),
        choice('leg measured to', ['leg_to'], 'outside', [['outside', 'outside'], ['inside', 'inside'], ['mould', 'to the mould line'], ['tangent', 'to the tangent']]),
        word(','),
        choice('position', ['position'], 'material_inside', [['material_inside', 'material inside the edge'], ['material_outside', 'material outside the edge'], ['bend_outside', 'bend outside the edge']]),
        word(', inside radius'),
        value('inside radius', ['radius'], { ghost: 'R', optional: true }),
      ];
      sides.forEach((side) => parts.push(word(', set in'), value(`set in at ${side}`, ['set_in', side], { ghost: '0', optional: true }), word(`at ${side}`)));
      parts.push(word(','), { kind: 'choice', path: [...root, 'relief'], value: relief ? (relief.shape ?? 'rectangular') : 'none', label: 'relief', options: [['none', 'no relief'], ['rectangular', 'square relief'], ['obround', 'round relief']] });
      if (relief) parts.push(value('relief width', ['relief', 'width'], { ghost: 'T', optional: true }), word('wide,'), value('relief depth', ['relief', 'depth'], { ghost: 'R + T', optional: true }), word('deep'));
      const method = at(operation, [...root, 'method']);
      const kind = method == null ? 'piece' : typeof method === 'string' ? method : (Object.keys(method)[0] ?? 'piece');
      parts.push(word(', blank by'), { kind: 'choice', path: [...root, 'method'], value: kind, label: 'blank by', options: [['piece', "the piece's way"], ['k_factor', 'K-factor'], ['allowance', 'bend allowance'], ['deduction', 'bend deduction'], ['din6935', 'DIN 6935']] });
      if (method != null && typeof method === 'object') parts.push(value('bending figure', ['method', kind]));
      return [...parts, word('.')];
    }
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
  'corner shape': { round: { round: '10 mm' }, chamfer: { chamfer: { leg: '10 mm' } }, notch: { notch: { width: '10 mm', depth: '10 mm' } }, full_round: 'full_round' },
  'end of the run': { closed: undefined, open: { thickness: 'T' } },
  relief: { none: undefined, rectangular: { shape: 'rectangular' }, obround: { shape: 'obround' } },
  'blank by': { piece: undefined, k_factor: { k_factor: '0.44' }, allowance: { allowance: 'pi/2 * (R + 0.44*T)' }, deduction: { deduction: '2*(R + T) - pi/2 * (R + 0.44*T)' }, din6935: 'din6935' },
};

/** The path of a field as the server names it: inside the action, joined by dots. */
export const fieldOf = (path: Path): string => path.slice(2).join('.');
