// Labels on stage and blank: none on another, on a hole or cut off; what the picture says is what the file has.
import { expect, test, type Page } from '@playwright/test';
import { bench, drawn, freshJob } from './common';
import { walkedSize } from './hands';

const PIECES = ['WB-02', 'TT-01', 'SB-05', 'AP-04', 'PF-05', 'GS-06', 'PE-07', 'MG-09', 'DC-10', 'LT-01'];
const SIZES = [
  { width: 1280, height: 800 },
  { width: 1024, height: 768 },
];

/** What lies wrong: pairs that meet, what is not whole within its view. */
function wrongly(page: Page): Promise<string[]> {
  return page.evaluate(() => {
    interface Box {
      what: string;
      view: string;
      left: number;
      top: number;
      right: number;
      bottom: number;
    }
    // A hair of rounding is not an overlap.
    const HAIR = 0.75;
    const boxOf = (one: Element, what: string, view: string): Box => {
      const { left, top, right, bottom } = one.getBoundingClientRect();
      return { what, view, left: left + HAIR, top: top + HAIR, right: right - HAIR, bottom: bottom - HAIR };
    };
    const seen = (one: Element) =>
      getComputedStyle(one).visibility !== 'hidden' && one.getBoundingClientRect().width > 0;
    const all = (selector: string, view: string) =>
      [...document.querySelectorAll(selector)]
        .filter(seen)
        .map((one) => boxOf(one, `${view} "${one.textContent ?? ''}"`, view));
    const labels = [
      ...all('.blank svg > text, .blank svg > g:not(.sign) > text', 'blank'),
      ...all('[data-testid=folded] .tag', 'stage'),
    ];
    const holes = [...document.querySelectorAll('.blank svg .hole')].map((one) =>
      boxOf(one, `hole ${one.getAttribute('data-pick') ?? ''}`, 'blank'),
    );
    const meet = (a: Box, b: Box) =>
      a.view === b.view && a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom;
    const wrong: string[] = [];
    labels.forEach((one, at) => {
      for (const other of [...labels.slice(at + 1), ...holes])
        if (meet(one, other)) wrong.push(`${one.what} on ${other.what}`);
      const room = document
        .querySelector(one.view === 'blank' ? '.blank' : '[data-testid=folded]')
        ?.getBoundingClientRect();
      if (room && (one.left < room.left || one.right > room.right || one.top < room.top || one.bottom > room.bottom))
        wrong.push(`${one.what} is cut off`);
    });
    return wrong;
  });
}

for (const mark of PIECES) {
  test(`${mark}: labels cover nothing at either size`, async ({ page, request }) => {
    const { pieces } = await freshJob(request);
    const id = pieces[mark] ?? 0;
    for (const size of SIZES) {
      await page.setViewportSize(size);
      await bench(page, id);
      await drawn(page);
      await expect.poll(() => wrongly(page)).toEqual([]);
    }
    if (mark === 'LT-01') return;
    // The sizes on the picture are those of the file.
    const blank = await (await request.get(`/api/pieces/${id}/files/blank.dxf`)).text();
    const { width, height } = walkedSize(blank);
    const words = await page.locator('.blank svg text').allTextContents();
    const shown = words.filter((one) => /^[\d.]+ mm$/.test(one)).map(parseFloat);
    for (const [at, own] of [width, height].entries()) expect(Math.abs((shown[at] ?? 0) - own)).toBeLessThan(0.02);
  });
}

test('balloons stand at their holes and on none', async ({ page, request }) => {
  const { pieces } = await freshJob(request);
  for (const mark of ['AP-04', 'TT-01']) {
    await bench(page, pieces[mark] ?? 0);
    await page
      .getByRole('contentinfo')
      .getByRole('button', { name: /^blank/ })
      .first()
      .click();
    await page.getByLabel('balloons on the blank').check();
    await page.keyboard.press('Escape');
    await expect(page.locator('.blank text.bl').first()).toBeVisible();
    // A balloon may lie in its own hole: it is told by its letter.
    const own = (words: string[]) => words.filter((one) => !/"[A-Z]\d+" on hole/.test(one));
    await expect.poll(async () => own(await wrongly(page))).toEqual([]);
  }
});

/** The box of what is bright in a picture: the metal on the stage's ground, pixels. */
const brightIn = (page: Page, png: Buffer): Promise<{ x: number; y: number; width: number; height: number }> =>
  page.evaluate(async (data) => {
    const image = new Image();
    image.src = `data:image/png;base64,${data}`;
    await image.decode();
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [image.width, image.height];
    const pen = canvas.getContext('2d')!;
    pen.drawImage(image, 0, 0);
    const pixels = pen.getImageData(0, 0, image.width, image.height).data;
    let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
    for (let at = 0; at < pixels.length; at += 4) {
      if (pixels[at]! + pixels[at + 1]! + pixels[at + 2]! < 330) continue;
      const [x, y] = [(at / 4) % image.width, Math.floor(at / 4 / image.width)];
      [left, top] = [Math.min(left, x), Math.min(top, y)];
      [right, bottom] = [Math.max(right, x + 1), Math.max(bottom, y + 1)];
    }
    return { x: left, y: top, width: right - left, height: bottom - top };
  }, png.toString('base64'));

test('labels on the stage lie on no hole: plates from above, holes where the hole table has them', async ({
  page,
  request,
}) => {
  const { pieces } = await freshJob(request);
  let [told, labels] = [0, 0];
  for (const mark of ['AP-04', 'PF-05', 'GS-06', 'PE-07']) {
    const id = pieces[mark] ?? 0;
    await bench(page, id);
    await page.keyboard.press('6');
    const room = (await page.locator('[data-testid=folded] canvas').boundingBox())!;
    const document = await (await request.get(`/api/pieces/${id}/piece.json`)).json();
    const table = await (await request.post('/api/tables', { data: { document, corner: 'lower_left' } })).json();
    const blank = await (await request.get(`/api/pieces/${id}/files/blank.dxf`)).text();
    const { width, height } = walkedSize(blank);
    // Everything over the picture away, what is left is metal; a frame takes its time where it is drawn in software.
    const style = await page.addStyleTag({
      content: '.tag, .stands, .foldbar, .view h2 { visibility: hidden !important; }',
    });
    let metal = { x: 0, y: 0, width: 0, height: 0 };
    await expect
      .poll(
        async () => {
          metal = await brightIn(page, await page.screenshot({ clip: room }));
          return Math.abs(metal.height / height / (metal.width / width) - 1);
        },
        { message: `${mark} is seen square from above`, timeout: 15_000 },
      )
      .toBeLessThan(0.03);
    await style.evaluate((one) => (one as HTMLElement).remove());
    const tags = await page.locator('[data-testid=folded] .tag').evaluateAll((all) =>
      all
        .filter((one) => getComputedStyle(one).visibility !== 'hidden')
        .map((one) => {
          const { left, top, right, bottom } = one.getBoundingClientRect();
          return { words: one.textContent ?? '', left, top, right, bottom };
        }),
    );
    labels += tags.length;
    const scale = metal.width / width;
    for (const hole of table.holes as { name: string; x: string; y: string; size: string }[]) {
      const radius = (parseFloat(/(?:dia|Ø)\s*([\d.]+)/.exec(hole.size)?.[1] ?? '0') / 2) * scale;
      const x = room.x + metal.x + parseFloat(hole.x) * scale;
      const y = room.y + metal.y + metal.height - parseFloat(hole.y) * scale;
      told += 1;
      for (const tag of tags) {
        const off = Math.hypot(Math.max(tag.left - x, 0, x - tag.right), Math.max(tag.top - y, 0, y - tag.bottom));
        expect(off, `${mark}: "${tag.words}" on ${hole.name}`).toBeGreaterThan(radius - 1.5);
      }
    }
  }
  // A label without room is not shown; some have it.
  expect(told).toBeGreaterThan(8);
  expect(labels).toBeGreaterThan(1);
});

test('columns and panels keep the sizes that they are given, and a panel docks where it is put', async ({
  page,
  request,
}) => {
  const { pieces } = await freshJob(request);
  await bench(page, pieces['WB-02'] ?? 0);
  const wide = async (name: string) => (await page.getByRole('region', { name }).boundingBox())?.width ?? 0;
  const work = page.locator('#column-work');
  const before = (await work.boundingBox())?.width ?? 0;
  const divider = page.getByRole('separator', { name: 'Divider between You do and You get' });
  const at = await divider.boundingBox();
  if (!at) throw new Error('no divider');
  await page.mouse.move(at.x + at.width / 2, at.y + 200);
  await page.mouse.down();
  await page.mouse.move(at.x + at.width / 2 + 60, at.y + 200, { steps: 5 });
  await page.mouse.up();
  await expect.poll(async () => Math.round(((await work.boundingBox())?.width ?? 0) - before)).toBeGreaterThan(50);
  // By the arrow keys as well.
  const dragged = (await work.boundingBox())?.width ?? 0;
  await divider.focus();
  await page.keyboard.press('ArrowLeft');
  await expect.poll(async () => (await work.boundingBox())?.width ?? 0).toBeLessThan(dragged);
  const left = (await work.boundingBox())?.width ?? 0;
  await page.reload();
  await drawn(page);
  expect(Math.abs(((await work.boundingBox())?.width ?? 0) - left)).toBeLessThan(2);
  // The panel that opens lies over nothing, below or beside.
  const strip = page.getByRole('contentinfo', { name: 'Proof' });
  await strip.getByRole('button', { name: /^blank/ }).click();
  const panel = page.locator('section.detail');
  const stage = page.getByRole('region', { name: 'You get' });
  const [low, above] = [await panel.boundingBox(), await stage.boundingBox()];
  expect((above?.y ?? 0) + (above?.height ?? 0)).toBeLessThanOrEqual((low?.y ?? 0) + 1);
  await panel.getByRole('button', { name: 'Dock it beside' }).click();
  await expect(panel.getByRole('button', { name: 'Dock it below' })).toBeVisible();
  const [beside, held] = [await panel.boundingBox(), await stage.boundingBox()];
  expect((held?.x ?? 0) + (held?.width ?? 0)).toBeLessThanOrEqual((beside?.x ?? 0) + 1);
  await page.reload();
  await drawn(page);
  await strip.getByRole('button', { name: /^blank/ }).click();
  await expect(panel.getByRole('button', { name: 'Dock it below' })).toBeVisible();
  expect(await wide('You get')).toBeGreaterThan(200);
});
