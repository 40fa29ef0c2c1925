// The shop's page: bend tables row by row, what is refused told in place, and nothing lost by leaving.
import { expect, test } from '@playwright/test';
import { bench, clean, freshJob, saved, seen } from './common';

test('a bend table is edited row by row, and leaving with it unsaved is asked', async ({ page }) => {
  await seen(page);
  await page.goto('/shop');
  const tables = page.getByRole('region', { name: 'Bend tables' });
  await tables.getByRole('button', { name: 'Copy it' }).click();
  const before = await tables.getByRole('row').count();
  await tables.getByRole('button', { name: 'Copy row 1', exact: true }).click();
  await expect(tables.getByRole('row')).toHaveCount(before + 1);
  const figure = tables.getByLabel('figure of row 2', { exact: true });
  await expect(figure).toHaveValue('0.6');
  await figure.fill('4,25');
  await figure.press('Enter');
  await expect(figure).toHaveValue('4.25');
  await figure.fill('much');
  await figure.press('Enter');
  await expect(tables.getByText('"much" is no number; it stays 4.25.')).toBeVisible();
  await figure.fill('4.25');
  await figure.press('Enter');
  await page.getByRole('link', { name: 'Rack' }).click();
  const asked = page.getByRole('dialog', { name: 'Leave without saving?' });
  await expect(asked).toContainText('the bend tables');
  await clean(page, 'leave without saving');
  await asked.getByRole('button', { name: 'Stay' }).click();
  await expect(page).toHaveURL(/\/shop$/);
  await page.getByRole('link', { name: 'Rack' }).click();
  await asked.getByRole('button', { name: 'Leave, and lose it' }).click();
  await expect(page).toHaveURL(/\/$/);
});

test('a figure of a cutter that cannot be is told where it was typed', async ({ page }) => {
  await seen(page);
  await page.goto('/shop');
  const kerf = page.getByLabel('kerf, mm of row 2', { exact: true });
  const was = await kerf.inputValue();
  await kerf.fill('-3');
  await kerf.press('Enter');
  await page.getByRole('button', { name: 'Save the cutters' }).click();
  await expect(page.getByRole('alert').filter({ hasText: /row 2, kerf: .*Nothing was saved/ })).toBeVisible();
  await expect(kerf).toHaveAttribute('aria-invalid', 'true');
  await kerf.fill(was);
  await kerf.press('Enter');
  await expect(kerf).toHaveAttribute('aria-invalid', 'false');
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
});

test('a made-up row is marked until it is ours; what was before is taken up again', async ({ page, request }) => {
  const shipped = (await (await request.get('/api/cutters')).json()).cutters;
  try {
    await seen(page);
    await page.goto('/shop');
    const mark = page.getByRole('button', { name: /^Row 1 is a made-up example/ }).first();
    await expect(page.getByText(/rows are made-up examples that describe no real machine/)).toBeVisible();
    await mark.click();
    await expect(page.getByLabel('Where row 1 comes from')).toHaveValue(/^the shop, \d{4}-\d\d-\d\d$/);
    const quality = page.getByLabel('Quality of row 1', { exact: true });
    await quality.fill('clean');
    await quality.press('Enter');
    await page.getByRole('button', { name: 'Save the cutters' }).click();
    await expect(page.getByText("The shop's cutters are saved.")).toBeVisible();
    const kept = (await (await request.get('/api/cutters')).json()).cutters[0].rows[0];
    expect([kept.made_up, kept.quality]).toEqual([undefined, 'clean']);
    await page.getByRole('button', { name: 'What was before' }).first().click();
    const before = page.getByRole('dialog', { name: 'What the cutters were before' });
    await expect(before.getByRole('row').last()).toContainText('as Steelk ships it');
    await clean(page, 'what was before');
    await before
      .getByRole('button', { name: /up again$/ })
      .last()
      .click();
    await expect(before).toHaveCount(0);
    await expect(page.getByText(/The cutters are as Steelk ships it/)).toBeVisible();
    await expect(page.getByRole('button', { name: /^Row 1 is a made-up example/ }).first()).toBeVisible();
    // Nothing was saved by looking.
    expect((await (await request.get('/api/cutters')).json()).cutters[0].rows[0].quality).toBe('clean');
    // A file that is none is refused, and the page is as it was.
    await page.getByLabel('Cutters as TOML').setInputFiles({
      name: 'other.toml',
      mimeType: 'application/toml',
      buffer: Buffer.from('cutter = 3'),
    });
    await expect(page.getByRole('alert').filter({ hasText: 'Nothing was taken over.' })).toBeVisible();
  } finally {
    const { version } = await (await request.get('/api/cutters')).json();
    const put = await request.put('/api/cutters', { data: { version, cutters: shipped } });
    expect(put.ok(), await put.text()).toBe(true);
  }
});

test("a screw of the shop's own is taken over by a hole, by its numbers", async ({ page, request }) => {
  try {
    const { pieces } = await freshJob(request);
    await seen(page);
    await page.goto('/shop');
    const screws = page.getByRole('region', { name: 'Screws' });
    await screws.getByRole('button', { name: 'Add a screw' }).click();
    const set = async (label: string, text: string) => {
      await screws.getByLabel(label, { exact: true }).fill(text);
      await screws.getByLabel(label, { exact: true }).press('Enter');
    };
    await set('Name of screw 1', 'M5');
    await screws.getByRole('button', { name: 'Save the screws' }).click();
    await expect(screws.getByRole('alert')).toContainText("in the standards' table");
    await set('Name of screw 1', 'Insert-5');
    await set('Widest diameter of Insert-5, mm', '12.5');
    await set('Cone of Insert-5, deg', '100');
    await screws.getByRole('button', { name: 'Save the screws' }).click();
    await expect(screws.getByText('Saved. Holes that took one')).toBeVisible();
    await bench(page, pieces['AP-04'] ?? 0);
    await page.keyboard.press('/');
    await page.keyboard.type('drill base, 6 mm, countersunk for Insert-5, from base.left 20 mm, from base.front 25 mm');
    await page.keyboard.press('Enter');
    const hole = page.locator('ol.work > li').last();
    await expect(hole).toContainText('countersunk to 12.5 mm at 100 deg');
    await saved(page);
  } finally {
    const { version } = await (await request.get('/api/shop/screws')).json();
    if (version > 0) await request.put('/api/shop/screws', { data: { version, screws: [] } });
  }
});
