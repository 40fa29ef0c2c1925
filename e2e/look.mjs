import { chromium } from '@playwright/test';
export async function start(size = { width: 1280, height: 800 }) {
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--use-angle=swiftshader', '--enable-unsafe-swiftshader', '--no-sandbox'],
  });
  const page = await browser.newPage({ viewport: size });
  await page.addInitScript(() => localStorage.setItem('steelk-seen', '1'));
  page.on('pageerror', (e) => console.log('ERR', e.message));
  page.on('console', (m) => m.type() === 'error' && console.log('CON', m.text().slice(0, 200)));
  return { browser, page };
}
export const base = 'http://127.0.0.1:7811';
