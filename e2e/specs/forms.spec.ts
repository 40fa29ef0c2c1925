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

/** A wall on a base, to be kept from springing. */
const BRACKET = {
  steelk: 1,
  kind: 'sheet',
  mark: 'RB-1',
  title: 'Ribbed bracket',
  quantity: 1,
  unit: 'mm',
  stock: { material: 'S275', thickness: '2 mm' },
  bending: { radius: '3 mm', method: { k_factor: '0.44' } },
  operations: [
    { name: 'base', do: { lay_down: { shape: { rectangle: { width: '240 mm', depth: '90 mm' } } } } },
    { name: 'wall', do: { bend: { edge: 'base.back', angle: '90 deg', leg: '70 mm' } } },
  ],
  callouts: [],
};

test('a rib across a bend by pointing at it, then a row of them along it; each is in the solid', async ({
  page,
  request,
}) => {
  const { job } = await freshJob(request);
  const made = await request.post(`/api/jobs/${job}/pieces`, { data: { document: BRACKET } });
  expect(made.ok(), await made.text()).toBe(true);
  const hands = new Hands(page);
  await bench(page, (await made.json()).id);
  const proof = page.getByRole('contentinfo', { name: 'Proof' });
  const mass = async () => (await proof.innerText()).match(/[\d.]+ kg/)?.[0];
  const plain = await mass();
  await hands.point('wall.bend');
  await hands.menu('Press a rib across it');
  await hands.type('25', 'Tab');
  await hands.type('30', 'Tab');
  await hands.type('14', 'Enter');
  await hands.kept(3);
  const step = page.locator('ol.work > li').nth(2);
  await step.click();
  await page.getByLabel(/^Change rib/).selectOption('a row between the ends of the bend');
  await expect(page.locator('.blank .form')).toHaveCount(3);
  await step.getByRole('button', { name: /^first at:/ }).click();
  await hands.type('40', 'Enter');
  await saved(page);
  expect(await mass()).toBe(plain);
  await clean(page, 'ribs');
  await hands.click(page.getByRole('button', { name: /^release/ }));
  // Middles of the footprints along the bend, 40 from either end and between.
  const dxf = (await hands.file('Blank, DXF')).toString();
  const outlines = entities(dxf, 'FORM').filter((one) => one.kind === 'LWPOLYLINE');
  const middles = outlines.map(({ values }) => {
    const xs = values.filter(([code]) => code === 10).map(([, text]) => Number(text));
    return (Math.min(...xs) + Math.max(...xs)) / 2;
  });
  const sorted = middles.sort((one, two) => one - two);
  [40, 120, 200].forEach((wanted, at) => expect((sorted[at] ?? 0) - (sorted[0] ?? 0)).toBeCloseTo(wanted - 40, 4));
  const solid = (await hands.file('Folded part, STEP')).toString();
  for (const name of ['rib.1.ridge', 'rib.2.ridge', 'rib.3.hollow-ridge']) expect(solid).toContain(name);
});
