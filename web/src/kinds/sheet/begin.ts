// How a sheet part begins, and what a job says of one.
import type { LengthUnit, Schemas } from '../../api/client';
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

/** The mass of one piece: what all its lines weigh, by how many pieces they are for. */
const massOfOne = (lines: Schemas['CutLine'][]) => lines.reduce((sum, one) => sum + one.mass_each * one.a_piece, 0);

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
  facts: ({ cut_lines: [line, ...others], sheets, unit }) => ({
    stock: line ? thick(line.thickness, unit) : '—',
    sizeOf: others.length > 0 ? 'sheets' : 'blank',
    size: !line
      ? '—'
      : others.length > 0
        ? `${sheets} sheets`
        : `${short(line.blank_width, unit)} × ${told('length', unit).text(line.blank_height, 1)}`,
    mass: line ? told('mass', unit).text(massOfOne([line, ...others]), 3) : '—',
  }),
};
