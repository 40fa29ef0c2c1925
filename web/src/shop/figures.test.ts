import { describe, expect, it } from 'vitest';
import type { Schemas } from '../api/client';
import { FIGURES, figureAt, readFigure, withFigure } from './figures';

const settings: Schemas['ShopRules'] = {
  asks: {
    edge: { laser: 1, plasma: 1, waterjet: 1, oxy_fuel: 1, punch: 2 },
    bend: 2,
    slot_bend: 3,
    punched_hole: 1,
    leg_of_die: 0.7,
    hem: 4,
    trim_mm: 10,
  },
  brake: { name: 'a brake', length_mm: 3050, force_kn: 1000, punch_mm: 10 },
  saw: { name: 'a saw', angle_deg: 60, hold_mm: 30 },
  sheet: [{ name: 'a sheet', length_mm: 2000, width_mm: 1000 }],
};

describe('figures that rules go by', () => {
  it('lists every number of the settings, each once', () => {
    const numbers = (part: unknown, path: string): string[] =>
      Object.entries(part as Record<string, unknown>).flatMap(([key, value]) =>
        typeof value === 'number'
          ? [`${path}${key}`]
          : typeof value === 'object' && !Array.isArray(value)
            ? numbers(value, `${path}${key}.`)
            : [],
      );
    expect(FIGURES.map((one) => one.path).sort()).toEqual(numbers(settings, '').sort());
  });

  it('changes one and leaves the others, and the old settings, as they are', () => {
    const now = withFigure(settings, 'asks.edge.punch', 2.5);
    expect(figureAt(now, 'asks.edge.punch')).toBe(2.5);
    expect(figureAt(settings, 'asks.edge.punch')).toBe(2);
    expect(withFigure(now, 'asks.edge.punch', 2)).toEqual(settings);
  });

  it('reads what people type, and no other unit', () => {
    expect(readFigure('1,5', 'T')).toBe(1.5);
    expect(readFigure(' 2 t ', 'T')).toBe(2);
    expect(readFigure('60°', 'deg')).toBe(60);
    expect(readFigure('10 in', 'mm')).toBe(254);
    expect(readFigure('3.05 m', 'mm')).toBe(3050);
    expect(readFigure('100 kN', 'mm')).toBeNull();
    expect(readFigure('', 'mm')).toBeNull();
    expect(readFigure('-2', 'T')).toBeNull();
  });
});
