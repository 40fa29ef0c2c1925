// What a list shows of its rows, and the rows as a spreadsheet takes them.
import type { ReactNode } from 'react';

/** A column of a list. */
export type Column<Row> = {
  /** Its name in the list, unlike the others. */
  key: string;
  /** Its head. */
  head: string;
  /** What it is sorted, found, copied and exported by: a bare number where it is one. */
  value: (row: Row) => string | number | null;
  /** Unit of the numbers: said after each of them, and in the head of what is exported. */
  unit?: string;
  /** Decimals of the numbers, as shown. */
  decimals?: number;
  /** What is drawn, where that is more than its value. */
  show?: (row: Row) => ReactNode;
  /** Share of the width that is left, or the width itself, px. */
  grow?: number;
  width?: number;
  /** What is only drawn (pictures, acts, workings): neither sorted nor exported. */
  drawn?: boolean;
};

/** The head of a column in what is exported: with the unit of its numbers. */
export const exportedHead = <Row>({ head, unit }: Column<Row>) => (unit ? `${head}, ${unit}` : head);

/** A number as the list shows it, with its unit. */
export function shownValue<Row>({ value, unit, decimals }: Column<Row>, row: Row): string {
  const found = value(row);
  if (found === null) return '—';
  const text = typeof found === 'number' && decimals !== undefined ? found.toFixed(decimals) : String(found);
  return unit ? `${text} ${unit}` : text;
}

/** Numbers are put out as they are shown; a text that a spreadsheet would take for a sum is put out as a text. */
function cell(found: string | number | null, decimals: number | undefined, between: string): string {
  if (found === null) return '';
  if (typeof found === 'number') return decimals === undefined ? String(found) : found.toFixed(decimals);
  const text = /^[=+\-@\t\r]/.test(found) ? `'${found}` : found;
  if (between === '\t') return text.replace(/[\t\r\n]+/g, ' ');
  return /[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
}

/** The rows with their heads, by lines: with commas as RFC 4180 has it, or with tabs. */
export function asText<Row>(columns: Column<Row>[], rows: Row[], between: ',' | '\t'): string {
  const told = columns.filter((one) => !one.drawn);
  const lines = [
    told.map((one) => cell(exportedHead(one), undefined, between)),
    ...rows.map((row) => told.map((one) => cell(one.value(row), one.decimals, between))),
  ];
  return lines.map((line) => line.join(between)).join(between === ',' ? '\r\n' : '\n');
}
