// Figures of lists in millimetres and kilograms, or in inches and pounds: one list has one unit. What is worked
// out comes from the server; here it is only told in the list's unit, so that a list sorts and leaves as numbers.
import type { LengthUnit } from '../api/client';

type Of = 'length' | 'mass' | 'mass per run';

const INCH = 25.4;
/** International yard and pound agreement, 1959. */
const POUND = 0.45359237;

const TOLD: Record<Of, Record<LengthUnit, { sign: string; one: number; finer: number }>> = {
  length: { mm: { sign: 'mm', one: 1, finer: 0 }, in: { sign: 'in', one: INCH, finer: 2 } },
  mass: { mm: { sign: 'kg', one: 1, finer: 0 }, in: { sign: 'lb', one: POUND, finer: 0 } },
  'mass per run': { mm: { sign: 'kg/m', one: 1, finer: 0 }, in: { sign: 'lb/ft', one: POUND / 0.3048, finer: 0 } },
};

/** How figures are told: the sign, the figure from the metric one, decimals for so many of the metric one. */
export function told(of: Of, unit: LengthUnit) {
  const { sign, one, finer } = TOLD[of][unit];
  return {
    unit: sign,
    figure: (metric: number) => metric / one,
    decimals: (metric: number) => metric + finer,
    text: (metric: number, decimals: number) => `${(metric / one).toFixed(decimals + finer)} ${sign}`,
  };
}

/** The unit of a list: what was set for this browser, else inches where all that it tells of is drawn in them. */
export function unitOf(show: LengthUnit | null, units: (LengthUnit | null | undefined)[]): LengthUnit {
  return show ?? (units.length > 0 && units.every((one) => one === 'in') ? 'in' : 'mm');
}
