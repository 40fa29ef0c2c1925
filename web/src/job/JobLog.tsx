// What was done in a job, the last first: all of it, to be sorted, found in and taken along.
import { useMemo } from 'react';
import type { Schemas } from '../api/client';
import type { Column } from '../kit/columns';
import { Grid } from '../kit/Grid';

type Line = Omit<Schemas['LogLine'], 'mark'> & { number: number; mark: string };

const COLUMNS: Column<Line>[] = [
  { key: 'when', head: 'when', value: (one) => one.at.replace('T', ' ').slice(0, 19), width: 150 },
  { key: 'who', head: 'who', value: (one) => one.who, width: 110 },
  { key: 'mark', head: 'piece', value: (one) => one.mark, width: 110 },
  { key: 'what', head: 'what', value: (one) => one.what, grow: 1, width: 240 },
];

export function JobLog({
  lines,
  pieces,
  say,
}: {
  lines: Schemas['LogLine'][];
  pieces: Schemas['PieceLine'][];
  say: (words: string) => void;
}) {
  const rows = useMemo(
    () =>
      lines.map((one, number): Line => ({
        ...one,
        number,
        mark: pieces.find((piece) => piece.id === one.piece_id)?.mark ?? (one.mark ? `${one.mark}, deleted` : ''),
      })),
    [lines, pieces],
  );
  return <Grid label="Log" rows={rows} columns={COLUMNS} idOf={(one) => one.number} say={say} />;
}
