/** One application with its own database and its own clock per journey. */
import AxeBuilder from '@axe-core/playwright';
import { test as base, expect, type Download, type Locator, type Page } from '@playwright/test';
import { startServer, type Server } from './server';

export const test = base.extend<{ server: Server }>({
  // eslint-disable-next-line no-empty-pattern
  server: async ({}, use) => {
    const server = await startServer();
    await use(server);
    await server.stop();
  },
  baseURL: async ({ server }, use) => use(server.url),
});

export { expect };

/** Opens a view and waits until it is there. */
export async function open(
  page: Page,
  view: 'Now' | 'Pictures' | 'Season' | 'Gate' | 'Log' | 'Shelf' | 'Studio',
) {
  await page.goto(view === 'Now' ? '/' : `/${view.toLowerCase()}`);
  const heading = { Now: /: /, Studio: /North-light room/ }[view as string] ?? view;
  await expect(page.getByRole('heading', { level: 1, name: heading })).toBeVisible();
}

/** The file behind a link. A view that still settles may move it from under the pointer: then it is pressed again. */
export async function downloaded(page: Page, link: Locator): Promise<Download> {
  let file: Download | undefined;
  await expect(async () => {
    [file] = await Promise.all([page.waitForEvent('download', { timeout: 20_000 }), link.click()]);
  }).toPass();
  if (!file) throw new Error('nothing was downloaded');
  return file;
}

/** Opens the picture whose title begins so. */
export async function openPicture(page: Page, title: string) {
  await open(page, 'Pictures');
  await page.getByRole('main').getByRole('link', { name: title }).click();
  await expect(page.getByRole('slider', { name: 'Film of the picture over time' })).toBeVisible();
}

/** No lasting serious fault by an automated accessibility check, of all its rules or of those named.
 * An answer may arrive while it looks: half-way from one colour to the next nothing has its contrast,
 * so it looks again until the page has come to rest; what stays is a fault. */
export async function expectAccessible(page: Page, rules?: string[]) {
  const check = new AxeBuilder({ page }).options({ resultTypes: ['violations'] });
  await expect(async () => {
    await page.waitForFunction(() =>
      document
        .getAnimations()
        .every((a) => a.playState !== 'running' || a.effect?.getTiming().iterations === Infinity),
    );
    const { violations } = await (rules ? check.withRules(rules) : check).analyze();
    const faults = violations
      .filter((v) => v.impact === 'serious' || v.impact === 'critical')
      .flatMap((v) => v.nodes.map((n) => `${v.id}: ${n.html.slice(0, 400)} ${n.failureSummary}`));
    expect(faults).toEqual([]);
  }).toPass({ timeout: 180_000 });
}

/** Nothing scrolls sideways, once the figures have taken their new width. */
export async function expectNoSidewaysScroll(page: Page) {
  const over = () =>
    page.evaluate(
      () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
    );
  await expect.poll(over).toBeLessThanOrEqual(0);
}

/** Puts a further part into the cup's recipe, and waits until its numbers are there: an answer that
 * arrives while a number is typed would take the selection away. */
export async function addPart(page: Page, material: string) {
  const recipe = page.getByRole('group', { name: 'Recipe' });
  const boxes = recipe.getByRole('combobox', { name: 'Material' });
  await expect(boxes.first()).toBeVisible();
  const before = await boxes.count();
  // A press while the row still moves can miss its button: it is pressed again, once the view is still.
  await expect(async () => {
    if ((await boxes.count()) === before) {
      await recipe.getByRole('button', { name: 'Add a part' }).click({ timeout: 5_000 });
    }
    await expect(boxes).toHaveCount(before + 1, { timeout: 5_000 });
  }).toPass();
  await expect(recipe.getByLabel(/^Percent of/).last()).not.toHaveValue('');
  const option = page.getByRole('option', { name: material, exact: true });
  // A list that opens while the row still moves can close at once: it is opened again.
  await expect(async () => {
    if (!(await option.isVisible())) await boxes.last().click();
    await option.click({ timeout: 5_000 });
  }).toPass();
  await expect(page.getByLabel(`Percent of ${material}`, { exact: true })).not.toHaveValue('');
}
