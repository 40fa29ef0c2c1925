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
  /** Its texts are figures, set as numbers are. */
  figure?: boolean;
  /** What is only drawn (pictures, acts, workings): neither sorted nor exported. */
  drawn?: boolean;
};

/** A figure as the server wrote it: what it is sorted by, and its unit. */
function figureOf(text: string): [value: number | string, unit: string] {
  const found = /^(-?\d+(?:\.\d+)?)(?: (\S.*))?$/.exec(text.trim());
  return found ? [Number(found[1]), found[2] ?? ''] : [text, ''];
}

/** A column of figures that the server wrote with their unit. Where all have one unit they are numbers of it; where not
 *  (fractions, two units), they stay as they are written. `text` says the figure, or nothing. */
export function figures<Row>(
  rows: Row[],
  column: Pick<Column<Row>, 'key' | 'head' | 'width' | 'grow'>,
  text: (row: Row) => string | undefined,
): Column<Row> {
  const all = rows.map((row) => figureOf(text(row) ?? '')).filter(([value]) => value !== '');
  const unit = all[0]?.[1] ?? '';
  const alike = all.every((one) => typeof one[0] === 'number' && one[1] === unit);
  return {
    ...column,
    figure: true,
    ...(alike && unit ? { unit } : {}),
    value: (row) => {
      const own = text(row) ?? '';
      return own === '' ? null : alike ? figureOf(own)[0] : own;
    },
  };
}

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
