import { chromium } from 'playwright';
const b = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--use-angle=swiftshader','--enable-unsafe-swiftshader','--no-sandbox'] });
const p = await b.newPage({ viewport: { width: 1280, height: 800 } });
await p.addInitScript(() => localStorage.setItem('steelk-seen', '1'));
const shots = process.argv.slice(2);
for (const one of shots) {
  const [name, url, ...acts] = one.split('|');
  await p.goto('http://127.0.0.1:7811' + url); await p.waitForTimeout(1500);
  for (const act of acts) { try { await eval(`(async()=>{${act}})()`); } catch (e) { console.log(act, String(e).slice(0, 300)); } await p.waitForTimeout(500); }
  await p.screenshot({ path: `/tmp/${name}.png` });
}
await b.close();
