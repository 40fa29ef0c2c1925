// Figures of a piece with their workings: to be read, copied and taken along.
import type { Schemas } from '../api/client';
import type { Column } from '../kit/columns';
import { Grid } from '../kit/Grid';
import { say } from './store';
import { working } from './working';

const FIGURES: Column<Schemas['Figure']>[] = [
  { key: 'label', head: 'what', value: (one) => one.label, grow: 1, width: 160 },
  {
    key: 'text',
    head: 'figure',
    value: (one) => one.text,
    figure: true,
    grow: 1,
    width: 140,
  },
  working((one) => one.why, 140, 2),
];

export function FigureList({ label, figures }: { label: string; figures: Schemas['Figure'][] }) {
  return <Grid label={label} rows={figures} columns={FIGURES} idOf={(one) => one.key} say={say} />;
}
