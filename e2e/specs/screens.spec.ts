// Every screen, light and dark, at the width of a desk, a tablet and a phone: axe finds nothing, and nothing is wider
// than the screen.
import { expect, test, type Page } from '@playwright/test';
import { clean, freshJob } from './common';

const SIZES = [
  { width: 1280, height: 800 },
  { width: 1024, height: 768 },
  { width: 390, height: 844 },
];

interface Where {
  job: number;
  pieces: Record<string, number>;
}

/** Screens, how one comes to them, and what is there when they are. */
const SCREENS: { name: string; path: (where: Where) => string; there: (page: Page) => Promise<void> }[] = [
  {
    name: 'rack',
    path: () => '/',
    there: (page) => expect(page.getByRole('grid', { name: 'Jobs' })).toBeVisible(),
  },
  {
    name: 'job',
    path: ({ job }) => `/jobs/${job}`,
    there: (page) => expect(page.getByRole('grid', { name: 'Cut list' })).toBeVisible(),
  },
  {
    name: 'sheet on the bench',
    path: ({ pieces }) => `/pieces/${pieces['WB-02']}`,
    there: (page) => expect(page.locator('.blank svg[role=img]')).toBeVisible(),
  },
  {
    name: 'frame on the bench',
    path: ({ pieces }) => `/pieces/${pieces['LT-01']}`,
    there: (page) => expect(page.getByRole('region', { name: 'Distinct pieces' })).toBeVisible(),
  },
  {
    name: 'cutting',
    path: ({ pieces }) => `/pieces/${pieces['AP-04']}/cutting`,
    there: (page) => expect(page.getByText('the part holds')).toBeVisible(),
  },
  {
    name: 'shop',
    path: () => '/shop',
    there: (page) => expect(page.getByRole('region', { name: 'Screws' })).toBeVisible(),
  },
  {
    name: 'words',
    path: () => '/words',
    there: (page) => expect(page.getByRole('article', { name: 'K-factor' })).toBeVisible(),
  },
];

for (const dark of [false, true])
  for (const screen of SCREENS) {
    const look = `${screen.name} ${dark ? 'in the dark' : 'in the light'}`;
    test(`${look} at three sizes`, async ({ page, request }) => {
      const where = await freshJob(request);
      await page.addInitScript((on) => {
        localStorage.setItem('steelk-seen', 'yes');
        localStorage.setItem('steelk-settings', JSON.stringify({ state: { dark: on }, version: 0 }));
      }, dark);
      await page.goto(screen.path(where));
      await screen.there(page);
      for (const size of SIZES) {
        await page.setViewportSize(size);
        await expect(page.getByRole('main')).toBeVisible();
        const what = `${look} at ${size.width}`;
        const past = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
        expect(past, `${what}: wider than the screen`).toBeLessThanOrEqual(1);
        await clean(page, what);
      }
    });
  }
