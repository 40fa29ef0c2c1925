// The first panel.
import { word } from '../../../bench/parts';
import { verb } from '../../verb';
import { shapeParts, SHAPES } from '../shape';

/** Sizes in the order that each shape takes them; those after the bar may be left out. */
const SIZES: Record<string, [string[], string[]]> = {
  rectangle: [['width', 'depth'], []],
  circle: [['diameter'], []],
  ring: [['outside', 'inside'], []],
  obround: [['length', 'width'], []],
  polygon: [['sides', 'size'], []],
  triangle: [['base', 'height'], ['lean']],
  gusset: [
    ['width', 'height'],
    ['corner', 'toe', 'tip'],
  ],
  lug: [['base', 'height', 'radius'], ['hole']],
  eared: [
    ['body', 'ears', 'circle', 'ear_radius'],
    ['hole', 'bore'],
  ],
};

/** A shape by its name and sizes; two bare sizes are a rectangle. Nothing where sizes are missing. */
function layDown(parts: string[]): object | undefined {
  if (/^(a |an )?(drawn |rough )?outline$/i.test(parts[0] ?? ''))
    return SHAPES.find((one) => one.key === 'drawn')?.start;
  const named = /^(?:an? )?([a-z]+)$/i.exec(parts[0] ?? '')?.[1]?.toLowerCase() ?? '';
  const [kind, sizes] = SIZES[named] && parts.length > 1 ? [named, parts.slice(1)] : ['rectangle', parts];
  const [needed, more] = SIZES[kind] ?? [[], []];
  if (sizes.length < needed.length) return undefined;
  const names = [...needed, ...more].slice(0, sizes.length);
  return { [kind]: Object.fromEntries(names.map((name, at) => [name, sizes[at]])) };
}

export const LAY_DOWN = verb<'lay_down'>({
  key: 'lay_down',
  phrases: [
    {
      verb: 'lay down',
      words:
        'width, depth; or a shape and its sizes: circle, ring, obround, polygon, triangle, gusset, lug, eared, outline',
      example: 'lay down 120 mm, 80 mm',
      read: (parts) => {
        const shape = layDown(parts);
        return shape ? { stem: 'base', action: { lay_down: { shape } } } : undefined;
      },
    },
  ],
  sentence: (_, { operation }) => {
    return [word('Lay down', true), ...shapeParts(operation, ['do', 'lay_down', 'shape']), word('.')];
  },
});
