// The rack of an office: more jobs than a page, found by their pieces.
import { expect, test } from '@playwright/test';
import { clean, seen } from './common';

test('jobs are found by their pieces, sorted and turned over', async ({ page, request }) => {
  test.setTimeout(120_000);
  const ids: number[] = [];
  for (let at = 1; at <= 53; at += 1) {
    const made = await request.post('/api/jobs', { data: { number: `PG-${at}`, title: 'Paged racks' } });
    ids.push((await made.json()).job.id);
  }
  const document = await (await request.get('/api/pieces/1/piece.json')).json();
  const own = { ...document, mark: 'ZQ-77', title: 'Odd bracket', variants: [] };
  await request.post(`/api/jobs/${ids[20]}/pieces`, { data: { document: own } });
  await seen(page);
  await page.goto('/');
  const search = page.getByLabel('Search jobs');
  const rows = page.getByRole('grid', { name: 'Jobs' }).locator('[role=row][data-id]');
  await search.fill('paged');
  await expect(rows).toHaveCount(50);
  await expect(rows.first()).toContainText('PG-1');
  await expect(rows.nth(9)).toContainText('PG-10');
  await page.getByRole('button', { name: 'Go to next page' }).click();
  await expect(rows).toHaveCount(3);
  await expect(rows.last()).toContainText('PG-53');
  await clean(page, 'rack');
  // Another order begins at its first page.
  await page.getByRole('columnheader', { name: 'number' }).click();
  await expect(rows).toHaveCount(50);
  await expect(rows.first()).toContainText('PG-53');
  await page.getByRole('columnheader', { name: 'pieces' }).click();
  await page.getByRole('columnheader', { name: 'pieces' }).click();
  await expect(rows.first()).toContainText('PG-21');
  // By a mark: the job that has it, and the piece itself.
  await search.fill('zq-77');
  await expect(rows).toHaveCount(1);
  await expect(rows.first()).toContainText('PG-21');
  await expect(rows.first()).not.toContainText('being worked out');
  await page.getByRole('link', { name: 'ZQ-77 Odd bracket' }).click();
  await expect(page.getByRole('heading', { name: /ZQ-77/ })).toBeVisible();
  await page.goto('/');
  await search.fill('no such words');
  await expect(page.getByText('No job and none of its pieces has all of "no such words" in it.')).toBeVisible();
  for (const id of ids) await request.delete(`/api/jobs/${id}`);
});

test('a piece that is being worked out says so, and is there when it is', async ({ page, request }) => {
  const made = await (await request.post('/api/jobs', { data: { number: 'WO-1', title: 'Waiting' } })).json();
  const document = await (await request.get('/api/pieces/1/piece.json')).json();
  await request.post(`/api/jobs/${made.job.id}/pieces`, { data: { document } });
  // As it is told before it was worked out for the first time.
  let waits = true;
  await page.route(`**/api/jobs/${made.job.id}`, async (route) => {
    const answer = await route.fetch();
    const told = await answer.json();
    if (waits) {
      told.job = { ...told.job, waiting: 1, mass: 0, stage: 'drafting' };
      const unknown = { kind: null, cut_lines: [], sheets: 0, path: '', view_box: '0 0 1 1', holds: 0, waiting: true };
      told.pieces = told.pieces.map((one: object) => ({ ...one, ...unknown }));
    }
    await route.fulfill({ response: answer, json: told });
  });
  await page.goto(`/jobs/${made.job.id}`);
  const card = page.getByRole('article', { name: /^WB-02/ });
  await expect(card.getByRole('status')).toHaveText('Being worked out…');
  await expect(page.getByText('1 being worked out')).toBeVisible();
  await clean(page, 'job that is being worked out');
  // It is looked again by itself.
  waits = false;
  await expect(card).toContainText('kg');
  await expect(card.getByRole('status')).toHaveCount(0);
  await request.delete(`/api/jobs/${made.job.id}`);
});
