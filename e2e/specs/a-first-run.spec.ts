import { expect, test } from '@playwright/test';
import { clean, drawn } from './common';

// Runs before any other file: the demo job is still the only one on the rack.
test('the first visit opens the demo on the bench, and only the first', async ({ page }) => {
  await page.goto('/');
  await expect(page).toHaveURL(/\/pieces\/1$/);
  await drawn(page);
  // A short way round, which can be left and taken again.
  const tour = page.getByRole('region', { name: 'A short way round' });
  await expect(tour).toContainText('The drawing says');
  await tour.getByRole('button', { name: 'Next' }).click();
  await expect(tour).toContainText('You do');
  await clean(page, 'the way round');
  await tour.getByRole('button', { name: 'Leave' }).click();
  await expect(tour).toHaveCount(0);
  await page.reload();
  await drawn(page);
  await expect(tour).toHaveCount(0);
  await page.keyboard.press('?');
  await page.getByRole('button', { name: 'A short way round the bench' }).click();
  for (const title of ['The drawing says', 'You do', 'You get', 'It is proved', 'It is released']) {
    await expect(tour).toContainText(title);
    await tour.getByRole('button', { name: /^(Next|Done)$/ }).click();
  }
  await expect(tour).toHaveCount(0);
  await page.goto('/');
  await expect(page.getByRole('grid', { name: 'Jobs' })).toBeVisible();
  await page.waitForTimeout(500);
  await expect(page).toHaveURL(/\/$/);
});
