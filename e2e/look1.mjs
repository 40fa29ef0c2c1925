import { start, base } from './look.mjs';
const { browser, page } = await start();
const jobs = await (await fetch(base + '/api/jobs')).json();
const job = await (await fetch(base + '/api/jobs/' + jobs.jobs[0].id)).json();
console.log(job.pieces.map((p) => p.id + ' ' + p.mark).join(', '));
const made = await fetch(base + `/api/jobs/${job.id ?? jobs.jobs[0].id}/pieces`, {
  method: 'POST',
  headers: { 'content-type': 'application/json', origin: base },
  body: JSON.stringify({
    document: {
      steelk: 1,
      kind: 'sheet',
      mark: 'UB-1',
      title: 'U bracket',
      quantity: 1,
      unit: 'mm',
      stock: { material: 'S275', thickness: '3 mm' },
      bending: { radius: '3 mm' },
      callouts: [],
      operations: [],
    },
  }),
});
const piece = await made.json();
console.log(made.status, piece.id);
await page.goto(base + '/pieces/' + piece.id);
await page.waitForSelector('.steps');
await page.screenshot({ path: '/tmp/p1.png' });
await page.getByRole('button', { name: 'Lay down a rectangle' }).click();
await page.waitForTimeout(700);
await page.keyboard.type('140');
await page.keyboard.press('Tab');
await page.keyboard.type('80');
await page.waitForTimeout(600);
await page.screenshot({ path: '/tmp/p2.png' });
await page.keyboard.press('Enter');
await page.waitForTimeout(800);
const e = page.locator('.blank path.edge[data-pick="base.left"]');
const box = await e.boundingBox();
await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
await page.waitForTimeout(200);
await page.mouse.click(box.x + box.width / 2, box.y + box.height / 2);
await page.waitForTimeout(700);
await page.screenshot({ path: '/tmp/p3.png' });
await browser.close();
