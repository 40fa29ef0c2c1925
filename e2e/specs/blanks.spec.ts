// A piece of several blanks: parted on the bench, looked at one by one, its files and its cutting by their marks.
import { readFile } from 'node:fs/promises';
import { expect, test, type APIRequestContext } from '@playwright/test';
import { bench, clean, freshJob, saved, seen } from './common';

test('a tray is parted, and each blank has its place, its list and its files', async ({ page, request }) => {
  const { pieces } = await freshJob(request);
  await seen(page);
  await bench(page, pieces['TT-01'] ?? 0);
  await page.keyboard.press('/');
  await page.keyboard.type('part base, 150 mm from left.mould-outside');
  await page.keyboard.press('Enter');
  // Through the handle: told, and nothing is done.
  await expect(page.getByText(/runs through handle/)).toBeVisible();
  await page.keyboard.press('ControlOrMeta+a');
  await page.keyboard.type('part base, 97.5 mm from left.mould-outside');
  await page.keyboard.press('Enter');
  const blanks = page.getByRole('group', { name: 'Blanks' });
  await expect(blanks.getByRole('button')).toHaveText(['all 2', 'A', 'B']);
  const drawing = page.locator('.blank svg[role=img]');
  await expect(drawing).toHaveAccessibleName(/2 blanks side by side: TT-01-A/);
  await blanks.getByRole('button', { name: 'B' }).click();
  await expect(drawing).toHaveAccessibleName(/^Blank, 258\.961 mm by 252\.922 mm/);
  await expect(drawing.locator('[data-feature="left"]')).toHaveCount(0);
  await expect(drawing.locator('[data-feature="right"]')).toHaveCount(1);
  await page
    .getByRole('button', { name: /^sheets/ })
    .first()
    .click();
  const seams = page.getByRole('grid', { name: 'Seams' });
  await expect(seams.getByRole('row').nth(1)).toContainText('base.cut-split');
  await page.keyboard.press('Escape');
  await page.keyboard.press('ControlOrMeta+z');
  await expect(blanks).toHaveCount(0);
});

/** An empty piece of sheet 1.5 in a job of its own. */
async function emptySheet(request: APIRequestContext): Promise<number> {
  const { job } = await freshJob(request);
  const document = {
    steelk: 1,
    kind: 'sheet',
    mark: 'HD-1',
    title: 'Hood',
    quantity: 1,
    unit: 'mm',
    stock: { material: '1.4301', thickness: '1.5 mm' },
    bending: { radius: '2 mm', method: { k_factor: '0.44' } },
  };
  const made = (await (await request.post(`/api/jobs/${job}/pieces`, { data: { document } })).json()) as { id: number };
  return made.id;
}

test('a pyramid by one line: rim flanges pair by pair, what it holds, a row on its rim', async ({ page, request }) => {
  const id = await emptySheet(request);
  await seen(page);
  await page.goto(`/pieces/${id}`);
  await expect(page.getByText('No work yet.')).toBeVisible();
  const say = async (line: string) => {
    await page.keyboard.press('/');
    await page.keyboard.press('ControlOrMeta+a');
    await page.keyboard.type(line);
    await page.keyboard.press('Enter');
  };
  await say('transition 300 mm by 240 mm, point, 200 mm');
  await expect(page.locator('ol.work > li')).toHaveCount(1);
  await page.keyboard.press('Escape');
  const step = page.locator('ol.work > li').first();
  await step.click();
  await expect(step).toContainText('to a point at a height of');
  await page.getByLabel('edges between panels of pyramid').selectOption('seams');
  await expect(page.getByRole('group', { name: 'Blanks' }).getByRole('button')).toHaveText([
    'all 4',
    'A',
    'B',
    'A',
    'B',
  ]);
  await step.getByRole('button', { name: '+ rim flanges' }).click();
  await step.getByRole('button', { name: 'all panels' }).click();
  await page.keyboard.type('front, back');
  await page.keyboard.press('Enter');
  // The next ones go where there are none.
  await step.getByRole('button', { name: '+ rim flanges' }).click();
  await expect(step).toContainText('right, left');
  const rim = page.getByTestId('folded').getByRole('button', { name: 'pyramid.lower-rim-left', exact: true });
  await expect(rim).toHaveCount(1);
  await saved(page);
  await say('drill pyramid.front, 5.5 mm, rim 12 mm spaces 4');
  await expect(page.getByText(/pyramid\.front is no flange along a rim/)).toBeVisible();
  await say('drill pyramid.lower-rim-front, 5.5 mm, rim 12 mm');
  await expect(page.getByText(/Say "rim 12 mm from the opening spaces 6"/)).toBeVisible();
  await say('drill pyramid.lower-rim-front, 5.5 mm, rim 12 mm spaces 4');
  // 300 and 12 further out at either corner, in four.
  await expect(page.getByText(/3 holes, 4 spaces of 81 mm on pyramid\.lower-rim-front, 324 mm/)).toBeVisible();
  await page.keyboard.press('Escape');
  await page
    .getByRole('button', { name: /^sheets/ })
    .first()
    .click();
  // A third of base times height within walls 1.5 thick: 6 L less what they take.
  await expect(page.getByText(/pyramid: surface .*, holds /)).toBeVisible();
  await clean(page, 'a pyramid');
});

test('a hood from its numbers: an edge pointed at becomes a seam, and sheets, list and files follow', async ({
  page,
  request,
}) => {
  const id = await emptySheet(request);
  await seen(page);
  await page.goto(`/pieces/${id}`);
  await expect(page.getByText('No work yet.')).toBeVisible();
  await page.keyboard.press('/');
  await page.keyboard.type('transition 640 mm by 300 mm, 220 mm by 300 mm, 360 mm');
  await page.keyboard.press('Enter');
  await expect(page.locator('ol.work > li')).toHaveCount(1);
  await page.keyboard.press('Escape');
  const step = page.locator('ol.work > li').first();
  await step.click();
  const blanks = page.getByRole('group', { name: 'Blanks' });
  const edge = (between: string) =>
    page.getByRole('group', { name: 'hood from above: its edges between panels' }).getByRole('button', {
      name: new RegExp(`^${between}:`),
    });
  // Bent from one sheet: one of its edges is a seam already. A corner's true length is the root of 360 and 210 squared.
  await expect(edge('front/right')).toHaveAccessibleName(/^front\/right: bend, 416\.773 mm/);
  await expect(blanks).toHaveCount(0);
  await edge('front/right').press('Enter');
  await page.getByRole('menu', { name: 'The edge front/right' }).getByRole('menuitem', { name: 'seam' }).click();
  await expect(edge('front/right')).toHaveAccessibleName(/^front\/right: seam/);
  // The seam that stood there closes now: one sheet still.
  await expect(edge('front/left')).toHaveAccessibleName(/^front\/left: bend/);
  await edge('right/back').press('Enter');
  await page.getByRole('menu', { name: 'The edge right/back' }).getByRole('menuitem', { name: 'seam' }).click();
  await expect(blanks.getByRole('button')).toHaveText(['all 2', 'A', 'B']);
  // A sheet a panel: front and rear are alike, and so are left and right.
  await page.getByLabel('edges between panels of hood').selectOption('seams');
  await expect(blanks.getByRole('button')).toHaveText(['all 4', 'A', 'B', 'A', 'B']);
  // Who owns a corner: the front goes through there and is no longer like the back. The sides meet it square, inner face to inner face,
  // as before, and stay alike. Said again it is taken back.
  for (const letters of [
    ['A', 'B', 'C', 'B'],
    ['A', 'B', 'A', 'B'],
  ]) {
    await edge('front/left').press('Enter');
    const menu = page.getByRole('menu', { name: 'The edge front/left' });
    await menu.getByRole('menuitem', { name: 'front goes through' }).click();
    await expect(blanks.getByRole('button')).toHaveText(['all 4', ...letters]);
  }
  await step.getByRole('button', { name: '+ rim flanges' }).click();
  await expect(
    page.getByTestId('folded').getByRole('button', { name: 'hood.lower-rim-front', exact: true }),
  ).toHaveCount(1);
  await saved(page);
  await clean(page, 'a hood');
  await page
    .getByRole('button', { name: /^sheets/ })
    .first()
    .click();
  // Of the prismatoid between the inner faces; slopes by their tangents: 360 over 210.
  await expect(page.getByText(/hood: surface .* holds/)).toBeVisible();
  const panels = page.getByRole('grid', { name: 'Panels of hood' });
  await expect(panels.getByRole('row').filter({ hasText: 'hood.right' }).first()).toContainText('59.744 deg');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /^release/ }).click();
  for (const mark of ['A', 'B'])
    await expect(
      page.getByRole('button', { name: new RegExp(`HD-1-${mark}.*DXF|DXF.*HD-1-${mark}`) }).first(),
    ).toBeVisible();
});

/** The demo's hood in a job of its own. */
async function hood(request: APIRequestContext): Promise<{ job: number; id: number }> {
  const { job } = await freshJob(request);
  const document: unknown = JSON.parse(await readFile('../demo/21-tapered-hood.json', 'utf8'));
  const made = (await (await request.post(`/api/jobs/${job}/pieces`, { data: { document } })).json()) as { id: number };
  return { job, id: made.id };
}

test('the hood of four sheets: a DXF each, and both ways of saying it come to the same sheets', async ({
  page,
  request,
}) => {
  const { id } = await hood(request);
  await seen(page);
  await bench(page, id);
  const blanks = page.getByRole('group', { name: 'Blanks' });
  await expect(blanks.getByRole('button')).toHaveText(['all 4', 'A', 'B', 'C', 'D']);
  await page.getByLabel('Variant shown').selectOption('…');
  const table = page.getByRole('table', { name: 'Variants' });
  const both = table.getByRole('row').filter({ hasText: 'TH-01-elevations' });
  await expect(both).toContainText('holds');
  // The mass that the variants' table has of it is the piece's own.
  const mass = await both.locator('td.num').last().textContent();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('contentinfo')).toContainText(mass ?? 'no mass');
  await page
    .getByRole('contentinfo')
    .getByRole('button', { name: /^release/ })
    .click();
  for (const mark of ['A', 'B', 'C', 'D']) {
    const file = page.waitForEvent('download');
    await page
      .getByRole('button', { name: new RegExp(`TH-01-${mark}.*DXF|DXF.*TH-01-${mark}`) })
      .first()
      .click();
    expect((await file).suggestedFilename()).toMatch(new RegExp(`^TH-01-${mark}_.*\\.dxf$`));
  }
});

test('the card model of the hood: one fold with its template at 1:1 and its program, in no list', async ({
  page,
  request,
}) => {
  const { job, id } = await hood(request);
  await seen(page);
  await bench(page, id);
  await page.getByLabel('Variant shown').selectOption('card');
  const drawing = page.locator('.blank svg[role=img]');
  await expect(page.getByRole('group', { name: 'Blanks' })).toHaveCount(0);
  // At 1:4 the model is a quarter of the hood, and stands on one side's absence with two tabs.
  await expect(drawing).toHaveAccessibleName(/^Blank, \d{3}\./);
  await expect(drawing.locator('[data-feature="model.front-tab-left"]')).toHaveCount(1);
  await expect(page.getByText(/is made of its own: Card 0\.5 mm, .*at 1:4/)).toBeVisible();
  await page.getByLabel('Variant shown').selectOption('…');
  const table = page.getByRole('table', { name: 'Variants' });
  await expect(table.getByRole('button', { name: /^scale of card/ })).toHaveText('1:4');
  await expect(table.getByRole('row').filter({ hasText: 'TH-01-card' })).toContainText('holds');
  await clean(page, 'trial pieces');
  await page.keyboard.press('Escape');
  await page
    .getByRole('contentinfo')
    .getByRole('button', { name: /^release/ })
    .click();
  const template = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Template, PDF' }).click();
  const file = await template;
  expect(file.suggestedFilename()).toMatch(/^TH-01-card_.*Card_0\.5mm.*template\.pdf$/);
  expect((await readFile(await file.path())).subarray(0, 4).toString()).toBe('%PDF');
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: 'cutting', exact: true }).click();
  await expect(page.getByText('the part holds')).toBeVisible();
  const program = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Program, G-code' }).click();
  expect((await program).suggestedFilename()).toMatch(/^TH-01-card_.*cut\.nc$/);
  const list = (await (await request.get(`/api/jobs/${job}/files/cutlist.csv`)).text()).toString();
  expect(list).toContain('TH-01-A');
  expect(list).not.toContain('TH-01-card');
});
