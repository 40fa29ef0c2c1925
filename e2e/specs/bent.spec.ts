import { expect, test, type Page } from '@playwright/test';
import { readFile } from 'node:fs/promises';
import { bench, blankSize, clean, freshJob, saved, type, RULES_HOLD } from './common';

/** Adds a step by its line. */
async function step(page: Page, text: string): Promise<void> {
  const line = page.getByLabel('New operation');
  const bar = page.getByRole('button', { name: '/ — lay down' });
  await expect(line.or(bar)).toBeVisible();
  if (await bar.isVisible()) await bar.click();
  const before = await page.locator('ol.work > li').count();
  await line.fill(text);
  await line.press('Enter');
  await expect(page.locator('ol.work > li')).toHaveCount(before + 1);
}

/** A sheet piece with nothing laid down, 2 mm, R 2, K 0.4. */
async function emptySheet(page: Page, request: Parameters<typeof freshJob>[0], mark: string): Promise<void> {
  const { job } = await freshJob(request);
  const document = {
    steelk: 1,
    kind: 'sheet',
    mark,
    title: 'Test',
    quantity: 1,
    unit: 'mm',
    stock: { material: 'S275', thickness: '2 mm' },
    bending: { radius: '2 mm', method: { k_factor: '0.4' } },
  };
  const made = await (await request.post(`/api/jobs/${job}/pieces`, { data: { document } })).json();
  await page.goto(`/pieces/${made.id}`);
  await expect(page.getByText('No work yet.')).toBeVisible();
}

const size = (page: Page, text: RegExp) => expect(blankSize(page)).toHaveAttribute('aria-label', text);

test('a channel from its profile, seen from its end, and what is wrong with one', async ({ page, request }) => {
  await emptySheet(page, request, 'PR-1');
  await step(page, 'profile 15 mm, 90 deg, 40 mm, 90 deg, 100 mm, 90 deg, 40 mm, 90 deg, 15 mm, wide 200 mm');
  // 210 of legs less four deductions of 2 (R + T) - pi/2 (R + 0.4 T) = 3.602.
  await size(page, /^Blank, 195.593 mm by 200 mm/);
  await page.keyboard.press('Escape');
  await expect(page.getByRole('img', { name: 'Seen from its end: 100 mm by 40 mm' })).toBeVisible();
  // A lip that would run through the web is refused, with the place, and the piece stays.
  await type(page, 'a profile seen from its end', 'length of leg 5', '120 mm');
  await expect(page.getByText(/the profile runs into itself/)).toBeVisible();
  await page.keyboard.press('Escape');
  await size(page, /^Blank, 195.593 mm by 200 mm/);
  await page.locator('ol.work > li').first().getByRole('button', { name: '− last leg' }).click();
  await expect(page.getByRole('img', { name: /^Seen from its end/ })).toBeVisible();
  await size(page, /^Blank, 184.195 mm by 200 mm/);
  await saved(page);
});

test('rolled: an arc with leads, a chord that no arc has, a tube', async ({ page, request }) => {
  await emptySheet(page, request, 'RO-1');
  await step(page, 'roll radius 300 mm, 120 deg, lead in 50 mm, wide 200 mm');
  // 120 deg at the middle of the metal, 301 mm, and the lead.
  await size(page, /^Blank, 680.413 mm by 200 mm/);
  await page.keyboard.press('Escape');
  await page.getByLabel(/^rolled by of/).selectOption('chord');
  await type(page, 'to a radius of', 'chord', '700 mm');
  await expect(page.getByText(/longer than the circle is wide: 600 mm/)).toBeVisible();
  await page.keyboard.press('Escape');
  await type(page, 'to a radius of', 'lead in', '0');
  await page.getByLabel(/^rolled by of/).selectOption('tube');
  await size(page, /^Blank, 1890.235 mm by 200 mm/);
});

test('walls in one operation: corners, a lip, the same row of holes on all, then mirrored work', async ({
  page,
  request,
}) => {
  await emptySheet(page, request, 'BX-1');
  await step(page, 'lay down 200 mm, 120 mm');
  await step(page, 'bend base.front, 40 mm, 90 deg, up');
  await page.locator('ol.work > li').nth(1).locator('.sentence b').first().click();
  await page.getByLabel(/^Change flange/).selectOption('along every edge of the panel');
  await expect(page.locator('ol.work > li').nth(1)).toContainText('corners');
  await page.getByLabel('corners of flange').selectOption('mitred');
  await expect(page.getByRole('contentinfo', { name: 'Proof' })).toContainText(RULES_HOLD);
  await step(page, 'drill flange.front, 5 mm, along flange.front.end 12 mm pitch 30 mm inset 15 mm');
  await page.locator('ol.work > li').nth(2).locator('.sentence b').first().click();
  const holes = await page.locator('.blank .hole').count();
  await page.getByLabel(/^Change hole/).selectOption('the same in other panels');
  await expect.poll(() => page.locator('.blank .hole').count()).toBeGreaterThan(2 * holes);
  await page.keyboard.press('Escape');
  await step(page, 'hem flange.left.end, closed, 9 mm');
  await step(page, 'mirror hem, about base');
  await expect(page.getByRole('contentinfo', { name: 'Proof' })).not.toContainText('error');
  await saved(page);
});

test('a bend along a line, a joggle, a notch, tabs and their slots', async ({ page, request }) => {
  await emptySheet(page, request, 'LN-1');
  await step(page, 'lay down 120 mm, 80 mm');
  await step(page, 'crease base, 25 mm from base.front, 90 deg');
  await size(page, /^Blank, 120 mm by 80 mm/);
  await step(page, 'bend base.back, 40 mm, 90 deg, up');
  await step(page, 'joggle flange.end, 12 mm, leg 20 mm, down');
  await step(page, 'notch base.left, vee 8 mm by 5 mm');
  await expect(page.getByRole('contentinfo', { name: 'Proof' })).not.toContainText('error');
  await page.getByLabel('New operation').fill('slots step, base');
  await page.getByLabel('New operation').press('Enter');
  await expect(page.getByText(/there are no tabs called step/).first()).toBeVisible();
  await expect(page.locator('ol.work > li')).toHaveCount(5);
});

test('a light variant of the tray and its opposite hand: shown, its own files, the piece unchanged', async ({
  page,
  request,
}) => {
  const { pieces } = await freshJob(request);
  await bench(page, pieces['TT-01'] ?? 0);
  const holes = page.locator('.blank .hole');
  await expect(holes).toHaveCount(46);
  await page.getByLabel('Variant shown').selectOption('light');
  await expect(holes).toHaveCount(1);
  await page.getByLabel('Variant shown').selectOption('…');
  const panel = page.getByRole('table', { name: 'Variants' });
  await expect(panel).toContainText('TT-01L');
  await page.getByRole('button', { name: 'Add the opposite hand' }).click();
  await expect(panel.locator('tbody tr')).toHaveCount(2);
  await expect(panel.locator('tbody tr').nth(1)).toContainText('TT-01-opposite');
  // A call-out that is not there is refused in words.
  await panel.getByRole('button', { name: /^call-outs that opposite changes/ }).click();
  await page.keyboard.type('Z = 5 mm');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/it changes Z, and there is no such call-out/)).toBeVisible();
  await page.keyboard.press('Escape');
  await clean(page, 'variants');
  await saved(page);
  await page.keyboard.press('Escape');
  await page
    .getByRole('contentinfo')
    .getByRole('button', { name: /^release/ })
    .click();
  const file = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Bend table, CSV' }).click();
  const text = await readFile(await (await file).path(), 'utf8');
  expect((await file).suggestedFilename()).toMatch(/^TT-01L_r\d+_DX51D_2mm_x1_bends\.csv$/);
  expect(text).toContain('B1,front,90,up,2,');
  for (const [button, name] of [
    ['Folded part, STEP', 'part.step'],
    ['Flat sheet, PDF', 'flat.pdf'],
    ['Folded part, GLB', 'part.glb'],
  ] as const) {
    const next = page.waitForEvent('download');
    await page.getByRole('button', { name: button }).click();
    expect((await next).suggestedFilename()).toMatch(new RegExp(`^TT-01L_r\\d+_DX51D_2mm_x1_${name}$`));
  }
  // The cutter takes the variant that is shown: its handle and its outside, nothing else.
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: 'cutting', exact: true }).click();
  await expect(page.getByLabel('Variant shown')).toHaveValue('light');
  await expect(page.getByText('the part holds')).toBeVisible();
  await expect(page.getByRole('contentinfo')).toContainText('mm · 2');
  const program = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Program, G-code' }).click();
  expect((await program).suggestedFilename()).toMatch(/^TT-01L_r\d+_DX51D_2mm_x1_cut\.nc$/);
  await page.getByRole('link', { name: 'Bench' }).click();
  await page.getByLabel('Variant shown').selectOption('');
  await expect(holes).toHaveCount(46);
});

test('a measured table: read from CSV, refused where it is wrong, chosen, and told where it does not reach', async ({
  page,
  request,
}) => {
  await page.goto('/shop');
  const section = page.getByRole('region', { name: 'Bend tables' });
  await expect(section).toContainText('made up to show the form');
  const file = section.locator('input[type=file]');
  const head = 'family,thickness_mm,radius_mm,angle_deg,deduction_mm\n';
  await file.setInputFiles({
    name: 'bad.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(`${head}mild_steel,two,2,90,3.6\n`),
  });
  await expect(section.getByRole('alert')).toContainText('line 2: the thickness is "two", which is no number');
  await file.setInputFiles({
    name: 'ours.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(
      `# our 2 mm sheet\n# measured at the bench\n${head}mild_steel,2,2,45,1.1\nmild_steel,2,2,90,3.6\n`,
    ),
  });
  await expect(section.getByRole('status')).toContainText('our 2 mm sheet is read: 2 rows');
  await section.getByRole('button', { name: 'Save the bend tables' }).click();
  await expect(section.getByRole('status')).toContainText('are saved');
  await clean(page, 'shop');

  await emptySheet(page, request, 'MT-1');
  await step(page, 'lay down 100 mm, 60 mm');
  await step(page, 'bend base.back, 40 mm, 90 deg, up');
  await size(page, /^Blank, 100 mm by 96.398 mm/);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'The rest of the stock as usual' }).click();
  await page.getByLabel('measured bend table').selectOption('our 2 mm sheet');
  await size(page, /^Blank, 100 mm by 96.4 mm/);
  // What came out otherwise is listed.
  await expect(page.getByText('measured table our 2 mm sheet: ')).toBeVisible();
  await page.getByRole('button', { name: 'show what' }).click();
  await expect(page.locator('.changed li').first()).toContainText('→');
  await page.keyboard.press('Escape');
  await type(page, 'along base.back', 'angle', '120 deg');
  await expect(
    page.getByText(/the bend table our 2 mm sheet has 45 deg, 90 deg at R 2 mm; 120 deg is past them/),
  ).toBeVisible();
  await page.keyboard.press('Escape');
  await type(page, 'along base.back', 'angle', '60 deg');
  await page
    .getByRole('contentinfo')
    .getByRole('button', { name: /^blank/ })
    .first()
    .click();
  await expect(page.locator('.detail')).toContainText('in proportion between 45 deg');
  await page.keyboard.press('Escape');
  // Another family: the table is refused, not used in silence.
  await page.getByLabel('material', { exact: true }).selectOption('1.4301');
  await expect(page.getByText(/is for mild steel, and the part is stainless steel/).first()).toBeVisible();
});

test('the demo of both jobs: filter box and mudguard stand proved', async ({ page, request }) => {
  const { pieces } = await freshJob(request);
  for (const mark of ['MG-09', 'DC-10']) {
    await bench(page, pieces[mark] ?? 0);
    await expect(page.getByRole('contentinfo', { name: 'Proof' })).toContainText('proved');
  }
  await page.goto('/');
  await page.getByLabel('Search jobs').fill('TS-107');
  await page.getByRole('link', { name: 'TS-107', exact: true }).click();
  await page.getByRole('link', { name: 'Open FB-01 Filter box' }).click();
  await expect(page.getByRole('contentinfo', { name: 'Proof' })).toContainText('proved');
  await clean(page, 'filter box');
});
