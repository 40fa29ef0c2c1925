// Takes the pictures in docs/screenshots from a served demo: BASE_URL=http://127.0.0.1:7420 node e2e/screenshots.mjs
import { chromium } from '@playwright/test';

const base = process.env.BASE_URL ?? 'http://127.0.0.1:7420';
const out = new URL('../docs/screenshots/', import.meta.url).pathname;
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--use-gl=angle',
    '--use-angle=swiftshader',
    '--enable-unsafe-swiftshader',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
});

async function take(name, path, act, viewport = { width: 1280, height: 800 }) {
  const page = await browser.newPage({ viewport, hasTouch: viewport.width < 1100 });
  await page.addInitScript(() => localStorage.setItem('steelk-seen', 'yes'));
  await page.goto(base + path);
  await page.waitForTimeout(2500);
  if (act) {
    await act(page);
    await page.waitForTimeout(1500);
  }
  await page.screenshot({ path: `${out}${name}.png` });
  await page.close();
}

await take('rack', '/');
await take('job', '/jobs/1');
await take('bench', '/pieces/1', (page) => page.click('[data-callout=A] td:nth-child(2)'));
await take('tray', '/pieces/2', (page) => page.click('[data-callout=G] td:nth-child(2)'));
await take('fault', '/pieces/3', async (page) => {
  await page.getByRole('button', { name: /^shop rules/ }).click();
  await page.getByRole('button', { name: /^bolt.1 is 2.75 mm too near/ }).click();
});
await take('hood', '/pieces/13', (page) => page.locator('ol.work > li').first().click());
await take('outline', '/pieces/5', async (page) => {
  await page.locator('ol.work > li').first().click();
  await page.getByRole('button', { name: 'Take out: e2 radius' }).click();
});
await take('tracing', '/pieces/5', async (page) => {
  await page.locator('ol.work > li').first().click();
  // The picture before this one took the body's radius out already.
  for (const name of ['e4 radius', 'c1 diameter'])
    await page.getByRole('button', { name: `Take out: ${name}` }).click();
  await page.locator('.tracing').scrollIntoViewIfNeeded();
  await page.locator('.says').evaluate((element) => element.scrollTo(0, element.scrollHeight));
});
await take('cutting', '/pieces/4/cutting', async (page) => {
  await page.getByRole('slider', { name: 'Time in the program' }).fill('46');
});
await take('holes', '/pieces/4', async (page) => {
  await page
    .getByRole('contentinfo')
    .getByRole('button', { name: /^blank/ })
    .first()
    .click();
  await page.getByLabel('balloons on the blank').check();
});
await take('files', '/pieces/2', (page) =>
  page
    .getByRole('contentinfo')
    .getByRole('button', { name: /^release/ })
    .click(),
);
await take('shop', '/shop#rules');
await take(
  'tablet',
  '/pieces/8',
  (page) =>
    page
      .locator('ol.work > li')
      .nth(3)
      .locator('.sentence')
      .tap({ position: { x: 20, y: 8 } }),
  { width: 1024, height: 768 },
);
await take('filter-box', '/pieces/12', (page) =>
  page.locator('ol.work > li').nth(1).locator('.sentence b').first().click(),
);
await take('pointing', '/pieces/3', async (page) => {
  const pick = async (name) => {
    const place = await page.locator(`.blank path.edge[data-pick="${name}"]`).evaluate((one) => {
      const middle = one.getPointAtLength(one.getTotalLength() / 2).matrixTransform(one.getScreenCTM());
      return { x: middle.x, y: middle.y };
    });
    await page.mouse.click(place.x, place.y);
    await page.waitForTimeout(700);
  };
  await pick('base.front');
});
await take('words', '/words#k-factor');
await take('why-dark', '/pieces/1', async (page) => {
  await page.getByRole('button', { name: 'dark' }).click();
  await page.getByRole('button', { name: /^blank 120/ }).click();
  await page.getByText('why?').first().click();
});
await take('frame', '/pieces/11', (page) => page.locator('.pieces3 li button').nth(4).hover());
await take('frame-list', '/pieces/11', async (page) => {
  await page.getByRole('contentinfo').getByRole('button', { name: /^bars/ }).click();
});
await browser.close();
