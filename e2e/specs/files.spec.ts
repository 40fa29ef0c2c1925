import { expect, test } from '@playwright/test';
import { bench, clean, freshJob } from './common';

interface Output {
  file: string;
  kinds: string[];
  of: string;
  words: string;
  reader: string;
  first: boolean;
}

const READERS: Record<string, string> = {
  cutter: 'For the cutter',
  brake: 'For the brake',
  saw: 'For saw and drill',
  welder: 'For the welder',
  office: 'For the office',
};

// The menu of files is the server's list: every row of the piece's kind is shown, and no other.
for (const [mark, kind] of [
  ['TT-01', 'sheet'],
  ['AP-04', 'plate'],
  ['LT-01', 'frame'],
] as const) {
  test(`the files of a ${kind} are the rows of the server's list`, async ({ page, request }) => {
    const { pieces } = await freshJob(request);
    const outputs = (await (await request.get('/api/outputs')).json()) as Output[];
    const own = outputs.filter((one) => one.kinds.includes(kind));
    expect(own.length).toBeGreaterThan(8);
    await bench(page, pieces[mark] ?? 0);
    await page
      .getByRole('contentinfo')
      .getByRole('button', { name: /^release/ })
      .click();
    const list = page.locator('.filelist');
    for (const one of own) {
      // The template is asked for with its paper, so that its button has other words.
      const words = one.file === 'template.pdf' ? 'Template, PDF' : one.words;
      const whole = one.of === 'piece' || one.of === 'blank';
      const shown = list.getByRole('button', whole ? { name: words, exact: true } : { name: `${words} of ` });
      await expect(shown.first(), one.file).toBeVisible();
      if (whole) await expect(shown, one.file).toHaveCount(1);
    }
    const whole = own.filter((one) => one.of === 'piece' || one.of === 'blank').length;
    // And the piece document and the archive of all of them, which are no outputs.
    await expect(list.getByRole('button').filter({ hasNotText: /^[A-Z0-9-]+$/ })).toHaveCount(whole + 2);
    // Each reader's first is told as such, and stands first.
    const groups = new Set(own.filter((one) => one.first).map((one) => one.reader));
    for (const reader of groups) {
      const group = list.getByRole('group', { name: READERS[reader] ?? reader });
      await expect(group.locator('.first').first()).toBeVisible();
      await expect(group.locator('.filebutton, .marks').first()).toContainText('first');
    }
    await clean(page, `files of a ${kind}`);
  });
}

test('a frame without plates has nothing for the cutter, and no empty row', async ({ page, request }) => {
  const { job } = await freshJob(request);
  const operations = [
    { name: 'run', do: { path: { start: {}, legs: [{ by: { x: '800 mm' } }] } } },
    { name: 'bar', do: { member: { lines: ['run'], section: 'SHS 50x50x3' } } },
  ];
  const document = { steelk: 1, kind: 'frame', mark: 'BR-1', title: 'Bar', quantity: 1, unit: 'mm' };
  const made = await request.post(`/api/jobs/${job}/pieces`, {
    data: { document: { ...document, stock: { material: 'S275' }, operations } },
  });
  await bench(page, ((await made.json()) as { id: number }).id);
  await page
    .getByRole('contentinfo')
    .getByRole('button', { name: /^release/ })
    .click();
  const list = page.locator('.filelist');
  await expect(list.getByRole('button', { name: 'Machine file, NC1 of BAR1' })).toBeVisible();
  await expect(list.getByRole('group', { name: 'For the cutter' })).toHaveCount(0);
  await expect(list.getByRole('group', { name: 'For saw and drill' })).toBeVisible();
});

test('the shop names its files: tried as it is typed, refused in words, kept', async ({ page, request }) => {
  await page.goto('/shop');
  const field = page.getByLabel('Pattern of file names');
  await expect(page.getByText('WB-02_r3_S275_8mm_x4_blank.dxf, or WB-02_blank.dxf')).toBeVisible();
  await field.fill('{mark} {file}[ {colour}]');
  await expect(page.getByText('{colour} is no value of a file name')).toBeVisible();
  await expect(page.getByRole('region', { name: 'Files' }).getByRole('button', { name: 'Save' })).toBeDisabled();
  await field.fill('{mark} {file}[ rev {revision}]');
  await expect(page.getByText('WB-02 blank rev 3.dxf, or WB-02 blank.dxf')).toBeVisible();
  await clean(page, 'names of files');
  await page.getByRole('region', { name: 'Files' }).getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Saved. Files are named so from now on.')).toBeVisible();
  const { pieces } = await freshJob(request);
  const reply = await request.get(`/api/pieces/${pieces['AP-04']}/files/profile.dxf`);
  expect(reply.headers()['content-disposition']).toContain('"AP-04 profile rev 1.dxf"');
  // As it was, for the other specs.
  const now = (await (await request.get('/api/shop/files')).json()) as { version: number };
  const back = { names: '{mark}[_r{revision}][_{material}][_{thickness}][_x{quantity}]_{file}', contours: 'polylines' };
  expect((await request.put('/api/shop/files', { data: { version: now.version, settings: back } })).status()).toBe(200);
});
