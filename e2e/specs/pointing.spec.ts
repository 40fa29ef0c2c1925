import { readFileSync } from 'node:fs';
import { expect, test, type APIRequestContext, type Page } from '@playwright/test';
import { clean, saved, seen } from './common';
import { cutSize, Hands } from './hands';

/** An empty job of its own. */
async function emptyJob(
  page: Page,
  request: APIRequestContext,
  number: string,
  touch: boolean | undefined = false,
): Promise<Hands> {
  const title = touch ? 'By touch' : 'By pointing';
  const made = await request.post('/api/jobs', { data: { number: `${number}${touch ? '-T' : ''}`, title } });
  expect(made.ok(), await made.text()).toBe(true);
  await seen(page);
  await page.goto(`/jobs/${(await made.json()).job.id}`);
  return new Hands(page, touch);
}

/** Bend deduction of a 90 deg bend from the handbook's formulas: twice the setback less the allowance. */
const deduction = (radius: number, thickness: number, k: number) =>
  2 * (radius + thickness) - (Math.PI / 2) * (radius + k * thickness);

/** A plate with a bore, for numbers of a picture. */
const BORED = {
  steelk: 1,
  kind: 'plate',
  mark: 'N-1',
  title: 'Numbers',
  quantity: 1,
  unit: 'mm',
  stock: { material: 'S275', thickness: '10 mm' },
  operations: [
    { name: 'base', do: { lay_down: { shape: { rectangle: { width: '120 mm', depth: '80 mm' } } } } },
    { name: 'bore', do: { drill: { panel: 'base', diameter: '30 mm' } } },
  ],
};

/** A plate by pointing, in either unit: sizes as they are typed, and in mm. */
const PLATES = [
  { unit: 'mm', number: 'BP-2', typed: { t: '12', w: '250', d: '150', b: 'M16', e: '30', o: '80', r: '20' } },
  {
    unit: 'in',
    number: 'BP-3',
    typed: { t: '1/2', w: '10', d: '6', b: 'M16', e: '1 1/4', o: '3 1/8', r: '3/4' },
  },
] as const;

/** With the mouse on a desk, and with fingers on a tablet. */
const WAYS = [
  { way: 'with the mouse', use: {} },
  { way: 'by touch at 1024 by 768', use: { viewport: { width: 1024, height: 768 }, hasTouch: true, isMobile: true } },
];

for (const { way, use } of WAYS) {
  test.describe(way, () => {
    test.use(use);

    test('a U bracket by pointing: 25 actions, and the file has its sizes', async ({ page, request, hasTouch }) => {
      const hands = await emptyJob(page, request, 'BP-1', hasTouch);
      await hands.click(page.getByRole('button', { name: 'New piece' }));
      await expect(page.getByLabel('thickness')).toBeFocused();
      await hands.type('3 mm', 'Enter');
      await hands.click(page.getByRole('button', { name: 'Lay down a rectangle' }));
      await expect(page.getByLabel('width')).toBeFocused();
      await hands.type('140', 'Tab');
      await hands.type('80', 'Enter');
      await hands.kept(1);
      await hands.point('base.left');
      await hands.point('base.right', { more: true });
      await hands.menu('Bend 2 flanges here, alike');
      await expect(page.getByLabel('leg', { exact: true })).toBeFocused();
      await hands.type('50', 'Enter');
      await hands.kept(2);
      await hands.point('base.top', { at: [0.25, 0.5] });
      await hands.menu('Drill four holes at its corners');
      await hands.type('9', 'Tab');
      await hands.type('15', 'Enter');
      await hands.kept(3);
      await hands.point('base.top', { at: [0.25, 0.5] });
      await hands.menu('Cut a slot in the middle');
      await hands.type('10', 'Tab');
      await hands.type('30', 'Enter');
      await hands.kept(4);
      await saved(page);
      await hands.click(page.getByRole('button', { name: /^release/ }));
      const first = cutSize((await hands.file('Blank, DXF')).toString());
      const flat = await hands.file('Flat sheet, PDF');
      const bend = deduction(3, 3, 0.44);
      expect(first.width).toBeCloseTo(140 + 2 * 50 - 2 * bend, 2);
      expect(first.height).toBeCloseTo(80, 4);
      expect(first.circles).toEqual([9, 9, 9, 9]);
      expect(flat.subarray(0, 4).toString()).toBe('%PDF');
      await hands.click(page.getByRole('button', { name: /^leg:/ }));
      await hands.type('55', 'Enter');
      await saved(page);
      hands.within(25);
      const second = cutSize((await hands.file('Blank, DXF')).toString());
      expect(second.width).toBeCloseTo(140 + 2 * 55 - 2 * bend, 2);
    });

    for (const { unit, number, typed } of PLATES) {
      test(`a plate by pointing in ${unit}: 20 actions, and the files have its sizes`, async ({
        page,
        request,
        hasTouch,
      }) => {
        const hands = await emptyJob(page, request, number, hasTouch);
        const mm = (text: string) =>
          text.split(' ').reduce((sum, part) => {
            const [over, under] = part.split('/').map(Number);
            return sum + (over ?? 0) / (under ?? 1);
          }, 0) * (unit === 'in' ? 25.4 : 1);
        await hands.click(page.getByRole('button', { name: 'New plate' }));
        await expect(page.getByLabel('thickness')).toBeFocused();
        if (unit === 'in') await hands.choose(page.getByLabel('unit of bare numbers'), 'in');
        if (unit === 'in') await page.getByLabel('thickness').selectText();
        await hands.type(typed.t, 'Enter');
        await hands.click(page.getByRole('button', { name: 'Lay down a rectangle' }));
        await expect(page.getByLabel('width')).toBeFocused();
        await hands.type(typed.w, 'Tab');
        await hands.type(typed.d, 'Enter');
        await hands.kept(1);
        await hands.point('base.top', { at: [0.25, 0.5] });
        await hands.menu('Drill four clearance holes at its corners');
        await hands.type(typed.b, 'Tab');
        await hands.type(typed.e, 'Enter');
        await hands.kept(2);
        await hands.point('base.top', { at: [0.25, 0.5] });
        await hands.menu('Drill a hole in the middle');
        await hands.type(typed.o, 'Enter');
        await hands.kept(3);
        await hands.point('base.top', { at: [0.25, 0.5] });
        await hands.menu('Round every corner of it');
        await hands.type(typed.r, 'Enter');
        await hands.kept(4);
        await saved(page);
        await hands.click(page.getByRole('button', { name: /^release/ }));
        const cut = cutSize((await hands.file('Blank, DXF')).toString());
        const program = (await hands.file('Cut program, G-code')).toString();
        const template = await hands.file('Template, PDF');
        hands.within(20);
        expect(cut.width).toBeCloseTo(mm(typed.w), 3);
        expect(cut.height).toBeCloseTo(mm(typed.d), 3);
        // ISO 273 medium: M16 has 17.5 mm.
        const bores = [17.5, 17.5, 17.5, 17.5, mm(typed.o)];
        expect(cut.circles.sort((a, b) => a - b)).toEqual(bores.map((one) => expect.closeTo(one, 4)));
        expect(program).toMatch(/G2[01]/);
        expect(template.subarray(0, 4).toString()).toBe('%PDF');
      });
    }

    test('a pan by pointing: 15 actions, and its blank is that of the handbook', async ({
      page,
      request,
      hasTouch,
    }) => {
      const hands = await emptyJob(page, request, 'BP-4', hasTouch);
      await hands.click(page.getByRole('button', { name: 'New piece' }));
      await expect(page.getByLabel('thickness')).toBeFocused();
      await hands.choose(page.getByLabel('material'), '1.4301');
      await page.getByLabel('thickness').selectText();
      await hands.type('1.5', 'Enter');
      await hands.click(page.getByRole('button', { name: 'Lay down a rectangle' }));
      await expect(page.getByLabel('width')).toBeFocused();
      await hands.type('300', 'Tab');
      await hands.type('200', 'Enter');
      await hands.kept(1);
      await hands.point('base.top', { at: [0.25, 0.5] });
      await hands.menu('Bend walls along all 4 edges, corners mitred');
      await hands.type('40', 'Enter');
      await hands.kept(2);
      await hands.point('walls.front.end');
      await hands.menu('Bend lips along all 4 of these, corners mitred');
      await hands.type('12', 'Enter');
      await hands.kept(3);
      await saved(page);
      await hands.click(page.getByRole('button', { name: /^release/ }));
      const cut = cutSize((await hands.file('Blank, DXF')).toString());
      hands.within(15);
      // Two bends on each side; the inside radius follows the thickness.
      const k = 0.45;
      const bend = deduction(1.5, 1.5, k);
      expect(cut.width).toBeCloseTo(300 + 2 * (40 + 12) - 4 * bend, 1);
      expect(cut.height).toBeCloseTo(200 + 2 * (40 + 12) - 4 * bend, 1);
    });

    test('two numbers off a picture by pointing: 14 actions, and both hold', async ({ page, request, hasTouch }) => {
      const hands = await emptyJob(page, request, 'BP-5', hasTouch);
      const made = await request.post(`${page.url().replace('/jobs/', '/api/jobs/')}/pieces`, {
        data: { document: BORED },
      });
      const { id } = await made.json();
      const picture = await (await request.get('/api/pieces/1/drawing')).body();
      await page.goto(`/pieces/${id}`);
      if (hasTouch) await hands.click(page.getByRole('tab', { name: 'Drawing says' }));
      const choosing = page.waitForEvent('filechooser');
      await hands.click(page.getByRole('button', { name: /Put in a picture/ }));
      await (await choosing).setFiles({ name: 'drawing.png', mimeType: 'image/png', buffer: picture });
      hands.actions += 1;
      const drawing = page.locator('.drawing img');
      await expect(drawing).toBeVisible();
      await hands.click(drawing, { x: 60, y: 40 });
      await expect(page.getByLabel('The number that stands here')).toBeFocused();
      await hands.type('30', 'Enter');
      await expect(page.getByText(/point at what it measures/)).toBeVisible();
      await hands.point('bore');
      await hands.menu(/is the diameter/);
      await expect(page.locator('tr[data-callout=A]')).toContainText('holds');
      await hands.click(drawing, { x: 120, y: 60 });
      await hands.type('60', 'Enter');
      await expect(page.getByText(/point at what it measures/)).toBeVisible();
      await hands.point('bore');
      await hands.point('base.left');
      await hands.menu(/is the least distance/);
      await expect(page.locator('tr[data-callout=B]')).toContainText('holds');
      hands.within(14);
      await expect(page.getByRole('contentinfo')).toContainText('2 hold');
      await clean(page, 'bench with numbers taken off');
    });

    test('a table by pointing: 20 actions, and its cut list has its lengths', async ({ page, request, hasTouch }) => {
      const hands = await emptyJob(page, request, 'BP-6', hasTouch);
      await hands.click(page.getByRole('button', { name: 'New frame' }));
      await hands.click(page.getByRole('button', { name: /^Confirm the stock/ }));
      await hands.click(page.getByRole('button', { name: 'Lay a table' }));
      await expect(page.getByLabel('width', { exact: true })).toBeFocused();
      await hands.type('1200', 'Tab');
      await hands.type('700', 'Tab');
      await hands.type('800', 'Tab');
      await hands.type('200', 'Tab');
      await hands.type('SHS 50x50x3', 'Enter');
      await hands.kept(1);
      await saved(page);
      await expect(page.getByRole('contentinfo')).toContainText('1200 mm × 700 mm × 800 mm');
      await expect(page.getByRole('contentinfo')).not.toContainText('broken');
      await hands.click(page.getByRole('button', { name: /^release/ }));
      const paper = await hands.file('Cut list, PDF');
      hands.within(20);
      expect(paper.subarray(0, 4).toString()).toBe('%PDF');
      // The same list as text: a mitred ring of 1200 and 700, four legs of 750 under it, rails between the legs.
      const list = (await hands.file('Cut list, CSV')).toString();
      for (const long of ['1200', '700', '750', '1100', '600'])
        expect(list).toMatch(new RegExp(`[,;]${long}(\\.0+)?[,;]`));
      await clean(page, 'table by pointing');
    });
  });
}

/** Parts by the keyboard alone: the lines that are typed, the files that are taken, the most actions that it may take. */
const TYPED = [
  {
    number: 'BK-1',
    begin: 'New piece',
    material: undefined,
    thickness: '3 mm',
    lines: [
      'lay down 140, 80',
      'bend base.left, 50, 90 deg',
      'bend base.right, 50, 90 deg',
      'drill base, 4x Ø9, 15 from the edges',
      'cut base, slot 10 x 30 overall',
    ],
    files: ['Blank, DXF', 'Flat sheet, PDF'],
    most: 56,
    width: 140 + 2 * 50 - 2 * deduction(3, 3, 0.44),
  },
  {
    number: 'BK-2',
    begin: 'New plate',
    material: undefined,
    thickness: '12 mm',
    lines: [
      'lay down 250, 150',
      'drill base, 4x clearance M16, 30 from the edges',
      'drill base, 80',
      'corner base, round 20',
    ],
    files: ['Blank, DXF', 'Cut program, G-code', '1:1 template, PDF'],
    most: 72,
    width: 250,
  },
  {
    number: 'BK-3',
    begin: 'New plate',
    material: undefined,
    thickness: '1/2 in',
    lines: [
      'lay down 10 in, 6 in',
      'drill base, 4x clearance M16, 1 1/4 in from the edges',
      'drill base, Ø3 1/8 in',
      'corner base, round 3/4 in',
    ],
    files: ['Blank, DXF', 'Cut program, G-code', '1:1 template, PDF'],
    most: 41,
    width: 254,
  },
  {
    number: 'BK-4',
    begin: 'New piece',
    material: '1.4301',
    thickness: '1.5 mm',
    lines: [
      'lay down 300, 200',
      'bend base.front base.right base.back base.left, 40, mitred 0.5',
      'bend flange.front.end flange.right.end flange.back.end flange.left.end, 12, mitred 0.5',
    ],
    files: ['Blank, DXF'],
    most: 23,
    // Two bends on each side.
    width: 300 + 2 * (40 + 12) - 4 * deduction(1.5, 1.5, 0.45),
  },
];

/** The stock of a new piece by the keyboard: the thickness has the focus, its material is one Shift+Tab away. */
async function typeStock(hands: Hands, material: string | undefined, thickness: string): Promise<void> {
  const { page } = hands;
  await expect(page.getByLabel('thickness')).toBeFocused();
  if (material) {
    await hands.key('Shift+Tab');
    await expect(page.getByLabel('material')).toBeFocused();
    await expect(page.getByLabel('material').locator('option')).not.toHaveCount(1);
    const titles = await page.getByLabel('material').locator('option').allTextContents();
    const title = titles.find((one) => one.includes(material)) ?? material;
    // A list of the browser's goes to what is typed.
    await hands.type(title, 'Tab');
    await expect(page.getByLabel('thickness')).toBeFocused();
  }
  await page.getByLabel('thickness').selectText();
  await hands.type(thickness, 'Enter');
  await expect(page.getByRole('form', { name: 'Stock' })).toHaveCount(0);
}

/** Takes a file by its words with Ctrl+K. */
async function goFor(hands: Hands, file: string): Promise<Buffer> {
  const { page } = hands;
  await hands.key('Control+k');
  await expect(page.getByRole('dialog').getByLabel('Go to', { exact: true })).toBeFocused();
  const coming = page.waitForEvent('download');
  await hands.type(file, 'Enter');
  return readFileSync(await (await coming).path());
}

for (const { number, begin, material, thickness, lines, files, most, width } of TYPED) {
  test(`${number} by the keyboard alone: no more than ${most} actions`, async ({ page, request, hasTouch }) => {
    const hands = await emptyJob(page, request, number, hasTouch);
    await expect(page.getByRole('button', { name: begin })).toBeVisible();
    await hands.tabTo(page.getByRole('button', { name: begin }));
    await hands.key('Enter');
    await typeStock(hands, material, thickness);
    await hands.key('/');
    await expect(page.getByLabel('New operation')).toBeFocused();
    for (const [at, line] of lines.entries()) {
      await hands.type(line, 'Enter');
      await hands.kept(at + 1);
    }
    await hands.key('Escape');
    await saved(page);
    const taken: Buffer[] = [];
    for (const file of files) taken.push(await goFor(hands, file));
    expect(hands.actions).toBeLessThanOrEqual(most);
    expect(cutSize(String(taken[0])).width).toBeCloseTo(width, 1);
  });
}

test('a table by the keyboard alone: no more than 59 actions', async ({ page, request }) => {
  const hands = await emptyJob(page, request, 'BK-6');
  const begin = page.getByRole('button', { name: 'New frame' });
  await expect(begin).toBeVisible();
  await hands.tabTo(begin);
  await hands.key('Enter');
  await hands.tabTo(page.getByRole('button', { name: /^Confirm the stock/ }));
  await hands.key('Enter');
  await expect(page.getByRole('form', { name: 'Stock' })).toHaveCount(0);
  await hands.key('/');
  await expect(page.getByLabel('New operation')).toBeFocused();
  await hands.type('frame table, 1200, 700, 800, rail 200, SHS 50x50x3, mitred ring', 'Enter');
  await hands.kept(1);
  await hands.key('Escape');
  await saved(page);
  await expect(page.getByRole('contentinfo')).toContainText('1200 mm × 700 mm × 800 mm');
  const list = (await goFor(hands, 'Cut list, CSV')).toString();
  expect((await goFor(hands, 'Cut list, PDF')).subarray(0, 4).toString()).toBe('%PDF');
  hands.within(59);
  for (const long of ['1200', '700', '750', '1100', '600']) expect(list).toMatch(new RegExp(`[,;]${long}(\\.0+)?[,;]`));
});

test('two numbers of a picture by the keyboard alone: no more than 28 actions', async ({ page, request }) => {
  const hands = await emptyJob(page, request, 'BK-5');
  const made = await request.post(`${page.url().replace('/jobs/', '/api/jobs/')}/pieces`, {
    data: { document: BORED },
  });
  const picture = await (await request.get('/api/pieces/1/drawing')).body();
  await page.goto(`/pieces/${(await made.json()).id}`);
  await expect(page.getByRole('contentinfo', { name: 'Proof' })).toContainText('mass each');
  await hands.key('Control+k');
  await expect(page.getByRole('dialog').getByLabel('Go to', { exact: true })).toBeFocused();
  const choosing = page.waitForEvent('filechooser');
  await hands.type('put in a picture', 'Enter');
  await (await choosing).setFiles({ name: 'drawing.png', mimeType: 'image/png', buffer: picture });
  hands.actions += 1;
  await expect(page.locator('.drawing img')).toBeVisible();
  const number = async (name: string, value: string, measures: string, places: string[]) => {
    await hands.key('Control+k');
    await expect(page.getByRole('dialog').getByLabel('Go to', { exact: true })).toBeFocused();
    await hands.type('add a call-out', 'Enter');
    const editor = page.getByRole('group', { name: `Call-out ${name}` });
    await expect(editor.getByLabel('value', { exact: true })).toBeFocused();
    await hands.type(value, 'Enter');
    await expect(editor.getByRole('button', { name: /^value:/ })).toBeFocused();
    await hands.tabTo(editor.getByLabel('measures'));
    await hands.type(measures, 'Tab');
    for (const [at, place] of places.entries()) await hands.type(place, at < places.length - 1 ? 'Tab' : 'Enter');
    await expect(page.locator(`tr[data-callout=${name}]`)).toContainText('holds');
  };
  await number('A', '30', 'hole diameter', ['bore']);
  await number('B', '60', 'distance', ['bore', 'base.left']);
  hands.within(28);
  await expect(page.getByRole('contentinfo')).toContainText('2 hold');
});
