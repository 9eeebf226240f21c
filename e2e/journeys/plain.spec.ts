/** A page that comes over plain http from another machine: the browser gives it less than one of this machine. */
import { expect, open, test as base } from '../fixtures';
import { chromium } from '../launch';
import { startServer } from '../server';

const NAME = 'studio.test';

const test = base.extend({
  // eslint-disable-next-line no-empty-pattern
  server: async ({}, use) => {
    const server = await startServer(['--public-url', `http://${NAME}`]);
    await use(server);
    await server.stop();
  },
  baseURL: async ({ server }, use) => use(`http://${NAME}:${new URL(server.url).port}`),
});

test.use({
  launchOptions: {
    ...chromium,
    args: [...chromium.args, `--host-resolver-rules=MAP ${NAME} 127.0.0.1`],
  },
});

test('over plain http everything works or says that it does not, and a lost request breaks no view', async ({
  page,
  context,
}) => {
  await open(page, 'Now');
  const given = await page.evaluate(() => ({
    secure: window.isSecureContext,
    locks: 'locks' in navigator,
    clipboard: 'clipboard' in navigator,
  }));
  expect(given).toEqual({ secure: false, locks: false, clipboard: false });

  // A fingertip is kept; two more are entered while nothing answers, and go out when it does again.
  const finger = page.getByRole('group', { name: /^A fingertip on Unifying glaze of Sleet/ });
  const waiting = page.getByRole('region', { name: 'Entries that wait' });
  await context.setOffline(true);
  await finger.getByRole('button', { name: 'tacky' }).click();
  await expect(waiting).toContainText('One entry waits in this browser');
  // A view that was not opened before cannot come: the others stay, and it opens when it can.
  const views = page.getByRole('navigation', { name: 'Views' });
  await views.getByRole('link', { name: 'Season' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('This view has not come');
  await views.getByRole('link', { name: 'Now' }).click();
  await expect(page.getByRole('heading', { level: 1, name: /: / })).toBeVisible();
  await views.getByRole('link', { name: 'Season' }).click();
  await context.setOffline(false);
  await expect(page.getByRole('heading', { level: 1, name: 'Season' })).toBeVisible();
  await expect(waiting).toBeHidden();
  await open(page, 'Log');
  const entries = page.getByRole('list', { name: 'Entries' }).getByRole('listitem');
  await expect(entries.filter({ hasText: /Tacky/ })).toHaveCount(1);

  await open(page, 'Studio');
  await expect(page.getByRole('note')).toContainText('This page comes over plain http.');
  await page.getByRole('button', { name: 'Add an instrument' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('textbox').first().fill('Windowsill');
  await dialog.getByRole('button', { name: /^Add/ }).click();
  await expect(page.getByRole('dialog')).toContainText('Select the token above and copy it.');
});
