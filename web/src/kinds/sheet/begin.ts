// How a sheet part begins, and what a job says of one.
import type { LengthUnit } from '../../api/client';
import { told } from '../../kit/amounts';
import type { Begin } from '../beginning';

const thick = (metric: number, unit: LengthUnit) =>
  `${Number(
    told('length', unit)
      .figure(metric)
      .toFixed(unit === 'in' ? 4 : 3),
  )} ${unit}`;
const short = (metric: number, unit: LengthUnit) =>
  told('length', unit).figure(metric).toFixed(told('length', unit).decimals(1));

export const BEGIN_SHEET: Begin = {
  first: {
    steelk: 1,
    kind: 'sheet',
    title: 'New bracket',
    quantity: 1,
    unit: 'mm',
    stock: { material: 'S275', thickness: '3 mm' },
    bending: { radius: 'T' },
    general_tolerance: 'm',
    callouts: [],
    operations: [],
  },
  words: 'New piece',
  wires: false,
  facts: ({ cut_line: line, unit }) => ({
    stock: line ? thick(line.thickness, unit) : '—',
    sizeOf: 'blank',
    size: line ? `${short(line.blank_width, unit)} × ${told('length', unit).text(line.blank_height, 1)}` : '—',
    mass: line ? told('mass', unit).text(line.mass_each, 3) : '—',
  }),
};
