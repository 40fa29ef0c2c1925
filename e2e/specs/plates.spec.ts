import { expect, test, type Page } from '@playwright/test';
import { bench, blankSize, clean, confirmStock, freshJob, saved, type } from './common';

/** Adds a step by its line. */
async function step(page: Page, text: string): Promise<void> {
  const line = page.getByLabel('New operation');
  const bar = page.getByRole('button', { name: '/ — lay down' });
  await expect(line.or(bar)).toBeVisible();
  if (await bar.isVisible()) await bar.click();
  const before = await page.locator('ol.work > li').count();
  await line.fill(text);
  await page.keyboard.press('Enter');
  await expect(page.locator('ol.work > li')).toHaveCount(before + 1);
}

/** Picks parts of the outline by the keyboard: a level edge has no height to click on. */
async function pick(page: Page, ...names: string[]): Promise<void> {
  for (const name of names) {
    await page.getByRole('button', { name: new RegExp(`^${name}, `) }).focus();
    await page.keyboard.press('Enter');
  }
}

async function say(page: Page, picked: string[], words: string, value?: string): Promise<void> {
  await pick(page, ...picked);
  await page
    .locator('.saybar')
    .getByRole('button', { name: value === undefined ? words : `${words}…`, exact: true })
    .click();
  if (value !== undefined) {
    await page.keyboard.type(value);
    await page.keyboard.press('Enter');
  }
  await expect(page.locator('.saybar b')).toHaveCount(0);
}

test('a plate from nothing: shape, corners, bolt circle, tapped holes', async ({ page, request }) => {
  const { job } = await freshJob(request);
  await page.goto(`/jobs/${job}`);
  await page.getByRole('button', { name: 'New plate' }).click();
  await confirmStock(page, '10 mm');
  await expect(page.getByText('No work yet.')).toBeVisible();
  await step(page, 'lay down 160 mm, 120 mm');
  await step(page, 'corner base, round 12 mm');
  await step(page, 'drill base, clearance M12, circle 4 on 100 mm from 45 deg');
  await step(page, 'drill base, tapped M6 6 mm deep, blind 7 mm, below, 2 off 130 mm');
  await page.keyboard.press('Escape');
  await expect(blankSize(page)).toHaveAttribute('aria-label', /^Blank, 160 mm by 120 mm/);
  await expect(page.locator('.blank .hole')).toHaveCount(6);
  await expect(page.locator('.blank .hole.blind')).toHaveCount(2);
  await expect(page.getByRole('contentinfo')).toContainText('· 5');
  // 10 mm plate: the rounded rectangle less four holes of 13.5 and two blind 5 mm drills with their points.
  const area = 160 * 120 - (4 - Math.PI) * 144 - Math.PI * 13.5 ** 2;
  const blind = 2 * ((Math.PI / 4) * 25 * 7 + ((Math.PI / 12) * 25 * 2.5) / Math.tan((59 * Math.PI) / 180));
  const mass = (area * 10 - blind) * 7850e-9;
  await expect(page.getByRole('contentinfo')).toContainText(`${Number(mass.toFixed(3))} kg`);
  await saved(page);
});

test('an outline: numbers put on a rough shape until it is defined, then one too many', async ({ page, request }) => {
  const { job } = await freshJob(request);
  await page.goto(`/jobs/${job}`);
  await page.getByRole('button', { name: 'New plate' }).click();
  await confirmStock(page, '10 mm');
  await step(page, 'lay down outline');
  await page.keyboard.press('Escape');
  await page.locator('ol.work > li').first().click();
  const stands = page.locator('.says').getByRole('status');
  // Four corners: eight places less three ways to lay the shape.
  await expect(stands).toHaveText('5 numbers still missing');
  await say(page, ['e1'], 'level');
  await say(page, ['e1'], 'length', '120 mm');
  await say(page, ['e2'], 'upright');
  await say(page, ['e2'], 'length', '70 mm');
  await say(page, ['e3', 'e1'], 'parallel');
  await expect(stands).toHaveText('1 number still missing');
  await say(page, ['e4'], 'upright');
  await expect(stands).toHaveText('Defined');
  await expect(blankSize(page)).toHaveAttribute('aria-label', /^Blank, 120 mm by 70 mm/);
  // Implied and true: a proof. Then false: the set is named, and the shape stays.
  await say(page, ['e4'], 'length', '70 mm');
  await expect(page.locator('.says li.implied')).toHaveCount(1);
  await page
    .locator('.says')
    .getByRole('button', { name: /^e4 length, number/ })
    .click();
  await page.keyboard.press('Control+A');
  await page.keyboard.type('72 mm');
  await page.keyboard.press('Enter');
  await expect(stands).toHaveText('These numbers disagree');
  await expect(page.locator('.says')).toContainText('disagree by 2 mm');
  await expect(blankSize(page)).toHaveAttribute('aria-label', /^Blank, 120 mm by 70 mm/);
  await expect(page.getByRole('contentinfo')).toContainText('1 error');
  await clean(page, 'outline stage');
  // A number that cannot be read is refused and leaves the saying as it was.
  await page
    .locator('.says')
    .getByRole('button', { name: /^e4 length, number/ })
    .click();
  await page.keyboard.press('Control+A');
  await page.keyboard.type('70 deg');
  await page.keyboard.press('Enter');
  await expect(page.locator('.says .fault')).toContainText('is an angle');
  await page.keyboard.press('Escape');
  await page.locator('.says').getByRole('button', { name: 'Take out: e4 length' }).click();
  await expect(stands).toHaveText('Defined');
  await saved(page);
});

test('an outline drawn anew by typed corners, rounded and with a circle said', async ({ page, request }) => {
  const { pieces } = await freshJob(request);
  await bench(page, pieces['PF-05'] ?? 0);
  await page.locator('ol.work > li').first().click();
  const stands = page.locator('.says').getByRole('status');
  await expect(stands).toHaveText('Defined');
  await page.locator('.says').getByRole('button', { name: 'Take out: e2 radius' }).click();
  await expect(stands).toHaveText('1 number still missing');
  await page.getByRole('button', { name: 'undo', exact: true }).click();
  await expect(stands).toHaveText('Defined');
  await page.getByRole('button', { name: 'draw anew' }).click();
  const next = page.getByLabel('Next place, across and up in mm');
  for (const spot of ['0, 0', '100, 0', '100, 60', '0, 80']) {
    await next.fill(spot);
    await next.press('Enter');
  }
  await next.press('Enter');
  // One edge was clicked level and two upright: a width and two heights are left.
  await expect(stands).toHaveText('3 numbers still missing');
  await expect(page.locator('.says > ol > li')).toHaveCount(3);
  await pick(page, 'e3');
  await page.getByRole('button', { name: 'make it round' }).click();
  await expect(page.getByRole('button', { name: 'e3, round edge' })).toBeVisible();
  await page.getByRole('button', { name: '+ circle' }).click();
  await expect(page.locator('.saybar')).toContainText('Click the middle');
});

test('forty holes along a flange', async ({ page, request }) => {
  const { pieces } = await freshJob(request);
  await bench(page, pieces['WB-02'] ?? 0);
  await type(page, 'Lay down a', 'width', '820 mm');
  await step(page, 'drill upright, 4 mm, along upright.end 8 mm pitch 20 mm inset 20 mm');
  await page.keyboard.press('Escape');
  await expect(page.locator('.blank [data-feature^="hole."]')).toHaveCount(40);
  await expect(page.locator('ol.work > li').last()).toContainText('40 holes, 39 spaces of 20 mm along upright.end');
});

test('what a plate cannot be is said in its own words', async ({ page, request }) => {
  const { pieces } = await freshJob(request);
  await bench(page, pieces['AP-04'] ?? 0);
  await page.keyboard.press('/');
  const line = page.getByLabel('New operation');
  for (const [text, words] of [
    ['bend base.front, 30 mm', 'AP-04 is a plate'],
    ['drill base, tapped M7', 'there is no thread M7'],
    ['drill base, clearance M13', 'no clearance hole for M13'],
    ['drill base, 9 mm, blind 20 mm, from base.left 20 mm', 'reaches through a sheet of 15 mm'],
    ['drill base, 9 mm, countersunk 8 mm, from base.left 20 mm', 'no larger than its hole'],
    ['drill base, 9 mm', 'lie in the same place'],
    ['drill base, 9 mm, circle 4 on 200 mm', 'outside base'],
    ['cut base, slot 200 mm between centres by 10 mm', 'runs out over the edge of base'],
    ['corner base, front/back, round 5 mm', 'no corner front/back'],
    ['corner base, round 90 mm', 'no corner between free edges'],
    ['drill base, 9 mm, along base.front 9 mm pitch 20 mm inset 90 mm', 'leave nothing of base.front'],
  ] as const) {
    await line.fill(text);
    await page.keyboard.press('Enter');
    await expect(page.locator('#adder-fault')).toContainText(words);
  }
  await page.keyboard.press('Escape');
  await expect(page.locator('ol.work > li')).toHaveCount(5);
});

test('a perforation of fifteen thousand holes takes an edit', async ({ page, request }) => {
  const { job } = await freshJob(request);
  await page.goto(`/jobs/${job}`);
  await page.getByRole('button', { name: 'New plate' }).click();
  await confirmStock(page, '10 mm');
  await step(page, 'lay down 1010 mm, 760 mm');
  await step(page, 'drill base, 4 mm, fill square 7 mm margin 3 mm');
  await page.keyboard.press('Escape');
  const field = page.locator('.blank .field');
  // Room for centres 1000 by 750: 143 by 108.
  await expect(field).toHaveAttribute('data-count', '15444');
  // Every one of them is on the picture, and what is looked at closely is drawn as it is.
  const tiles = page.locator('.blank .fieldtiles');
  await expect(tiles).toHaveAttribute('data-drawn', '15444');
  const around = await tiles.boundingBox();
  if (!around) throw new Error('no picture of the field');
  await page.mouse.move(around.x + around.width / 2, around.y + around.height / 2);
  await page.mouse.wheel(0, -2500);
  await expect.poll(async () => Number(await tiles.getAttribute('data-drawn'))).toBeLessThan(400);
  expect(Number(await tiles.getAttribute('data-drawn'))).toBeGreaterThan(4);
  await page.getByRole('button', { name: 'show it whole' }).click();
  await type(page, 'filling it', 'pitch', '10 mm');
  await expect(field).toHaveAttribute('data-count', String(101 * 76));
  await expect(page.getByRole('contentinfo')).toContainText('· 7677');
});

test('an outline from a DXF or SVG file: its report, its layers, refusals', async ({ page, request }) => {
  const { job, pieces } = await freshJob(request);
  const dxf = await (await request.get(`/api/pieces/${pieces['PF-05']}/files/blank.dxf`)).body();
  await page.goto(`/jobs/${job}`);
  const put = (name: string, buffer: Buffer) =>
    page.getByLabel('Outline file').setInputFiles({ name, mimeType: 'application/octet-stream', buffer });
  const dialog = page.getByRole('dialog');
  const alert = dialog.getByRole('alert');
  for (const [name, text, words] of [
    [
      'open.dxf',
      '0\nSECTION\n2\nENTITIES\n0\nLINE\n8\n0\n10\n0\n20\n0\n11\n30\n21\n5\n0\nENDSEC\n0\nEOF\n',
      'open.dxf: no contour closes',
    ],
    [
      'far.svg',
      '<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0L9e9 0L9e9 9e9Z"/></svg>',
      'no place within 100000 mm',
    ],
    ['empty.svg', '<svg xmlns="http://www.w3.org/2000/svg"/>', 'nothing drawn in it'],
    ['page.svg', '<html></html>', 'its root is <html>'],
    ['noise.dxf', '\u0001\u0002\u0003'.repeat(2000), 'longer than 4096 characters'],
  ] as const) {
    await put(name, Buffer.from(text));
    await expect(alert).toContainText(words);
    await expect(dialog.getByRole('button', { name: 'Lay it down as a new plate' })).toBeDisabled();
    await dialog.getByRole('button', { name: 'Leave it' }).click();
  }
  await put('flange.dxf', dxf);
  await expect(dialog).toContainText('142 by 76 mm, 3 holes');
  await expect(dialog.getByRole('checkbox', { name: /^CUT/ })).toBeChecked();
  await clean(page, 'outline file');
  // Without its layer there is nothing; with it again there is.
  await dialog.getByRole('checkbox', { name: /^CUT/ }).uncheck();
  await expect(alert).toContainText('nothing drawn in it');
  await dialog.getByRole('checkbox', { name: /^CUT/ }).check();
  await expect(alert).toHaveCount(0);
  await dialog.getByRole('button', { name: 'Lay it down as a new plate' }).click();
  await expect(page.locator('ol.work > li')).toContainText('flange.dxf (read in millimetres');
  await expect(blankSize(page)).toHaveAttribute('aria-label', /^Blank, 142 mm by 76 mm/);
  await expect(page.locator('.blank .hole')).toHaveCount(3);
});

test('an outline from an SVG file is cut into a panel of a bent piece', async ({ page, request }) => {
  const { pieces } = await freshJob(request);
  await bench(page, pieces['SB-05'] ?? 0);
  const before = await page.locator('ol.work > li').count();
  await page.getByLabel('Outline file').setInputFiles({
    name: 'badge.svg',
    mimeType: 'image/svg+xml',
    buffer: Buffer.from(
      '<svg xmlns="http://www.w3.org/2000/svg" width="12mm" height="8mm" viewBox="0 0 12 8"><path d="M2 0H10A2 2 0 0 1 12 2V6A2 2 0 0 1 10 8H2A2 2 0 0 1 0 6V2A2 2 0 0 1 2 0Z"/></svg>',
    ),
  });
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('12 by 8 mm, 0 holes');
  await dialog.getByRole('button', { name: 'Cut it into base' }).click();
  await expect(page.locator('ol.work > li')).toHaveCount(before + 1);
  await expect(page.locator('.blank [data-feature="cutout"]')).toHaveCount(1);
});

test('the hole table: balloons, another datum corner, files', async ({ page, request }) => {
  const { pieces } = await freshJob(request);
  await bench(page, pieces['AP-04'] ?? 0);
  await page
    .getByRole('contentinfo')
    .getByRole('button', { name: /^blank/ })
    .first()
    .click();
  const row = page.getByRole('row').filter({ hasText: 'bolt.1' });
  await expect(row).toContainText('B1');
  const left = await row.getByRole('gridcell').nth(2).innerText();
  await page.getByLabel('holes from').selectOption('lower_right');
  // The two places of a hole on a plate 160 mm wide.
  await expect
    .poll(async () => parseFloat(left) + parseFloat(await row.getByRole('gridcell').nth(2).innerText()))
    .toBeCloseTo(160, 3);
  await page.getByLabel('balloons on the blank').check();
  await expect(page.locator('.blank text.bl').first()).toHaveText('A1');
  await clean(page, 'hole table');
  const table = page.waitForEvent('download');
  await page.getByRole('button', { name: 'all holes, CSV' }).click();
  expect((await table).suggestedFilename()).toBe('AP-04_r1_S275_15mm_x2_holes.csv');
  await page
    .getByRole('contentinfo')
    .getByRole('button', { name: /^release/ })
    .click();
  const paper = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Template, PDF' }).click();
  expect((await paper).suggestedFilename()).toBe('AP-04_r1_S275_15mm_x2_template.pdf');
  await page.getByLabel('Check line across measured').fill('47 mm');
  await page.getByRole('button', { name: 'Corrected template, PDF' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'off by more than a fifth' })).toBeVisible();
});
