import { chromium } from '@playwright/test';
const base = process.env.BASE_URL ?? 'http://127.0.0.1:7811';
const jobs = JSON.parse(process.argv[2]);
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--use-gl=angle', '--use-angle=swiftshader', '--enable-unsafe-swiftshader'],
});
for (const [name, path, w, h, steps] of jobs) {
  const page = await browser.newPage({ viewport: { width: w, height: h } });
  page.on('console', (m) => m.type() === 'error' && console.log('console', m.text().slice(0, 300)));
  page.on('pageerror', (e) => console.log('pageerror', String(e).slice(0, 300)));
  await page.addInitScript(() => localStorage.setItem('steelk-seen', 'yes'));
  await page.goto(base + path);
  await page.waitForTimeout(2500);
  for (const step of steps ?? []) {
    try {
      await new (Object.getPrototypeOf(async function () {}).constructor)('page', step)(page);
    } catch (e) {
      console.log('step', step, String(e).slice(0, 300));
    }
    await page.waitForTimeout(700);
  }
  await page.screenshot({ path: `/tmp/${name}.png` });
  await page.close();
}
await browser.close();
