// The cut list of a job's blanks.
import type { Schemas } from '../../api/client';
import type { Column } from '../../kit/columns';
import { Grid } from '../../kit/Grid';

type Line = Schemas['CutLine'];

const COLUMNS: Column<Line>[] = [
  { key: 'mark', head: 'mark', value: (one) => one.mark, grow: 1 },
  { key: 'off', head: 'off', value: (one) => one.quantity },
  { key: 'material', head: 'material', value: (one) => one.material, grow: 1 },
  { key: 'thickness', head: 'thickness', unit: 'mm', value: (one) => Number(one.thickness.toFixed(3)), width: 90 },
  { key: 'width', head: 'blank width', unit: 'mm', decimals: 1, value: (one) => one.blank_width, width: 110 },
  { key: 'height', head: 'blank height', unit: 'mm', decimals: 1, value: (one) => one.blank_height, width: 110 },
  { key: 'cut', head: 'cut length', unit: 'mm', decimals: 0, value: (one) => one.cut_length, width: 100 },
  { key: 'pierces', head: 'pierces', value: (one) => one.pierces, width: 70 },
  { key: 'bends', head: 'bends', value: (one) => one.bends },
  { key: 'each', head: 'mass each', unit: 'kg', decimals: 3, value: (one) => one.mass_each, width: 100 },
  { key: 'all', head: 'mass of all', unit: 'kg', decimals: 3, value: (one) => one.mass_total, width: 105 },
];

/** A line a blank. */
export function BlankList({ pieces, say }: { pieces: Schemas['PieceLine'][]; say: (words: string) => void }) {
  const rows = pieces.flatMap(({ cut_line, variants }) => [cut_line, ...variants]).filter((one) => one != null);
  return (
    <>
      <h2>Cut list</h2>
      <Grid label="Cut list" rows={rows} columns={COLUMNS} idOf={(one) => one.mark} say={say} />
    </>
  );
}
