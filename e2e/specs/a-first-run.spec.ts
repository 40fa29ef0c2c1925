import { expect, test } from '@playwright/test';
import { drawn } from './common';

// Runs before any other file: the demo job is still the only one on the rack.
test('the first visit opens the demo on the bench, and only the first', async ({ page }) => {
  await page.goto('/');
  await expect(page).toHaveURL(/\/pieces\/1$/);
  await drawn(page);
  await page.goto('/');
  await expect(page.getByRole('grid', { name: 'Jobs' })).toBeVisible();
  await page.waitForTimeout(500);
  await expect(page).toHaveURL(/\/$/);
});
