import AxeBuilder from '@axe-core/playwright';
import { expect, type APIRequestContext, type Page } from '@playwright/test';

/** A copy of the demo job of its own for a test; the numbers of its pieces by mark. */
export async function freshJob(
  request: APIRequestContext,
): Promise<{ job: number; number: string; pieces: Record<string, number> }> {
  const made = await (await request.post('/api/jobs/1/copy')).json();
  return {
    job: made.job.id,
    number: made.job.number,
    pieces: Object.fromEntries(made.pieces.map((one: { mark: string; id: number }) => [one.mark, one.id])),
  };
}

/** Opens a piece on the bench and waits until it is built and drawn. */
export async function bench(page: Page, id: number): Promise<void> {
  await page.goto(`/pieces/${id}`);
  await expect(page.getByRole('contentinfo', { name: 'Proof' })).toBeVisible();
  await drawn(page);
}

/** Waits until the folded view has drawn at least one frame. */
export async function drawn(page: Page): Promise<void> {
  await expect
    .poll(async () => Number(await page.getByTestId('folded').getAttribute('data-frames')))
    .toBeGreaterThan(0);
}

export const saved = (page: Page) => expect(page.getByRole('status').filter({ hasText: /^saved$/ })).toBeVisible();

/** Types into a value of a sentence and presses Enter. */
export async function type(page: Page, sentence: string, label: string, text: string): Promise<void> {
  const line = page.locator('ol.work > li').filter({ hasText: sentence });
  await line
    .getByRole('button', { name: new RegExp(`^${label}:`) })
    .first()
    .click();
  await page.keyboard.press('Control+A');
  await page.keyboard.type(text);
  await page.keyboard.press('Enter');
}

export const blankSize = (page: Page) => page.locator('.blank svg[role=img]');

/** Nothing for axe to report. */
export async function clean(page: Page, what: string): Promise<void> {
  // A tooltip stands beside the page, told by what it describes.
  // In one pass, which the other way gives up for frames of other origins; there are none here. It takes a quarter of the
  // time. Only what is wrong is written out: what passes has a selector worked out for each of its elements otherwise.
  const found = await new AxeBuilder({ page })
    .setLegacyMode()
    .options({ resultTypes: ['violations'] })
    .exclude('[role=tooltip]')
    .analyze();
  expect(
    found.violations.map(
      (one) =>
        `${what}: ${one.id} ${one.nodes
          .map((node) => `${node.target.join(' ')} (${node.any[0]?.message ?? ''})`)
          .slice(0, 4)
          .join(' | ')}`,
    ),
  ).toEqual([]);
}

/** Somebody who has been here before: the rack does not open the demo of its own accord. */
export const seen = (page: Page) => page.addInitScript(() => localStorage.setItem('steelk-seen', 'yes'));

/** In the proof strip: no shop rule is broken, however many there are. */
export const RULES_HOLD = /shop rules\s*\d+ hold/;

/** Says what a new piece is made of. */
export async function confirmStock(page: Page, thickness: string): Promise<void> {
  const form = page.getByRole('form', { name: 'Stock' });
  await form.getByLabel('material').selectOption('S275');
  await form.getByLabel('thickness').fill(thickness);
  await form.getByRole('button', { name: /^Confirm the stock/ }).click();
  await expect(form).toHaveCount(0);
}
