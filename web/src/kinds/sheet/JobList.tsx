// The cut list of a job's blanks.
import { useMemo } from 'react';
import type { LengthUnit, Schemas } from '../../api/client';
import type { Column } from '../../kit/columns';
import { Grid } from '../../kit/Grid';
import { told, unitOf } from '../../kit/amounts';
import { useSettings } from '../../settings';

type Line = Schemas['CutLine'];

function columnsIn(unit: LengthUnit): Column<Line>[] {
  const [length, mass] = [told('length', unit), told('mass', unit)];
  const size = (key: string, head: string, value: (one: Line) => number, decimals: number, width: number) => ({
    key,
    head,
    unit: length.unit,
    decimals: length.decimals(decimals),
    value: (one: Line) => length.figure(value(one)),
    width,
  });
  const weight = (key: string, head: string, value: (one: Line) => number, width: number) => ({
    key,
    head,
    unit: mass.unit,
    decimals: 3,
    value: (one: Line) => mass.figure(value(one)),
    width,
  });
  return [
    { key: 'mark', head: 'mark', value: (one) => one.mark, grow: 1 },
    { key: 'qty', head: 'qty', value: (one) => one.quantity },
    { key: 'spares', head: 'spares', value: (one) => one.spares || null },
    { key: 'first', head: 'first-off', value: (one) => (one.first_off ? 'yes' : '') },
    { key: 'material', head: 'material', value: (one) => one.material, grow: 1 },
    size('thickness', 'thickness', (one) => one.thickness, 2, 90),
    size('width', 'blank width', (one) => one.blank_width, 1, 110),
    size('height', 'blank height', (one) => one.blank_height, 1, 110),
    size('cut', 'cut length', (one) => one.cut_length, 0, 100),
    { key: 'pierces', head: 'pierces', value: (one) => one.pierces, width: 70 },
    { key: 'bends', head: 'bends', value: (one) => one.bends },
    weight('each', 'mass each', (one) => one.mass_each, 100),
    weight('all', 'mass of all', (one) => one.mass_total, 105),
  ];
}

/** A line a blank. */
export function BlankList({ pieces, say }: { pieces: Schemas['PieceLine'][]; say: (words: string) => void }) {
  const show = useSettings((s) => s.show);
  const unit = unitOf(
    show,
    pieces.map((one) => one.unit),
  );
  const columns = useMemo(() => columnsIn(unit), [unit]);
  const rows = pieces.flatMap(({ cut_lines, variants }) => [...cut_lines, ...variants]);
  return (
    <>
      <h2>Cut list</h2>
      <Grid label="Cut list" rows={rows} columns={columns} idOf={(one) => one.mark} say={say} />
    </>
  );
}
