import { expect, it } from 'vitest';
import type { Schemas } from '../../api/client';
import { laidLabels } from './blankLabels';

type BlankView = Schemas['BlankView'];

/** Blanks of a width side by side, 40 mm apart, each with a bend along it. */
function sideBySide(count: number, width: number): BlankView {
  const lefts = Array.from({ length: count }, (_, at) => at * (width + 40));
  const box = (left: number) => ({ low: { x: left, y: 0 }, high: { x: left + width, y: 300 } });
  return {
    bends: lefts.map((left, at) => ({
      name: `bend-${at}`,
      text: 'B1 down 68.2 R2',
      line: [
        { x: left, y: 280 },
        { x: left + width, y: 280 },
      ],
    })),
    edges: [],
    holes: [],
    forms: [],
    fields: [],
    corners: [],
    panels: [],
    path: '',
    size: ['300 mm', '300 mm'],
    extents: { low: { x: 0, y: 0 }, high: { x: lefts[count - 1]! + width, y: 300 } },
    sheets: lefts.map((left) => ({ extents: box(left) })),
  } as unknown as BlankView;
}

it('a bend of one of several blanks is never named over or beyond another', () => {
  for (const width of [60, 200, 500]) {
    const blank = sideBySide(4, width);
    for (const unit of [0.5, 1, 2.5]) {
      const given = { unit, box: [-200, -200, 3000, 800], balloons: false, edges: [], fields: [], signs: [] };
      for (const label of laidLabels(blank, given)) {
        const at = Number(label.key.slice('bend bend-'.length));
        const own = blank.sheets[at]!.extents;
        expect(label.x, label.key).toBeGreaterThan(own.low.x - (at === 0 ? 400 : 20));
        expect(label.x, label.key).toBeLessThan(own.high.x + (at === 3 ? 400 : 20));
      }
    }
  }
  // Alone it is read at its line's right end.
  const [alone] = laidLabels(sideBySide(1, 200), {
    unit: 1,
    box: [-200, -200, 3000, 800],
    balloons: false,
    edges: [],
    fields: [],
    signs: [],
  });
  expect(alone?.x).toBeGreaterThan(200);
});
