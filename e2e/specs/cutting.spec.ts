import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { clean, confirmStock, freshJob, saved } from './common';

const verdict = (page: Page) => page.getByRole('contentinfo').getByRole('button', { name: /^simulated cutter/ });

/** Types into a value of the sentences on the left. */
async function set(page: Page, label: string, text: string): Promise<void> {
  await page.getByRole('button', { name: new RegExp(`^${label}:`) }).click();
  await page.keyboard.press('Control+A');
  await page.keyboard.type(text);
  await page.keyboard.press('Enter');
}

test('a flange is traced from a photo, pulled to round numbers, and cut', async ({ page, request }) => {
  const { job, pieces } = await freshJob(request);
  const photo = await (await request.get(`/api/pieces/${pieces['PF-05']}/photo`)).body();
  await page.goto(`/jobs/${job}`);
  await page.getByRole('button', { name: 'New plate' }).click();
  await confirmStock(page, '10 mm');
  await page.getByRole('button', { name: '/ — lay down' }).click();
  await page.getByLabel('New operation').fill('lay down outline');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  const stands = page.locator('.says').getByRole('status');
  await expect(stands).toContainText('numbers still missing');
  // What is no picture is refused, and nothing changes.
  await page
    .getByLabel('Picture file to trace')
    .setInputFiles({ name: 'sample.png', mimeType: 'image/png', buffer: Buffer.from('not a picture') });
  await expect(page.getByText('no PNG, JPEG or WebP picture')).toBeVisible();
  await page
    .getByLabel('Picture file to trace')
    .setInputFiles({ name: 'sample.png', mimeType: 'image/png', buffer: photo });
  await expect(page.getByText('The picture is in.')).toBeVisible();
  // The scale by the rule below: 150 mm between two pixels, and the rule at the side as a check.
  const typed = async (label: string, ...spots: string[]) => {
    const next = page.getByLabel(label);
    for (const spot of spots) {
      await next.fill(spot);
      await next.press('Enter');
    }
  };
  const tools = page.getByRole('toolbar', { name: 'Picture to trace' });
  await tools.getByRole('button', { name: 'scale' }).click();
  await typed('Next point, right and down in pixels of the picture', '75, 508', '825, 508');
  await page.getByLabel('measured on the sample').fill('150 mm');
  await page.keyboard.press('Enter');
  await expect(page.locator('.tracing')).toContainText('0.2 mm a pixel');
  await tools.getByRole('button', { name: 'check' }).click();
  await typed('Next point, right and down in pixels of the picture', '842, 480', '842, 30');
  await page.getByLabel('measured on the sample').fill('90 mm');
  await page.keyboard.press('Enter');
  await expect(page.locator('.tracing')).toContainText('0 % off');
  // Traced by hand: eight corners, a little off, in mm from the scale's first point (pixel 75, 508).
  const at = (x: number, y: number) => `${(x + 75).toFixed(2)}, ${(y + 45.6).toFixed(2)}`;
  await page.getByRole('button', { name: 'draw anew' }).click();
  const lean = Math.acos(22 / 55);
  const [bx, by, ex, ey] = [38 * Math.cos(lean), 38 * Math.sin(lean), 55 + 16 * Math.cos(lean), 16 * Math.sin(lean)];
  await typed(
    'Next place, across and up in mm',
    at(ex, -ey),
    at(ex + 0.1, ey),
    at(bx, by - 0.1),
    at(-bx, by + 0.1),
    at(-ex, ey),
    at(-ex, -ey + 0.1),
    at(-bx, -by),
    at(bx - 0.1, -by),
  );
  await page.getByLabel('Next place, across and up in mm').press('Enter');
  for (const [edge, x, y] of [
    ['e1', 71, 0],
    ['e3', 0, 38],
    ['e5', -71.1, 0],
    ['e7', 0, -37.9],
  ] as const) {
    await page.getByRole('button', { name: 'arc', exact: true }).click();
    // The edge by the mouse, where no circle covers it.
    await page.locator(`.outline [aria-label^="${edge},"]`).dispatchEvent('click');
    await typed('Next place, across and up in mm', at(x, y));
    await expect(page.getByRole('button', { name: `${edge}, round edge` })).toBeVisible();
  }
  for (const [x, y, r] of [
    [0.1, 0, 24],
    [-55, 0.1, 5.5],
    [55, 0, 5.45],
  ] as const) {
    await page.getByRole('button', { name: '+ rim' }).click();
    await typed('Next place, across and up in mm', at(x + r, y), at(x, y + r), at(x - r, y));
  }
  await expect(page.locator('.tracing li').filter({ hasText: 'c1 diameter' })).toContainText('\u00b1');
  await clean(page, 'tracing');
  await page.getByRole('button', { name: 'pull all to round numbers' }).click();
  await expect(stands).toHaveText('Defined');
  const says = page.locator('.says');
  await expect(says.getByRole('button', { name: /^c1 diameter, number: 48 mm/ })).toBeVisible();
  await expect(says.getByRole('button', { name: /^c2 diameter, number: 11 mm/ })).toBeVisible();
  await expect(page.locator('.blank svg[role=img]')).toHaveAttribute('aria-label', /^Blank, 142 mm by 76 mm/);
  await expect(says.getByRole('button', { name: /^e3 radius, number: 38 mm/ })).toBeVisible();
  await saved(page);
  // And cut.
  await page.getByRole('link', { name: 'cutting', exact: true }).click();
  await expect(verdict(page)).toContainText('the part holds');
  const file = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Program, G-code' }).click();
  const text = readFileSync(await (await file).path(), 'utf8');
  expect(text).toContain('(CUT BASE.C1)');
  expect(text.match(/^M3 /gm)).toHaveLength(4);
});

test('how a plate is cut: cutter, leads, tabs, every refusal, the head over the stock', async ({ page, request }) => {
  const { pieces } = await freshJob(request);
  await page.goto(`/pieces/${pieces['AP-04']}/cutting`);
  await expect(verdict(page)).toContainText('the part holds');
  await clean(page, 'cutting');
  await expect(page.locator('.cuts button')).toHaveCount(6);
  await expect(page.locator('.cuts button').last()).toContainText('outside');
  for (const [label, text, words] of [
    ['lead-in', '3 deg', 'is an angle'],
    ['lead-in', '0.01 mm', 'is no lead-in'],
    ['margin of stock', '1 mm', 'margin for these leads'],
  ] as const) {
    await set(page, label, text);
    await expect(page.locator('.cutsay .fault')).toContainText(words);
    await page.keyboard.press('Escape');
  }
  await set(page, 'lead-in', '6 mm');
  await expect(page.getByRole('button', { name: /^lead-in: 6 mm/ })).toBeVisible();
  await page.getByRole('button', { name: '+ tabs' }).click();
  await expect(page.getByRole('button', { name: /^number of tabs: 3/ })).toBeVisible();
  await expect(page.locator('.cuts button')).toHaveCount(8);
  await set(page, 'number of tabs', '100');
  await expect(page.locator('.cutsay .fault')).toContainText('no count of tabs');
  await page.keyboard.press('Escape');
  await expect(verdict(page)).toContainText('the part holds');
  // Plasma cannot make the tap drills... nor the bolt holes of 13.5 in 15 mm: they go to the drill press.
  await page.getByLabel('Cutter', { exact: true }).selectOption('plasma-example');
  await expect(page.getByText('left to the drill press').first()).toBeVisible();
  await expect(page.locator('.cuts button')).toHaveCount(4);
  await page.getByLabel('Small holes').selectOption('refuse');
  await expect(page.getByRole('alert').first()).toContainText('below the 28 mm');
  await expect(page.getByText('There is no program yet.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Program, G-code' })).toBeDisabled();
  await page.getByRole('button', { name: 'undo', exact: true }).click();
  await expect(verdict(page)).toContainText('the part holds');
  // The head: by the slider to the end, run from the start.
  const time = page.getByRole('slider', { name: 'Time in the program' });
  await time.focus();
  await page.keyboard.press('End');
  await expect(page.locator('.scrub output')).toHaveAttribute('data-share', '100');
  await page.keyboard.press('Home');
  await page.getByLabel('Speed of the picture').selectOption('100');
  await page.keyboard.press('Escape');
  await page.locator('h2').first().click();
  await page.keyboard.press('p');
  await expect
    .poll(async () => Number(await page.locator('.scrub output').getAttribute('data-share')))
    .toBeGreaterThan(5);
  await verdict(page).click();
  await expect(page.getByRole('region', { name: 'What the simulated cutter measured' })).toContainText('bore');
  await clean(page, 'what was measured');
  await page.keyboard.press('Escape');
  await page
    .getByRole('contentinfo')
    .getByRole('button', { name: /^time each/ })
    .click();
  await page.getByText('why?').first().click();
  await expect(page.getByText('t = cut length / speed')).toBeVisible();
});

test('the shop keeps its own cutters, and refuses what none could be', async ({ page, request }) => {
  await page.goto('/shop');
  await expect(page.getByText('made-up examples')).toBeVisible();
  await clean(page, 'shop');
  const kerf = page.getByLabel('kerf, mm of row 1', { exact: true });
  await kerf.fill('wide');
  await kerf.press('Enter');
  await expect(page.getByText('"wide" is no number')).toBeVisible();
  await kerf.fill('-1');
  await kerf.press('Enter');
  await page.getByRole('button', { name: 'Save the cutters' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'Nothing was saved' })).toContainText(
    'row 1, kerf: -1 mm is outside 0.01 to 20 mm',
  );
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(kerf).toHaveValue('0.12');
  await kerf.fill('0.14');
  await kerf.press('Enter');
  await page.getByRole('button', { name: 'Save the cutters' }).click();
  await expect(page.getByRole('status')).toContainText('are saved');
  const table = await (await request.get('/api/cutters')).json();
  expect(table.cutters[0].rows[0].kerf).toBe(0.14);
  expect(table.examples).toBe(false);
  // Somebody who had the older table open is told.
  const stale = await request.put('/api/cutters', { data: { version: table.version - 1, cutters: table.cutters } });
  expect(stale.status()).toBe(409);
});

test('a perforation of fifteen thousand holes becomes a program that holds', async ({ page, request }) => {
  const { job } = await freshJob(request);
  const document = {
    steelk: 1,
    kind: 'plate',
    mark: 'PX-1',
    title: 'perforated',
    quantity: 1,
    unit: 'mm',
    stock: { material: 'S275', thickness: '2 mm' },
    operations: [
      { name: 'base', do: { lay_down: { shape: { rectangle: { width: '1010 mm', depth: '760 mm' } } } } },
      {
        name: 'perf',
        do: {
          drill: {
            panel: 'base',
            diameter: '4 mm',
            pattern: { fill: { rows: 'square', pitch: '7 mm', margin: '3 mm' } },
          },
        },
      },
    ],
  };
  const made = await (await request.post(`/api/jobs/${job}/pieces`, { data: { document } })).json();
  await page.goto(`/pieces/${made.id}/cutting`);
  await expect(verdict(page)).toContainText('the part holds', { timeout: 60_000 });
  await expect(page.getByRole('contentinfo')).toContainText('15445');
  await expect(page.locator('.cuts')).toContainText('more');
});
