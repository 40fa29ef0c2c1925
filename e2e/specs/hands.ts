import { readFileSync } from 'node:fs';
import { expect, type Locator, type Page } from '@playwright/test';

/**
 * Somebody's hands, counted: an action is one click, one drag, one key, or one typed value with the Tab or Enter that
 * ends it.
 */
export class Hands {
  actions = 0;
  constructor(
    readonly page: Page,
    /** Whether they are fingers on the screen, which have no Shift. */
    readonly touch = false,
  ) {}

  /** Points at something and presses. */
  async click(what: Locator, at?: { x: number; y: number }): Promise<void> {
    this.actions += 1;
    await (this.touch ? what.tap({ position: at }) : what.click({ position: at }));
  }

  /** No more than so many actions were needed; fingers have no Shift, and ask for one more by the menu. */
  within(most: number): void {
    expect(this.actions).toBeLessThanOrEqual(this.touch ? most + 4 : most);
  }

  /** A step or a reading on the menu of what is pointed at. */
  async menu(words: string | RegExp): Promise<void> {
    const item = this.page.getByRole('menuitem', { name: words });
    await expect(item).toBeVisible();
    // All of it is on the screen, however long it is, and it has moved nothing else.
    const seen = await this.page.evaluate(() => {
      const menu = document.querySelector('.pickmenu')?.getBoundingClientRect();
      return { top: menu?.top ?? 0, below: (menu?.bottom ?? 0) - window.innerHeight, scrolled: window.scrollY };
    });
    expect(seen.top).toBeGreaterThanOrEqual(0);
    expect(seen.below).toBeLessThanOrEqual(0);
    expect(seen.scrolled).toBe(0);
    await this.click(item);
  }

  /** Types over the value that has the focus. */
  async type(value: string, end: 'Tab' | 'Enter'): Promise<void> {
    this.actions += 1;
    await this.page.keyboard.type(value);
    await this.page.keyboard.press(end);
  }

  async key(key: string): Promise<void> {
    this.actions += 1;
    await this.page.keyboard.press(key);
  }

  /** Goes on with Tab until this has the focus; every press counts. */
  async tabTo(what: Locator): Promise<void> {
    for (let tries = 0; tries < 60; tries += 1) {
      if (await what.evaluate((one) => one === document.activeElement)) return;
      await this.key('Tab');
    }
    throw new Error('Tab does not come to it.');
  }

  /** One of a list. */
  async choose(what: Locator, value: string): Promise<void> {
    this.actions += 1;
    await what.selectOption(value);
  }

  /**
   * Points at an edge, a hole or a bend on the blank where its line has its middle; at a panel at a share of its box.
   * `more` with Shift held, or by the menu.
   */
  async point(name: string, { more = false, at }: { more?: boolean; at?: [number, number] } = {}): Promise<void> {
    if (more && this.touch) await this.menu(/^Choose one more with this/);
    const place = await this.page
      .locator(`.blank [data-pick="${name}"]:not(.near)`)
      .first()
      .evaluate((one, share) => {
        if (share || !(one instanceof SVGGeometryElement) || one.classList.contains('hole')) {
          const box = one.getBoundingClientRect();
          const [x, y] = share ?? [0.5, 0.5];
          return { x: box.left + box.width * x, y: box.top + box.height * y };
        }
        const middle = one.getPointAtLength(one.getTotalLength() / 2).matrixTransform(one.getScreenCTM() ?? undefined);
        return { x: middle.x, y: middle.y };
      }, at);
    this.actions += 1;
    if (this.touch) {
      await this.page.touchscreen.tap(place.x, place.y);
      return;
    }
    if (more) await this.page.keyboard.down('Shift');
    await this.page.mouse.click(place.x, place.y);
    if (more) await this.page.keyboard.up('Shift');
  }

  /** Takes a file, and what is in it. */
  async file(words: string): Promise<Buffer> {
    const coming = this.page.waitForEvent('download');
    await this.click(this.page.getByRole('button', { name: words, exact: true }));
    return readFileSync(await (await coming).path());
  }

  /** Waits until a step that was kept stands in the work, and the menu and the draft are gone. */
  async kept(steps: number): Promise<void> {
    await expect(this.page.locator('ol.work > li')).toHaveCount(steps);
    await expect(this.page.locator('[role=group].draft')).toHaveCount(0);
  }
}

/** What a DXF draws on a layer: its entities with the numbers of their group codes in order. */
export function entities(dxf: string, layer: string): { kind: string; values: [number, string][] }[] {
  const lines = dxf.split(/\r?\n/);
  const pairs: [number, string][] = [];
  for (let at = 0; at + 1 < lines.length; at += 2) pairs.push([Number(lines[at]), (lines[at + 1] ?? '').trim()]);
  const start = pairs.findIndex(([code, text]) => code === 2 && text === 'ENTITIES');
  const found: { kind: string; values: [number, string][] }[] = [];
  for (const pair of pairs.slice(start + 1)) {
    if (pair[0] === 0) {
      if (pair[1] === 'ENDSEC') break;
      found.push({ kind: pair[1], values: [] });
    } else found[found.length - 1]?.values.push(pair);
  }
  return found.filter((one) => one.values.some(([code, text]) => code === 8 && text === layer));
}

/** The box around what a DXF cuts, by the corners and circles that it draws there. */
export function cutSize(dxf: string): { width: number; height: number; circles: number[] } {
  const xs: number[] = [];
  const ys: number[] = [];
  const circles: number[] = [];
  for (const one of entities(dxf, 'CUT')) {
    const all = (code: number) => one.values.filter(([own]) => own === code).map(([, text]) => Number(text));
    if (one.kind === 'CIRCLE') {
      circles.push(2 * (all(40)[0] ?? 0));
      continue;
    }
    xs.push(...all(10), ...all(11));
    ys.push(...all(20), ...all(21));
  }
  return { width: Math.max(...xs) - Math.min(...xs), height: Math.max(...ys) - Math.min(...ys), circles };
}

/** How wide and high the cut contours of a DXF are with their arcs: walked in two hundred steps each. */
export function walkedSize(dxf: string): { width: number; height: number } {
  const xs: number[] = [];
  const ys: number[] = [];
  for (const { kind, values } of entities(dxf, 'CUT')) {
    if (kind !== 'LWPOLYLINE') continue;
    const corners: { x: number; y: number; bulge: number }[] = [];
    for (const [code, text] of values) {
      if (code === 10) corners.push({ x: Number(text), y: 0, bulge: 0 });
      const last = corners[corners.length - 1];
      if (last && code === 20) last.y = Number(text);
      if (last && code === 42) last.bulge = Number(text);
    }
    corners.forEach((from, at) => {
      const to = corners[(at + 1) % corners.length] ?? from;
      xs.push(from.x);
      ys.push(from.y);
      if (from.bulge === 0) return;
      // The centre lies off the middle of the chord by (1 - b2) / 4b of it, to the left.
      const [dx, dy] = [to.x - from.x, to.y - from.y];
      const off = (1 - from.bulge ** 2) / (4 * from.bulge);
      const [cx, cy] = [(from.x + to.x) / 2 - dy * off, (from.y + to.y) / 2 + dx * off];
      const radius = Math.hypot(from.x - cx, from.y - cy);
      const start = Math.atan2(from.y - cy, from.x - cx);
      for (let step = 1; step < 200; step += 1) {
        const angle = start + (4 * Math.atan(from.bulge) * step) / 200;
        xs.push(cx + radius * Math.cos(angle));
        ys.push(cy + radius * Math.sin(angle));
      }
    });
  }
  return { width: Math.max(...xs) - Math.min(...xs), height: Math.max(...ys) - Math.min(...ys) };
}
