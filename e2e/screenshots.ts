/** Takes the pictures of docs/screenshots/ from the demo studio at a fixed moment, one of each
 * main view. Run by scripts/screenshots.sh. */
import { chromium, type Page } from '@playwright/test';
import { chromium as launch } from './launch';
import { startServer } from './server';

const OUT = new URL('../docs/screenshots/', import.meta.url).pathname;
const DESK = { width: 1280, height: 800 };
const PHONE = { width: 390, height: 844 };

interface Shot {
  name: string;
  size?: typeof DESK;
  dim?: boolean;
  take: (page: Page, url: string) => Promise<void>;
}

const picture = async (page: Page, url: string, title: string) => {
  await page.goto(`${url}/pictures`);
  await page.getByRole('main').getByRole('link', { name: title }).click();
  await page.getByRole('slider', { name: 'Film of the picture over time' }).waitFor();
};

const now = async (page: Page, url: string) => {
  await page.goto(url);
  await page.getByRole('region', { name: 'Leave alone' }).waitFor();
};

const sealing = async (page: Page, url: string, title: string, to: string) => {
  await page.goto(`${url}/gate`);
  await page.getByRole('main').getByRole('link', { name: title }).click();
  await page.getByRole('navigation', { name: 'Sealing' }).getByRole('link', { name: to }).click();
  await page.getByRole('link', { name: to, exact: true }).and(page.locator('.active')).waitFor();
};

const SHOTS: Shot[] = [
  { name: 'now', take: now },
  { name: 'now-phone', size: PHONE, take: now },
  {
    name: 'pictures',
    take: async (page, url) => {
      await page.goto(`${url}/pictures`);
      await page.getByRole('article').first().waitFor();
    },
  },
  { name: 'picture', take: (page, url) => picture(page, url, 'Storm glass') },
  { name: 'picture-dim', dim: true, take: (page, url) => picture(page, url, 'Sleet') },
  {
    name: 'steps',
    take: async (page, url) => {
      await picture(page, url, 'Sleet');
      await page.getByRole('region', { name: 'Steps' }).evaluate((e) => e.scrollIntoView());
    },
  },
  {
    name: 'colour',
    take: async (page, url) => {
      await picture(page, url, 'Two carboys');
      await page.getByRole('button', { name: 'Cup: Glaze 3' }).click();
      const looks = page.getByRole('region', { name: 'What it will look like' });
      await looks.getByRole('button', { name: /^3 coats, value here/ }).click();
      await page.getByRole('button', { name: 'Find a mix' }).click();
      await page.getByRole('button', { name: 'Take mix 1' }).waitFor();
      await looks.evaluate((element) => element.scrollIntoView());
    },
  },
  {
    name: 'cup',
    take: async (page, url) => {
      await picture(page, url, 'Two carboys');
      await page.getByRole('button', { name: 'Cup: Glaze 3' }).click();
      await page.getByRole('button', { name: 'Keep it beside' }).click();
      await page.getByRole('button', { name: 'Slower' }).click();
      await page.getByText('Beside the kept cup').waitFor();
      // Until the answer to the slower cup is there, its share is not.
      await page.getByTestId('cup-verdict').filter({ hasNotText: 'works 6 min' }).waitFor();
      await page.evaluate(() => window.scrollTo(0, 0));
    },
  },
  {
    name: 'season',
    take: async (page, url) => {
      await page.goto(`${url}/season`);
      await page
        .getByText(/: \d in 10/)
        .first()
        .waitFor();
    },
  },
  {
    name: 'season-draft',
    dim: true,
    take: async (page, url) => {
      await page.goto(`${url}/season`);
      await page
        .getByText(/: \d in 10/)
        .first()
        .waitFor();
      await page.getByRole('button', { name: /^Sleet/ }).click();
      await page.getByRole('button', { name: 'Open beside the plan' }).first().click();
      await page.getByText('makes its date').first().waitFor();
      await page.evaluate(() => window.scrollTo(0, 0));
    },
  },
  {
    name: 'week',
    take: async (page, url) => {
      await page.goto(`${url}/season/week`);
      await page.getByRole('button', { name: 'Print it' }).waitFor();
    },
  },
  {
    name: 'gates',
    take: async (page, url) => {
      await page.goto(`${url}/gate`);
      await page.getByText('73 % is too damp').waitFor();
    },
  },
  { name: 'gate', take: (page, url) => sealing(page, url, 'Two carboys', 'Gate') },
  { name: 'varnish', take: (page, url) => sealing(page, url, 'Lamp row', 'Varnish plan') },
  { name: 'bench', dim: true, take: (page, url) => sealing(page, url, 'Lamp row', 'Bench sheet') },
  { name: 'record', take: (page, url) => sealing(page, url, 'Fog lamp', 'Record sheet') },
  {
    name: 'shelf',
    take: async (page, url) => {
      await page.goto(`${url}/shelf`);
      await page.getByRole('region', { name: 'Paints', exact: true }).waitFor();
    },
  },
  {
    name: 'log',
    take: async (page, url) => {
      await page.goto(`${url}/log`);
      await page.getByRole('list', { name: 'Entries' }).waitFor();
    },
  },
  {
    name: 'studio',
    take: async (page, url) => {
      await page.goto(`${url}/studio`);
      const room = page.getByRole('region', { name: 'The room and its instruments' });
      await room.getByRole('button', { name: 'Try a simulated hygrometer' }).click();
      await room.getByText('The hygrometer').first().waitFor();
      await room.getByRole('button', { name: 'Week' }).click();
      await room.getByText('The room as it is usually kept').waitFor();
      await room.evaluate((e) => e.scrollIntoView());
    },
  },
];

/** Until nothing in sight is read or computed any more and every photograph in sight is there: between two
 * questions the network is still too. */
const settled = async (page: Page) => {
  await page.waitForLoadState('networkidle');
  await page.waitForFunction(() =>
    Array.from(document.querySelectorAll('[role=status], img'))
      .filter((element) => element.getBoundingClientRect().top < innerHeight)
      .every((element) =>
        element instanceof HTMLImageElement
          ? element.complete && element.naturalWidth > 0
          : !element.textContent.endsWith('…'),
      ),
  );
};

const server = await startServer();
const browser = await chromium.launch({
  ...launch,
  env: { ...process.env, LANG: 'en_GB.UTF-8', LANGUAGE: 'en_GB' },
});
try {
  for (const shot of SHOTS) {
    const page = await browser.newPage({
      viewport: shot.size ?? DESK,
      locale: 'en-GB',
      timezoneId: 'Europe/Oslo',
    });
    if (shot.dim) await page.addInitScript(() => localStorage.setItem('ulvek.surround', 'dim'));
    await shot.take(page, server.url);
    await settled(page);
    await page.screenshot({ path: `${OUT}${shot.name}.png`, animations: 'disabled' });
    await page.close();
  }
} finally {
  await browser.close();
  await server.stop();
}
