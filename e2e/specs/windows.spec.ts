// Two windows on one piece, a server that goes and comes back, what is deleted and comes back.
import { expect, test, type Page } from '@playwright/test';
import { bench, clean, freshJob, saved, seen } from './common';

const quantity = async (page: Page, to: string) => {
  await page.getByRole('button', { name: /^quantity:/ }).click();
  await page.keyboard.press('Control+A');
  await page.keyboard.type(to);
  await page.keyboard.press('Enter');
};
const title = async (page: Page, to: string) => {
  await page.getByRole('button', { name: /^title:/ }).click();
  await page.keyboard.press('Control+A');
  await page.keyboard.type(to);
  await page.keyboard.press('Enter');
};

test("another window's change is told within seconds, and both are put together", async ({
  browser,
  page,
  request,
}) => {
  const { pieces } = await freshJob(request);
  const id = pieces['WB-02'] ?? 0;
  await bench(page, id);
  // Another browser: nothing but the server tells them of each other.
  const other = await (await browser.newContext()).newPage();
  await bench(other, id);
  await quantity(other, '7');
  await saved(other);
  const told = page.getByRole('alert').filter({ hasText: 'Another window saved this piece' });
  await expect(told).toBeVisible({ timeout: 8000 });
  await expect(told).toContainText('quantity: changed there: 7');
  await clean(page, "another window's change");
  // One that changes something else keeps both.
  await title(page, 'Bracket of both');
  await expect(told).toContainText('what you changed since is not saved');
  await expect(page.getByText('saved', { exact: true })).toHaveCount(0);
  await told.getByRole('button', { name: 'Keep both' }).click();
  await saved(page);
  await expect(page.getByRole('button', { name: /^quantity: 7/ })).toBeVisible();
  await expect(other.getByRole('alert')).toContainText('title: changed there: Bracket of both', { timeout: 8000 });
  await other.getByRole('button', { name: 'Show it', exact: true }).click();
  await expect(other.getByRole('button', { name: /^title: Bracket of both/ })).toBeVisible();
  // Both change the same: nobody puts them together.
  await quantity(page, '3');
  await saved(page);
  await quantity(other, '9');
  const conflict = other.getByRole('alert').filter({ hasText: 'Both changed the same' });
  await expect(conflict).toContainText('quantity: changed here: 9; changed there: 3');
  await expect(conflict.getByRole('button', { name: 'Keep both' })).toHaveCount(0);
  await conflict.getByRole('button', { name: 'Keep mine' }).click();
  await saved(other);
  await page.getByRole('button', { name: 'Show it', exact: true }).click({ timeout: 8000 });
  await expect(page.getByRole('button', { name: /^quantity: 9/ })).toBeVisible();
  await other.context().close();
});

test('with the server gone work goes on, is kept over a reload, and goes up when it is back', async ({
  page,
  request,
}) => {
  const { pieces } = await freshJob(request);
  const id = pieces['WB-02'] ?? 0;
  await bench(page, id);
  await page.route('**/api/**', (route) => route.abort());
  await quantity(page, '11');
  const alert = page.getByRole('alert').filter({ hasText: 'Not saved.' });
  await expect(alert).toContainText('The server does not answer');
  await expect(alert).toContainText('Picture and figures are of before your last changes');
  await expect(page.getByText('saved', { exact: true })).toHaveCount(0);
  await expect(page.getByRole('button', { name: /^quantity: 11/ })).toBeVisible();
  await page.unroute('**/api/**');
  await saved(page);
  await expect(page.getByRole('alert')).toHaveCount(0);
  const now = (await (await request.get(`/api/pieces/${id}`)).json()) as { document: { quantity: number } };
  expect(now.document.quantity).toBe(11);
  // A reload with the change not yet saved.
  await page.route('**/api/pieces/*', (route) =>
    route.request().method() === 'PUT' ? route.abort() : route.continue(),
  );
  await quantity(page, '12');
  await expect(alert).toBeVisible();
  page.on('dialog', (dialog) => void dialog.accept());
  await page.reload();
  await expect(page.getByRole('button', { name: /^quantity: 12/ })).toBeVisible();
  await page.unroute('**/api/pieces/*');
  await saved(page);
  const then = (await (await request.get(`/api/pieces/${id}`)).json()) as { document: { quantity: number } };
  expect(then.document.quantity).toBe(12);
});

test('what is deleted waits in the bin over a reload, and comes back', async ({ page, request }) => {
  const { job, number } = await freshJob(request);
  await seen(page);
  await page.goto(`/jobs/${job}`);
  await page.getByRole('button', { name: 'Delete GS-06' }).click();
  await expect(page.getByRole('article', { name: /^GS-06/ })).toHaveCount(0);
  await page.reload();
  const bin = page.getByRole('region', { name: 'Bin' });
  await bin.getByRole('button', { name: 'show 1 deleted' }).click();
  await expect(bin.getByRole('row').filter({ hasText: 'Drawbar gusset' })).toBeVisible();
  await clean(page, "a job's bin");
  await bin.getByRole('button', { name: 'Put GS-06 back' }).click();
  await expect(page.getByRole('article', { name: /^GS-06/ })).toBeVisible();
  // The picture of a drawing.
  await page.getByRole('link', { name: /^Open GS-06/ }).click();
  await page.getByRole('button', { name: 'Delete the picture of the drawing' }).click();
  await expect(page.getByRole('img', { name: /^Drawing of GS-06/ })).toHaveCount(0);
  await page.goto(`/jobs/${job}`);
  await bin.getByRole('button', { name: 'show 1 deleted' }).click();
  await bin.getByRole('button', { name: 'Put GS-06 back' }).click();
  await page.getByRole('link', { name: /^Open GS-06/ }).click();
  await expect(page.getByRole('img', { name: /^Drawing of GS-06/ })).toBeVisible();
  // A whole job, by a number that no other test's has.
  const own = `${number} ${job}`;
  await page.goto(`/jobs/${job}`);
  await page.getByRole('button', { name: 'change number, title, due' }).click();
  await page.getByLabel('Job number').fill(own);
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByRole('heading', { name: own })).toBeVisible();
  await page.goto('/');
  await page.getByRole('searchbox', { name: 'Search jobs' }).fill(own);
  await page.getByRole('button', { name: `Delete ${own}` }).click();
  await page.reload();
  await page.getByRole('region', { name: 'Bin' }).getByRole('button').first().click();
  await page.getByRole('button', { name: `Put ${own} back` }).click();
  await expect(page.getByRole('status').filter({ hasText: `${own} is put back` })).toBeVisible();
});
