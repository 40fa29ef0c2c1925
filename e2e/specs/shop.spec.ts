// The shop's page: bend tables row by row, what is refused told in place, and nothing lost by leaving.
import { expect, test } from '@playwright/test';
import { clean, seen } from './common';

test('a bend table is edited row by row, and leaving with it unsaved is asked', async ({ page }) => {
  await seen(page);
  await page.goto('/shop');
  const tables = page.getByRole('region', { name: 'Bend tables' });
  await tables.getByRole('button', { name: 'Copy it' }).click();
  const before = await tables.getByRole('row').count();
  await tables.getByRole('button', { name: 'Copy row 1', exact: true }).click();
  await expect(tables.getByRole('row')).toHaveCount(before + 1);
  const figure = tables.getByLabel('figure of row 2', { exact: true });
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
