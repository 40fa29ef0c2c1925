// A piece of several blanks: parted on the bench, looked at one by one, its files and its cutting by their marks.
import { expect, test } from '@playwright/test';
import { bench, freshJob, seen } from './common';

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
