import { expect, test, type Page } from '@playwright/test';
import { readFile } from 'node:fs/promises';
import { bench, clean, freshJob, saved, type, RULES_HOLD } from './common';

const proof = (page: Page) => page.getByRole('contentinfo', { name: 'Proof' });
const piece = (page: Page, mark: string) =>
  page.locator('.pieces3 li').filter({ has: page.locator(`b.num:text-is("${mark}")`) });

/** A frame with nothing laid. */
async function emptyFrame(page: Page, request: Parameters<typeof freshJob>[0], mark: string): Promise<void> {
  const { job } = await freshJob(request);
  const document = {
    steelk: 1,
    kind: 'frame',
    mark,
    title: 'Test frame',
    quantity: 1,
    unit: 'mm',
    stock: { material: 'S275' },
  };
  const made = await (await request.post(`/api/jobs/${job}/pieces`, { data: { document } })).json();
  await page.goto(`/pieces/${made.id}`);
  await expect(page.getByText('No work yet.')).toBeVisible();
}

/** Adds steps with the keyboard alone. */
async function steps(page: Page, ...lines: string[]): Promise<void> {
  const line = page.getByLabel('New operation');
  if (!(await line.isVisible())) await page.keyboard.press('/');
  await expect(line).toBeFocused();
  for (const text of lines) {
    const before = await page.locator('ol.work > li').count();
    await page.keyboard.type(text);
    await page.keyboard.press('Enter');
    await expect(page.locator('ol.work > li')).toHaveCount(before + 1);
  }
}

test('a table frame from numbers to a PDF cut list, by keyboard; its height changes and everything follows', async ({
  page,
  request,
}) => {
  await emptyFrame(page, request, 'TB-1');
  await steps(
    page,
    'frame table, 1200 mm, 700 mm, 850 mm, rail 150 mm',
    'put SHS 40x40x3, on table.top*',
    'put SHS 40x40x3, on table.leg*',
    'put SHS 30x30x2, on table.rail*',
    'joint all, mitre',
  );
  await page.keyboard.press('Escape');
  // 850 less half of the top's tube; the top mitred at 1200 + 40.
  await expect(piece(page, 'LEGS1')).toContainText('830 mm');
  await expect(piece(page, 'LEGS1')).toContainText('4 ×');
  await expect(piece(page, 'TOPS1')).toContainText('1240 mm');
  await expect(piece(page, 'TOPS1')).toContainText('both 45 deg');
  await expect(proof(page)).toContainText(RULES_HOLD);
  await type(page, 'a table', 'height', '900 mm');
  await expect(piece(page, 'LEGS1')).toContainText('880 mm');
  await expect(proof(page)).toContainText('1240 mm × 740 mm × 920 mm');
  await saved(page);
  const panel = proof(page).getByRole('button', { name: /^release/ });
  await panel.focus();
  await page.keyboard.press('Enter');
  const pdf = page.getByRole('button', { name: 'Cut list, PDF' });
  await pdf.focus();
  const [file] = await Promise.all([page.waitForEvent('download'), page.keyboard.press('Enter')]);
  expect(file.suggestedFilename()).toMatch(/^TB-1_r\d+_S275_x1_cutlist\.pdf$/);
  expect((await readFile(await file.path())).subarray(0, 4).toString()).toBe('%PDF');
  const [csv] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Cut list, CSV' }).click(),
  ]);
  expect(await readFile(await csv.path(), 'utf8')).toContain('LEGS1,4,,,member,SHS 40x40x3,S275,880');
  await expect(page.getByText('of 5 machine files come out of the simulated line as listed')).toBeVisible();
  // What was taken is stale once the height changes; a file taken again is not.
  const release = proof(page).getByRole('button', { name: /^release/ });
  await expect(release).not.toContainText('stale');
  await page.keyboard.press('Escape');
  await type(page, 'a table', 'height', '950 mm');
  await expect(piece(page, 'LEGS1')).toContainText('930 mm');
  await saved(page);
  await expect(release).toContainText('2 stale');
  await release.click();
  const list = page.locator('.filebutton', { has: page.getByRole('button', { name: 'Cut list, CSV' }) });
  await expect(list).toContainText('stale');
  const [again] = await Promise.all([page.waitForEvent('download'), list.getByRole('button').click()]);
  expect(await readFile(await again.path(), 'utf8')).toContain('LEGS1,4,,,member,SHS 40x40x3,S275,930');
  await expect(list).not.toContainText('stale');
  await expect(release).toContainText('1 stale');
});

test('a channel goes into a channel by the keyboard, and its machine file comes off the line', async ({
  page,
  request,
}) => {
  await emptyFrame(page, request, 'CH-1');
  await steps(
    page,
    'frame rectangle, 900 mm, 600 mm',
    'node from rectangle.n1, x 450 mm',
    'line from node, y 600 mm',
    'put UPE 120, on rectangle',
    'put UPE 100, on path',
    'joint corners, mitre',
    'joint tees, cope, gap 1 mm',
  );
  await page.keyboard.press('Escape');
  const rail = page.locator('.pieces3 li', { hasText: 'coped to the outline of rectangle.front' });
  // Between the webs: 600, and a runner 60 wide each end with its web at one side; the gap is off the web's face.
  await expect(rail).toContainText('UPE 100');
  await expect(rail).toContainText('648 mm');
  await expect(proof(page)).toContainText(RULES_HOLD);
  const tees = page.locator('ol.work > li').last();
  await tees.getByRole('button', { name: /^gap:/ }).click();
  await page.keyboard.press('Control+A');
  await page.keyboard.type('2 mm');
  await page.keyboard.press('Enter');
  await expect(rail).toContainText('646 mm');
  await saved(page);
  await proof(page)
    .getByRole('button', { name: /^release/ })
    .click();
  await expect(page.getByText('3 of 3 machine files come out of the simulated line as listed')).toBeVisible();
  await clean(page, 'release of a frame');
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'NC1 of N1' }).click(),
  ]);
  const text = await readFile(await file.path(), 'utf8');
  expect(text.match(/^AK$/gm)).toHaveLength(3);
  expect(text).toContain('646.00,646.00');
});

test('a clash is told with its volume, keeps the files back, and goes with a joint', async ({ page, request }) => {
  await emptyFrame(page, request, 'CL-1');
  await steps(page, 'frame rectangle, 1000 mm, 600 mm', 'put SHS 50x50x3, on rectangle');
  await expect(proof(page)).toContainText('8 broken');
  await page.keyboard.press('Escape');
  await proof(page)
    .getByRole('button', { name: /^shop rules/ })
    .click();
  await expect(page.getByText(/run into each other: .* cm3 of both/).first()).toBeVisible();
  await proof(page)
    .getByRole('button', { name: /^release/ })
    .click();
  await page.getByRole('button', { name: 'Cut list, PDF' }).click();
  await expect(
    page
      .getByRole('status')
      .filter({ hasText: /run into each other/ })
      .or(page.getByText(/run into each other.*Settle their joint/))
      .first(),
  ).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await steps(page, 'joint corners, butt');
  await expect(proof(page)).toContainText(RULES_HOLD);
  await page.keyboard.press('Escape');
  await page.getByLabel('how they meet of joint').selectOption('mitre');
  await expect(piece(page, 'M1')).toContainText('both 45 deg');
  await expect(proof(page)).toContainText(RULES_HOLD);
});

test('a node is gone on from: point at it and type where the next one is', async ({ page, request }) => {
  await emptyFrame(page, request, 'ND-1');
  await steps(page, 'frame rectangle, 800 mm, 500 mm');
  await page.keyboard.press('Escape');
  await page.locator('.tag', { hasText: /^rectangle\.n1$/ }).click();
  await page.getByRole('menuitem', { name: 'Lay a line from this node' }).click();
  const draft = page.getByRole('group', { name: 'New step line' });
  await draft.getByLabel('x of line 1').fill('');
  await draft.getByLabel('z of line 1').fill('700 mm');
  await page.keyboard.press('Enter');
  await expect(page.locator('ol.work > li')).toHaveCount(2);
  await expect(page.locator('.tag', { hasText: /^line\.n1$/ })).toBeVisible();
  // A node that is not there is said with those that are, and nothing is added.
  await page.keyboard.press('/');
  const line = page.getByLabel('New operation');
  await line.fill('line from rectangle.n9, x 100 mm');
  await line.press('Enter');
  await expect(page.getByText(/there is no node called rectangle.n9.*rectangle\.n1/)).toBeVisible();
  await expect(page.locator('ol.work > li')).toHaveCount(2);
});

test('centre lines from a file, and one that is none', async ({ page, request }) => {
  await emptyFrame(page, request, 'CS-1');
  const file = page.getByLabel('Centre line file');
  await file.setInputFiles({
    name: 'lines.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('0,0,0,1000,0,0\n1000,0,0,1000,0,500\n'),
  });
  await expect(page.locator('ol.work > li')).toContainText('from lines.csv: 2 lines');
  await file.setInputFiles({ name: 'bad.csv', mimeType: 'text/csv', buffer: Buffer.from('0,0,0\n') });
  await expect(page.getByText(/row 1: a line has 6 numbers/)).toBeVisible();
  await expect(page.locator('ol.work > li')).toHaveCount(1);
});

test('a section is picked by its outline; a wrong one is refused', async ({ page, request }) => {
  await emptyFrame(page, request, 'SC-1');
  await steps(
    page,
    'frame a-frame, 900 mm, 1200 mm, bar 400 mm, across',
    'put SHS 40x40x3, on aframe',
    'joint all, mitre',
  );
  await page.keyboard.press('Escape');
  await page.locator('ol.work > li').nth(1).locator('.sentence b').first().click();
  await page.getByRole('button', { name: 'pick a section…' }).click();
  await page.getByLabel('Kind of section').selectOption('round hollow');
  await clean(page, 'section picker');
  await page.getByRole('button', { name: /^CHS 42.4x2.6, 2.55 kg\/m/ }).click();
  await expect(page.locator('.pieces3')).toContainText('cope on dia 42.4');
  await type(page, 'Put', 'section', 'SHS 41');
  await expect(page.getByText(/SHS 41: there are too many or too few sizes/)).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.locator('.pieces3')).toContainText('CHS 42.4x2.6');
});

test('the trolley: list, bars, welds, why and nothing for axe to report', async ({ page, request }) => {
  const { pieces } = await freshJob(request);
  await bench(page, pieces['LT-01'] ?? 0);
  await expect(proof(page)).toContainText('10 hold');
  await clean(page, 'a frame on the bench');
  await piece(page, 'R1').getByRole('button').click();
  await expect(piece(page, 'R1').getByRole('button')).toHaveAttribute('aria-pressed', 'true');
  await proof(page)
    .getByRole('button', { name: /^members/ })
    .click();
  const list = page.getByRole('grid', { name: 'Cut list' });
  await expect(list.getByRole('row', { name: /^R1/ })).toContainText('2460 mm');
  await page.getByLabel('exact angles').check();
  await expect(list.getByRole('row', { name: /^B1/ })).toContainText('49.7334 deg');
  await list.getByRole('row', { name: /^R1/ }).getByText('why?').click();
  await expect(
    list
      .getByText('1006.')
      .or(list.getByText(/2400 mm x 7850|855\.|mm2 x 2400/))
      .first(),
  ).toBeVisible();
  await expect(page.getByText(/for review by a licensed engineer/).first()).toBeVisible();
  await clean(page, 'cut list');
  // Sorted, found in, and put out as it stands: the longest first, of those with a round section.
  await list.getByRole('columnheader', { name: /^length/ }).click();
  await list.getByRole('columnheader', { name: /^length/ }).click();
  await expect(list.locator('[role=row][data-id]').first()).toContainText('2460 mm');
  await page.getByLabel('Find in: Cut list').fill('chs');
  await expect(list.locator('[role=row][data-id]')).toHaveCount(1);
  const put = page.waitForEvent('download');
  await page.getByRole('button', { name: 'The list as CSV' }).click();
  const rows = (await readFile(await (await put).path(), 'utf8')).split('\r\n');
  expect(rows).toHaveLength(2);
  expect(rows[0]).toContain('mark,qty,section,material,"length, mm","short point, mm"');
  expect(rows[1]).toMatch(/^C1,2,CHS 48\.3x4,S275,1035\.6,/);
  // A row's picture and acts are reached by the keys, and Enter presses what is in a cell.
  await list.getByRole('gridcell', { name: 'C1' }).press('Enter');
  await expect(piece(page, 'C1').getByRole('button')).toHaveAttribute('aria-pressed', 'true');
  await page.getByLabel('Find in: Cut list').fill('');
  await proof(page).getByRole('button', { name: /^bars/ }).click();
  await expect(page.getByText(/proved best/).first()).toBeVisible();
  await clean(page, 'bars');
  await proof(page)
    .getByRole('button', { name: /^welds/ })
    .click();
  await expect(page.getByRole('grid', { name: 'Welds' })).toContainText('butt on the mitre');
  await clean(page, 'welds');
});

test("the shop's own section: kept, refused in words, taken into a frame by value; a new frame joins as the shop does", async ({
  page,
  request,
}) => {
  const cleared = async () => {
    const { version } = await (await request.get('/api/shop/frames')).json();
    const settings = { usual_joints: 'mitre', sections: [] };
    await request.put('/api/shop/frames', { data: { version, settings } });
  };
  await cleared();
  await page.goto('/shop');
  const frames = page.getByRole('region', { name: 'Frames' });
  await expect(frames.getByText('None yet')).toBeVisible();
  await frames.getByLabel('usual joints of a new frame').selectOption('butt');
  await frames.getByRole('button', { name: 'Add a circle' }).click();
  await frames.getByLabel('Bars of circle 1').fill('5000 mm');
  await frames.getByLabel('Stated mass of circle 1').fill('5.6');
  await frames.getByRole('button', { name: 'Add a rectangle' }).click();
  await frames.getByLabel('Name of rectangle 1').fill('SHS 50x50x3');
  await frames.getByRole('button', { name: 'Save the frames' }).click();
  await expect(frames.getByRole('alert')).toContainText('SHS 50x50x3 is a section of the standards');
  await frames.getByLabel('Name of SHS 50x50x3').fill('Keel rail');
  await frames.getByLabel('Keel rail, wide').fill('30 mm');
  await frames.getByLabel('Keel rail, high').fill('0 mm');
  await expect(frames.locator('.fault')).toBeVisible();
  await frames.getByLabel('Keel rail, high').fill('20 mm');
  await expect(frames.locator('.fault')).toHaveCount(0);
  // 600 mm2 of steel at 7850 kg/m3.
  await expect(frames.getByRole('row', { name: /Keel rail/ })).toContainText('4.710 kg/m');
  await frames.getByLabel('Stated mass of Keel rail').fill('four');
  await frames.getByRole('button', { name: 'Save the frames' }).click();
  await expect(frames.getByRole('alert')).toContainText('is no number above 0');
  await frames.getByLabel('Stated mass of Keel rail').fill('4.8');
  await frames.getByLabel('Bars of Keel rail').fill('3100 mm');
  // What goes takes its own figures with it and leaves the next row its own.
  await frames.getByRole('button', { name: 'Take circle 1 out' }).click();
  await expect(frames.getByLabel('Bars of Keel rail')).toHaveValue('3100 mm');
  await expect(frames.getByLabel('Stated mass of Keel rail')).toHaveValue('4.8');
  await clean(page, 'the shop with a section');
  await frames.getByRole('button', { name: 'Save the frames' }).click();
  await expect(frames.getByRole('status')).toContainText('Saved');

  const made = await (await request.post('/api/jobs', { data: { number: 'OS-1', title: 'Own section' } })).json();
  await page.goto(`/jobs/${made.job.id}`);
  await page.getByRole('button', { name: 'New frame' }).click();
  await page.getByRole('button', { name: /^Confirm the stock/ }).click();
  await page.getByRole('button', { name: 'The rest of the stock as usual' }).click();
  await expect(page.getByLabel('usual joints')).toHaveValue('butt');
  await steps(page, 'line x 1000 mm', 'put SHS 40x40x3, on path*');
  await page.keyboard.press('Escape');
  await page.locator('ol.work > li').nth(1).locator('.sentence b').first().click();
  await page.getByRole('button', { name: 'pick a section…' }).click();
  await page.getByLabel('Kind of section').selectOption("the shop's own");
  await page.getByRole('button', { name: 'Keel rail, 4.80 kg/m' }).click();
  await expect(page.locator('.pieces3')).toContainText('Keel rail');
  await saved(page);
  const id = Number(page.url().split('/').pop());
  const { document } = await (await request.get(`/api/pieces/${id}`)).json();
  expect(document.frame.sections).toMatchObject([{ name: 'Keel rail', mass_per_metre: 4.8, bars: ['3100 mm'] }]);
  const list = await (await request.get(`/api/pieces/${id}/files/cutlist.csv`)).text();
  // A metre of it weighs what is stated.
  expect(list).toMatch(/Keel rail.*,4\.8,4\.8,/);
  // What the shop says from then on is not the piece's.
  await cleared();
  await page.reload();
  await expect(page.locator('.pieces3')).toContainText('Keel rail');
});
