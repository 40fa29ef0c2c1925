import { expect, test } from 'vitest';
import { asText, figures, shownValue, type Column } from './columns';

type Bar = { mark: string; length: number; note: string | null };
const columns: Column<Bar>[] = [
  { key: 'mark', head: 'mark', value: (one) => one.mark },
  { key: 'length', head: 'length', unit: 'mm', decimals: 1, value: (one) => one.length },
  { key: 'picture', head: 'picture', value: () => 'drawn', drawn: true },
  { key: 'note', head: 'note', value: (one) => one.note },
];

test('a number is shown with its unit, what is not there with a dash', () => {
  const row = { mark: 'R1', length: 2460, note: null };
  expect(columns.map((one) => shownValue(one, row))).toEqual(['R1', '2460.0 mm', 'drawn', '—']);
});

test('what is exported has its unit in the head and bare numbers below', () => {
  expect(asText(columns, [{ mark: 'R1', length: 2460.04, note: null }], '\t')).toBe(
    'mark\tlength, mm\tnote\nR1\t2460.0\t',
  );
});

test('commas, quotes and lines stay in their cell (RFC 4180, section 2)', () => {
  const text = asText(columns, [{ mark: 'a,b', length: -1, note: 'say "cope"\nthen weld' }], ',');
  expect(text).toBe('mark,"length, mm",note\r\n"a,b",-1.0,"say ""cope""\nthen weld"');
  expect(asText(columns, [{ mark: 'a', length: 1, note: 'one\ttwo\nthree' }], '\t').split('\n')[1]).toBe(
    'a\t1.0\tone two three',
  );
});

test('a text that a spreadsheet would run is put out as a text', () => {
  const text = asText(columns, [{ mark: '=1+1', length: -5, note: '@SUM(A1)' }], '\t');
  expect(text.split('\n')[1]).toBe("'=1+1\t-5.0\t'@SUM(A1)");
});

test('figures with one unit are sorted and put out as numbers, others as they are written', () => {
  const rows = [{ text: '140.25 mm' }, { text: '9 mm' }, { text: '' }];
  const length = figures(rows, { key: 'length', head: 'length' }, (one) => one.text);
  expect(rows.map((one) => length.value(one))).toEqual([140.25, 9, null]);
  expect(rows.map((one) => shownValue(length, one))).toEqual(['140.25 mm', '9 mm', '—']);
  expect(asText([length], rows, '\t')).toBe('length, mm\n140.25\n9\n');
  for (const other of ['3-1/2 in', '9 in', '14 deg 30 min']) {
    const mixed = [{ text: '140 mm' }, { text: other }];
    const told = figures(mixed, { key: 'length', head: 'length' }, (one) => one.text);
    expect(mixed.map((one) => shownValue(told, one))).toEqual(['140 mm', other]);
    expect(asText([told], mixed, '\t')).toBe(`length\n140 mm\n${other}`);
  }
});
