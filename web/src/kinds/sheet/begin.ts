// How a sheet part begins, and what a job says of one.
import type { Begin } from '../beginning';

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
  facts: ({ cut_line: line }) => ({
    stock: line ? `${Number(line.thickness.toFixed(3))} mm` : '—',
    sizeOf: 'blank',
    size: line ? `${line.blank_width.toFixed(1)} × ${line.blank_height.toFixed(1)} mm` : '—',
    mass: line ? `${line.mass_each.toFixed(3)} kg` : '—',
  }),
};
