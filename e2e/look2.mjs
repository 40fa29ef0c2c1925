import { chromium } from 'playwright';
const b = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--use-angle=swiftshader','--enable-unsafe-swiftshader','--no-sandbox'] });
for (const one of process.argv.slice(2)) {
  const [name, size, url, ...acts] = one.split('|');
  const [width, height] = size.split('x').map(Number);
  const c = await b.newContext({ viewport: { width, height }, hasTouch: true, isMobile: width < 1100 });
  const p = await c.newPage();
  await p.addInitScript(() => localStorage.setItem('steelk-seen', '1'));
  await p.goto('http://127.0.0.1:7811' + url); await p.waitForTimeout(2000);
  for (const act of acts) { try { await eval(`(async()=>{${act}})()`); } catch (e) { console.log(act, String(e).slice(0, 300)); } await p.waitForTimeout(500); }
  await p.screenshot({ path: `/tmp/${name}.png` });
  await c.close();
}
await b.close();
