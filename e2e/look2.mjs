import { start, base } from './look.mjs';
const { browser, page } = await start();
await page.goto(base + '/pieces/13');
await page.waitForTimeout(1500);
const act = () =>
  page.evaluate(() => document.activeElement?.getAttribute('aria-label') + ' ' + document.activeElement?.value);
// shift pick on the blank
const at = async (name) => {
  const b = await page.locator(`.blank path.edge[data-pick="${name}"]`).boundingBox();
  return [b.x + b.width / 2, b.y + b.height / 2];
};
let [x, y] = await at('base.left');
await page.mouse.click(x, y);
await page.waitForTimeout(300);
[x, y] = await at('base.right');
await page.keyboard.down('Shift');
await page.mouse.click(x, y);
await page.keyboard.up('Shift');
await page.waitForTimeout(500);
await page.screenshot({ path: '/tmp/p4.png' });
await page.getByRole('menuitem', { name: /Bend 2 flanges/ }).click();
await page.waitForTimeout(700);
console.log(await act());
await page.keyboard.type('50');
await page.waitForTimeout(600);
await page.screenshot({ path: '/tmp/p5.png' });
await page.keyboard.press('Enter');
await page.waitForTimeout(900);
console.log(await act());
// click the base's upper face on the stage
const c = await page.locator('canvas').first().boundingBox();
await page.mouse.move(c.x + c.width * 0.5, c.y + c.height * 0.6);
await page.waitForTimeout(300);
console.log(
  await page
    .locator('.hovertip')
    .textContent()
    .catch(() => 'none'),
);
await page.screenshot({ path: '/tmp/p6.png' });
await page.mouse.click(c.x + c.width * 0.5, c.y + c.height * 0.6);
await page.waitForTimeout(600);
await page.screenshot({ path: '/tmp/p7.png' });
await browser.close();
