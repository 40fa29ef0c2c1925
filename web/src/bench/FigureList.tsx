// Figures of a piece with their workings: to be read, copied and taken along.
import type { Schemas } from '../api/client';
import type { Column } from '../kit/columns';
import { Grid } from '../kit/Grid';
import { WhyBox } from './WhyBox';
import { useBench } from './store';

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
  {
    key: 'why',
    head: 'working',
    value: () => null,
    show: (one) => one.why && <WhyBox why={one.why} />,
    drawn: true,
    grow: 2,
    width: 140,
  },
];

export function FigureList({ label, figures }: { label: string; figures: Schemas['Figure'][] }) {
  return (
    <Grid
      label={label}
      rows={figures}
      columns={FIGURES}
      idOf={(one) => one.key}
      say={(message) => useBench.setState({ message })}
    />
  );
}
