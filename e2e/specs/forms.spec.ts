import { expect, test } from '@playwright/test';
import { bench, clean, freshJob, saved } from './common';
import { entities, Hands } from './hands';

/** A channel with a wall on either side. */
const CHANNEL = {
  steelk: 1,
  kind: 'sheet',
  mark: 'LV-1',
  title: 'Louvred channel',
  quantity: 1,
  unit: 'mm',
  stock: { material: 'S275', thickness: '1.5 mm' },
  bending: { radius: '2 mm', method: { k_factor: '0.44' } },
  operations: [
    { name: 'base', do: { lay_down: { shape: { rectangle: { width: '200 mm', depth: '240 mm' } } } } },
    { name: 'wall', do: { bend: { edge: 'base.left', also: ['base.right'], angle: '90 deg', leg: '90 mm' } } },
  ],
  callouts: [],
};

test('louvres by pointing, a row of them, mirrored to the other wall; the arrows stand opposite', async ({
  page,
  request,
}) => {
  const { job } = await freshJob(request);
  const made = await request.post(`/api/jobs/${job}/pieces`, { data: { document: CHANNEL } });
  expect(made.ok(), await made.text()).toBe(true);
  const hands = new Hands(page);
  await bench(page, (await made.json()).id);
  await hands.point('wall.left.end');
  await hands.menu('Press a louvre from this');
  await hands.type('60', 'Tab');
  await hands.type('14', 'Tab');
  await hands.type('5', 'Tab');
  await hands.type('25', 'Enter');
  await hands.kept(3);
  const step = page.locator('ol.work > li').nth(2);
  await expect(step).toContainText('away from its edge');
  await step.click();
  await step.getByRole('button', { name: '+ row' }).click();
  await step.getByRole('button', { name: /^spacing:/ }).click();
  await hands.type('30', 'Enter');
  await expect(page.locator('.blank .form')).toHaveCount(2);
  await hands.point('louvre.1');
  await hands.menu('Make louvre again, mirrored left to right');
  await hands.key('Enter');
  await hands.kept(4);
  await expect(page.locator('.blank .form')).toHaveCount(4);
  await saved(page);
  await clean(page, 'louvres');
  await hands.click(page.getByRole('button', { name: /^release/ }));
  const dxf = (await hands.file('Blank, DXF')).toString();
  // The arrow of each: from its centre out over its open side, away from the edge of its own wall.
  const lines = entities(dxf, 'FORM').filter((one) => one.kind === 'LINE');
  const ends = lines.map(({ values }) => {
    const at = (code: number) => Number(values.find(([own]) => own === code)?.[1]);
    return { from: at(10), to: at(11), along: Math.abs(at(20) - at(21)) < 1e-6 };
  });
  const arrows = ends.filter((one) => one.along).map(({ from, to }) => Math.sign(to - from));
  expect(arrows.filter((way) => way > 0)).toHaveLength(2);
  expect(arrows.filter((way) => way < 0)).toHaveLength(2);
  // Up and down with one click: the blank stays what it is.
  const width = page.getByRole('contentinfo', { name: 'Proof' });
  const before = await width.innerText();
  await page.keyboard.press('Escape');
  await step.getByLabel('stands out').first().selectOption('bottom');
  await expect(page.locator('.blank .form.down')).toHaveCount(4);
  expect((await width.innerText()).match(/[\d.]+ × [\d.]+ mm/)?.[0]).toBe(before.match(/[\d.]+ × [\d.]+ mm/)?.[0]);
});
