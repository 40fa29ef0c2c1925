// A tablet under a finger, a phone to read on, the keyboard past the bar, and what is said to who does not see the screen.
import { expect, test, type Page } from '@playwright/test';
import { bench, clean, confirmStock, freshJob, saved, seen } from './common';

const small = async (page: Page) => {
  const wide = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
  expect(wide, 'the page is no wider than the screen').toBeLessThanOrEqual(1);
};

/** Everything that can be pressed on the bench's own columns is at least so large. */
const targets = async (page: Page, least: number) => {
  const found = await page.evaluate((wanted) => {
    const all = [...document.querySelectorAll<HTMLElement>('.bar button, .columntabs button, .opacts button, .chip')];
    const seen = all.filter((one) => one.getClientRects().length > 0);
    const tooSmall = seen.filter((one) => one.getBoundingClientRect().height < wanted - 0.5);
    return { count: seen.length, tooSmall: tooSmall.map((one) => one.getAttribute('aria-label') ?? one.textContent) };
  }, least);
  expect(found.count).toBeGreaterThan(8);
  expect(found.tooSmall).toEqual([]);
};

test.describe('at 1024 by 768 under a finger', () => {
  test.use({ viewport: { width: 1024, height: 768 }, hasTouch: true, isMobile: true });

  test('a bracket, from an empty job to a proved blank, by touch', async ({ page }) => {
    await seen(page);
    await page.goto('/');
    await page.getByRole('button', { name: 'New job' }).tap();
    await page.getByLabel('Job number').fill('TS-T1');
    await page.getByLabel('What it is').fill('Touched');
    await page.getByRole('button', { name: 'Make it' }).tap();
    await page.getByRole('button', { name: 'Start a bracket' }).tap();
    await confirmStock(page, '3 mm');
    const tabs = page.getByRole('tablist', { name: 'Columns' });
    await expect(tabs.getByRole('tab', { name: 'You do' })).toHaveAttribute('aria-selected', 'true');
    await page.getByRole('button', { name: 'Lay down a rectangle' }).tap();
    const draft = page.locator('.draft');
    await draft.locator('input').nth(0).fill('80 mm');
    await draft.locator('input').nth(1).fill('60 mm');
    await draft.getByRole('button', { name: 'Keep (Enter)' }).tap();
    await expect(page.locator('.blank svg[role=img]')).toHaveAttribute('aria-label', /^Blank, 80 mm by 60 mm/);
    await page.locator('.blank [data-feature="base.back"]').first().tap({ force: true });
    await page
      .getByRole('menuitem', { name: /[Bb]end/ })
      .first()
      .tap();
    await draft.getByRole('button', { name: 'Keep (Enter)' }).tap();
    await expect(page.locator('ol.work > li')).toHaveCount(2);
    await saved(page);
    await targets(page, 40);
    await small(page);
    await clean(page, 'bench at 1024 by touch');
    await tabs.getByRole('tab', { name: 'Drawing says' }).tap();
    await expect(page.getByRole('tabpanel', { name: 'Drawing says' })).toBeVisible();
    await expect(page.getByRole('tabpanel', { name: 'You do' })).toBeHidden();
    // No word is broken into a letter a line: the list of call-outs has its room.
    await clean(page, 'the drawing at 1024');
  });
});

test.describe('on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

  test('the job, the flat and the bend table can be read', async ({ page, request }) => {
    const { job, pieces } = await freshJob(request);
    await seen(page);
    await page.goto(`/jobs/${job}`);
    await expect(page.getByRole('article', { name: /^WB-02/ })).toBeVisible();
    await small(page);
    await clean(page, 'job at 390');
    await bench(page, pieces['WB-02'] ?? 0);
    await expect(page.getByRole('tab', { name: 'You get' })).toHaveAttribute('aria-selected', 'true');
    const blank = page.locator('.blank svg[role=img]');
    await expect(blank).toBeInViewport();
    await small(page);
    await page
      .getByRole('contentinfo', { name: 'Proof' })
      .getByRole('button', { name: /^blank/ })
      .tap();
    await expect(page.getByRole('grid').first()).toContainText('air bend, die 24 mm');
    await clean(page, 'bend table at 390');
  });

  test('the cut list of a frame can be read', async ({ page, request }) => {
    const { pieces } = await freshJob(request);
    await bench(page, pieces['LT-01'] ?? 0);
    await page
      .getByRole('contentinfo', { name: 'Proof' })
      .getByRole('button', { name: /^members/ })
      .tap();
    await expect(page.getByRole('grid', { name: 'Cut list' })).toContainText('SHS 60x60x4');
    await small(page);
    await clean(page, 'cut list at 390');
  });
});

test('by the keyboard: past the bar, to any action, and told what broke', async ({ page, request }) => {
  const { pieces } = await freshJob(request);
  await bench(page, pieces['AP-04'] ?? 0);
  await page.keyboard.press('Tab');
  const skip = page.getByRole('link', { name: 'Skip to: Drawing says' });
  await expect(skip).toBeFocused();
  await page.keyboard.press('Tab');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/#column-work$/);
  // Any action by its name, as a list that is told.
  await page.keyboard.press('Control+k');
  const box = page.getByRole('combobox', { name: 'Go to' });
  await page.keyboard.type('inches');
  const list = page.getByRole('listbox', { name: 'Found' });
  await expect(list.getByRole('option', { name: /^Inches/ })).toHaveAttribute('aria-selected', 'true');
  await expect(box).toHaveAttribute('aria-activedescendant', 'found-0');
  await clean(page, 'go to');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('contentinfo', { name: 'Proof' })).toContainText(' lb');
  await page.keyboard.press('u');
  // A hole too near the edge is said, and so is that everything holds again.
  const told = page.getByTestId('announced');
  await page.keyboard.press('/');
  await page.keyboard.type('drill base, 10 mm, from base.front 7 mm');
  await page.keyboard.press('Enter');
  await expect(told).toContainText('Broken:');
  await page.keyboard.press('Escape');
  await saved(page);
  await page.keyboard.press('Control+z');
  await expect(told).toContainText('Everything holds.');
});

test('the bracket as a screen reader has it: landmarks, names, what is on and what a list offers', async ({
  page,
  request,
}) => {
  const { pieces } = await freshJob(request);
  await bench(page, pieces['WB-02'] ?? 0);
  await expect(page.locator('#root')).toMatchAriaSnapshot(`
    - navigation "Skip":
      - 'link "Skip to: Drawing says"'
      - 'link "Skip to: You do"'
      - 'link "Skip to: You get"'
      - 'link "Skip to: Proof"'
    - banner:
      - link "Steelk"
      - navigation "Where you are":
        - link "Rack"
        - link /Launching trolley/
      - status: saved
    - main:
      - region "Drawing says":
        - heading "Drawing says" [level=2]
        - img "Drawing of WB-02; its numbers are in the list below"
        - button "Balloon A, upright, outside"
        - table "Call-outs"
      - separator "Divider between Drawing says and You do"
      - region "You do":
        - heading "You do" [level=2]
        - combobox "material"
        - 'button "quantity: 2"'
        - list
      - separator "Divider between You do and You get"
      - region "You get":
        - img "Folded part; its panels are named on it and listed under Blank below"
        - separator "Divider between Folded and what lies below"
        - img /^Blank, 120 mm by 134.786 mm/
    - contentinfo "Proof":
      - button "call-outs 9 hold"
      - button /shop rules \\d+ hold/
      - button "blank 120 × 134.79 mm"
      - button "release proved"
  `);
  // Each step is a list item whose values are buttons that say what they are and what stands in them.
  const work = page.locator('ol.work');
  await expect(work).toMatchAriaSnapshot(`
    - list:
      - listitem:
        - 'button "Step 1, base: show the piece up to here"'
        - combobox "shape of base"
        - 'button "width: B"'
        - 'button "depth: C"'
        - group "Step base":
          - button "leave out base"
          - button "delete base"
      - listitem:
        - 'button "angle: 90 deg"'
        - 'button "edge: base.back"'
        - 'button "leg: A"'
  `);
  const steps = page.getByRole('combobox', { name: 'New operation' });
  await page.keyboard.press('/');
  await expect(steps).toBeFocused();
  await expect(steps).toHaveAttribute('aria-expanded', 'true');
  await page.keyboard.press('ArrowDown');
  const list = page.getByRole('listbox', { name: 'Verbs and names' });
  await expect(list.getByRole('option', { name: 'Bend: Bend a flange along an edge' })).toHaveAttribute(
    'aria-selected',
    'true',
  );
  await expect(steps).toHaveAttribute('aria-activedescendant', 'adder-0');
  await clean(page, 'the list of steps');
  // What a change breaks, and that all holds again, is said where it is listened to.
  await page.keyboard.type('drill base, 9 mm, from base.front 7 mm');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('announced')).toContainText(/^Broken: hole/);
  await expect(page.getByTestId('announced')).toHaveAttribute('aria-live', 'polite');
  await page.keyboard.press('Escape');
  await saved(page);
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('announced')).toHaveText('Everything holds.');
});

test('the glossary has a picture for a word, and each word its place', async ({ page }) => {
  await page.goto('/words#k-factor');
  await expect(page.getByRole('article', { name: 'K-factor' })).toBeInViewport();
  await expect(page.getByRole('img', { name: 'Picture: K-factor' })).toBeVisible();
  await clean(page, 'words');
});
