// The pieces of a job's frames, in one list.
import { useMemo } from 'react';
import type { LengthUnit, Schemas } from '../../api/client';
import type { Column } from '../../kit/columns';
import { ActLink } from '../../kit/Act';
import { Grid } from '../../kit/Grid';
import { told, unitOf } from '../../kit/amounts';
import { useSettings } from '../../settings';
import { endsText } from './ends';

type Line = { frame: Schemas['PieceLine']; line: NonNullable<Schemas['PieceLine']['frame']>['lines'][number] };

function columnsIn(unit: LengthUnit): Column<Line>[] {
  const [length, mass] = [told('length', unit), told('mass', unit)];
  return [
    {
      key: 'frame',
      head: 'frame',
      value: ({ frame }) => frame.mark,
      show: ({ frame }) => (
        <ActLink className="num" to={`/pieces/${frame.id}`}>
          {frame.mark}
        </ActLink>
      ),
      width: 80,
    },
    { key: 'mark', head: 'mark', value: ({ line }) => line.mark, width: 80 },
    { key: 'qty', head: 'qty', value: ({ line, frame }) => line.quantity * frame.quantity },
    { key: 'spares', head: 'spares', value: ({ line, frame }) => line.quantity * frame.spares || null },
    { key: 'first', head: 'first-off', value: ({ frame }) => (frame.first_off ? 'yes' : '') },
    { key: 'section', head: 'section', value: ({ line }) => line.section, grow: 1 },
    { key: 'material', head: 'material', value: ({ line }) => line.material, grow: 1 },
    {
      key: 'length',
      head: 'length',
      unit: length.unit,
      decimals: length.decimals(1),
      value: ({ line }) => length.figure(line.length),
      width: 100,
    },
    { key: 'ends', head: 'ends', value: ({ line }) => endsText(line) || line.kind, grow: 2 },
    {
      key: 'each',
      head: 'mass each',
      unit: mass.unit,
      decimals: 3,
      value: ({ line }) => mass.figure(line.mass_each),
      width: 100,
    },
    {
      key: 'all',
      head: 'mass of all',
      unit: mass.unit,
      decimals: 3,
      value: ({ line, frame }) => mass.figure(line.mass_total * frame.quantity),
      width: 105,
    },
  ];
}

/** The members and plates of the job's frames, in one list. */
export function FrameLists({ pieces, say }: { pieces: Schemas['PieceLine'][]; say: (words: string) => void }) {
  const rows = pieces.flatMap((frame) => (frame.frame?.lines ?? []).map((line) => ({ frame, line })));
  const show = useSettings((s) => s.show);
  const unit = unitOf(
    show,
    rows.map(({ frame }) => frame.unit),
  );
  const columns = useMemo(() => columnsIn(unit), [unit]);
  if (rows.length === 0) return null;
  return (
    <>
      <h2>Members and plates of frames</h2>
      <Grid
        label="Members and plates of frames"
        rows={rows}
        columns={columns}
        idOf={({ frame, line }) => `${frame.mark} ${line.mark}`}
        say={say}
      />
    </>
  );
}
