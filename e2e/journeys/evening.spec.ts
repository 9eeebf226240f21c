import { test as base } from '@playwright/test';
import { expect } from '../fixtures';
import { startServer } from '../server';

/** An application whose clock can be put forward: it is started again on the same data. */
const test = base.extend<{ clock: { to: (then: string) => Promise<void> } }>({
  clock: async ({ page }, use) => {
    let server = await startServer();
    await page.goto(server.url);
    await use({
      to: async (then) => {
        server = await server.again(then);
        await page.reload();
      },
    });
    await server.stop();
  },
});

test('an evening is painted, mis-logged, put right, cut off, and found again next week', async ({
  page,
  context,
  clock,
}) => {
  const go = async (view: string) => {
    await page.getByRole('navigation').getByRole('link', { name: view, exact: true }).click();
    await expect(page.getByRole('heading', { level: 1, name: view })).toBeVisible();
  };
  await page.getByRole('button', { name: 'Begin the session' }).click();
  await go('Pictures');
  await page.getByRole('main').getByRole('link', { name: 'Two carboys' }).click();
  const glaze = page.getByRole('listitem', { name: 'Glaze 3' });
  await expect(glaze).toContainText('Waits for Glaze 2 to be paintable');

  // The laptop is closed, and opened again when the glaze below has dried.
  await clock.to('2027-01-14T19:02:00+01:00');
  await expect(page.getByRole('region', { name: 'Timers' })).toContainText('Until the hours end');
  await page.getByRole('button', { name: 'Coat laid: Glaze 3' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByText('Measured, µm').click();
  await dialog.getByRole('textbox', { name: 'Wet film, µm' }).fill('400');
  await dialog.getByRole('button', { name: 'Log it' }).click();
  await expect(glaze).toContainText('400 µm wet');
  // A nought too many: put right. Then undone, and made again.
  await glaze.getByRole('button', { name: /^Put right/ }).click();
  await dialog.getByText('Measured, µm').click();
  await dialog.getByRole('textbox', { name: 'Wet film, µm' }).fill('40');
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(glaze).toContainText('40 µm wet');
  await page.getByRole('button', { name: /^Undo: put right/ }).click();
  await expect(glaze).toContainText('400 µm wet');
  await page.getByRole('button', { name: /^Redo: put right/ }).click();
  await expect(glaze).toContainText('40 µm wet');

  // The network goes; the fingertip waits, and is there when it comes back.
  await context.setOffline(true);
  const finger = page.getByRole('group', { name: /^A fingertip on Glaze 3/ });
  await finger.getByRole('button', { name: 'wet' }).click();
  const waiting = page.getByRole('region', { name: 'Entries that wait' });
  await expect(waiting).toContainText('One entry waits in this browser');
  await context.setOffline(false);
  await expect(waiting).toBeHidden();
  await expect(page.getByRole('region', { name: 'Touched' })).toContainText('Glaze 3 felt wet');

  // Next week: what was it with the third glaze, and was it in time?
  await clock.to('2027-01-21T18:00:00+01:00');
  await go('Log');
  const entries = page.getByRole('list', { name: 'Entries' }).getByRole('listitem');
  await page.getByRole('textbox', { name: 'Look for' }).fill('carboys glaze 3');
  await expect(entries).toHaveCount(2);
  await expect(entries.filter({ hasText: /touched/ })).toHaveCount(1);
  const coat = entries.filter({ hasText: '40 µm wet' });
  await expect(coat).toContainText('Thu 14 Jan, 19:02');
  await expect(coat).toContainText('Planned for Fri 15 Jan, 19:45, 40 µm wet');
});
