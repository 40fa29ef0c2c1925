import { expect, test } from '@playwright/test';
import { bench, blankSize, freshJob, saved, type } from './common';

const SAME = /^Blank, 120 mm by 134.786 mm/;

test('a bad value is said under the field and leaves the piece as it was', async ({ page, request }) => {
  const { pieces } = await freshJob(request);
  await bench(page, pieces['WB-02'] ?? 0);
  for (const [sentence, label, text, words] of [
    ['Bend', 'leg', '45 deg', '45 deg is an angle; a leg length is needed'],
    ['Bend', 'leg', 'Q + 1', 'there is no call-out called Q'],
    ['Bend', 'leg', '5 mm', 'leaves no flat'],
    ['Bend', 'angle', '190 deg', 'a bend of 190 deg cannot be made'],
    ['Bend', 'edge', 'base.top', 'there is no edge called base.top'],
    ['Lay down', 'width', '12 mmm', '"mmm" is not a unit'],
    ['Lay down', 'width', 'B / 0', 'divides by zero'],
    ['Drill E', 'diameter', '400 mm', 'larger than upright'],
    ['Drill E', 'panel', 'lid', 'there is no panel called lid'],
    ['Drill E', 'measured from', 'base.back', 'is not an edge of upright'],
    ['Drill G', 'count', '2.5', 'is no count'],
  ] as const) {
    await type(page, sentence, label, text);
    await expect(page.locator('.fault').filter({ hasText: words }).first()).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(page.locator('.fault')).toHaveCount(0);
    await expect(blankSize(page)).toHaveAttribute('aria-label', SAME);
  }
  await saved(page);
  await page.reload();
  await expect(blankSize(page)).toHaveAttribute('aria-label', SAME);
});

test('call-outs: a ring, a reserved name, a bad tolerance', async ({ page, request }) => {
  const { pieces } = await freshJob(request);
  await bench(page, pieces['WB-02'] ?? 0);
  await page.getByRole('button', { name: 'Call-out A', exact: true }).click();
  const editor = page.getByRole('group', { name: 'Call-out A' });
  for (const [field, text, words] of [
    [/^value:/, 'A + 1 mm', 'go round in a ring'],
    [/^value:/, '(60 mm', 'never closed'],
    [/^call-out name:/, 'T', 'already means something'],
    [/^call-out name:/, 'B', 'taken by another call-out'],
  ] as const) {
    await editor.getByRole('button', { name: field }).click();
    await page.keyboard.press('Control+A');
    await page.keyboard.type(text);
    await page.keyboard.press('Enter');
    await expect(editor.locator('.fault')).toContainText(words);
    await page.keyboard.press('Escape');
  }
  await editor.getByRole('button', { name: /^plus and minus:/ }).click();
  await page.keyboard.press('Control+A');
  await page.keyboard.type('1 deg');
  await page.keyboard.press('Enter');
  await expect(page.locator('tr[data-callout=A]')).toContainText('unplaced');
  await expect(editor).toContainText('its tolerance cannot be read');
});

test('the operation line says what it lacks', async ({ page, request }) => {
  const { pieces } = await freshJob(request);
  await bench(page, pieces['WB-02'] ?? 0);
  await page.keyboard.press('/');
  const line = page.getByLabel('New operation');
  for (const [text, words] of [
    ['weld it', 'Start with one of: lay down, bend, profile, roll'],
    ['bend base.front', 'bend needs edge, leg'],
    ['drill base, 9 mm, somewhere', '"somewhere" is not understood'],
    ['drill base, 9 mm, from base.left 1 mm', 'runs out over the edge of base at base.left'],
    ['bend base.back, 20 mm', 'already bent there by upright'],
    ['lay down 10 mm, 10 mm', 'already laid down'],
  ] as const) {
    await line.fill(text);
    await page.keyboard.press('Enter');
    await expect(page.locator('#adder-fault')).toContainText(words);
  }
  await page.keyboard.press('Escape');
  await expect(page.locator('ol.work > li')).toHaveCount(6);
});

test('stock: an unknown gauge and a senseless thickness are refused', async ({ page, request }) => {
  const { pieces } = await freshJob(request);
  await bench(page, pieces['WB-02'] ?? 0);
  for (const [text, words] of [
    ['13 ga', 'there is no 13 gauge for mild steel'],
    ['0 mm', 'is no sheet or plate'],
    ['90 deg', 'a thickness is needed'],
  ] as const) {
    await page.getByRole('button', { name: /^thickness:/ }).click();
    await page.keyboard.press('Control+A');
    await page.keyboard.type(text);
    await page.keyboard.press('Enter');
    await expect(page.locator('.fault')).toContainText(words);
    await page.keyboard.press('Escape');
  }
  await page.getByRole('button', { name: /^thickness:/ }).click();
  await page.keyboard.press('Control+A');
  await page.keyboard.type('11 ga');
  await page.keyboard.press('Enter');
  await expect(page.getByText("3.038 mm, 11 gauge, Manufacturers' Standard Gauge")).toBeVisible();
});

test('files that are not what they should be', async ({ page, request }) => {
  const { job, pieces } = await freshJob(request);
  await bench(page, pieces['WB-02'] ?? 0);
  await page
    .getByLabel('Picture of the drawing', { exact: true })
    .setInputFiles({ name: 'drawing.png', mimeType: 'image/png', buffer: Buffer.from('not a picture') });
  await expect(page.getByRole('status').filter({ hasText: 'no PNG, JPEG or WebP' })).toBeVisible();
  await page.goto(`/jobs/${job}`);
  await page.getByLabel('Piece file').setInputFiles({
    name: 'piece.json',
    mimeType: 'application/json',
    buffer: Buffer.from('{"steelk": 1, "kind": "boat"}'),
  });
  await expect(page.getByRole('status').filter({ hasText: 'kind' })).toBeVisible();
  await page
    .getByLabel('Piece file')
    .setInputFiles({ name: 'piece.json', mimeType: 'application/json', buffer: Buffer.from('nonsense') });
  await expect(page.getByRole('status').filter({ hasText: 'is not a piece document' })).toBeVisible();
  await page.goto('/');
  await page
    .getByLabel('Job file')
    .setInputFiles({ name: 'job.json', mimeType: 'application/json', buffer: Buffer.from('{}') });
  await expect(page.getByRole('status').filter({ hasText: 'this is no job file' })).toBeVisible();
  await page.getByRole('button', { name: 'New job' }).click();
  await page.getByLabel('Job number').fill('TS-1');
  await page.getByRole('button', { name: 'Make it' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'a title has 1 to 200 characters' })).toBeVisible();
});

test('a blank with an error in it is not given out', async ({ page, request }) => {
  const { pieces } = await freshJob(request);
  const id = pieces['WB-02'] ?? 0;
  const view = await (await request.get(`/api/pieces/${id}`)).json();
  view.document.operations[4].do.drill.panel = 'lid';
  await request.put(`/api/pieces/${id}`, { data: { version: view.version, document: view.document } });
  await bench(page, id);
  await expect(page.locator('ol.work > li').nth(4)).toContainText('there is no panel called lid');
  await expect(page.getByRole('contentinfo', { name: 'Proof' })).toContainText('1 error');
  await page.getByRole('button', { name: /^release/ }).click();
  await page.getByRole('button', { name: 'Blank, DXF' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'no blank is given out' })).toBeVisible();
});

test('addresses that lead nowhere say so', async ({ page }) => {
  await page.goto('/pieces/9999');
  await expect(page.getByRole('alert')).toContainText('there is no piece with number 9999');
  await page.goto('/jobs/9999');
  await expect(page.getByRole('alert')).toContainText('there is no job with number 9999');
  await page.goto('/nowhere');
  await expect(page.getByRole('heading', { name: 'Nothing here' })).toBeVisible();
});
