import {
  expect,
  expectAccessible,
  expectNoSidewaysScroll,
  open,
  openPicture,
  test,
} from '../fixtures';

test('a painter opens the studio and sees what to do, what dries and what is in danger', async ({
  page,
}) => {
  await open(page, 'Now');
  await expect(
    page.getByRole('heading', { level: 1, name: 'From 17:45: Varnish 2' }),
  ).toBeVisible();
  const alone = page.getByRole('region', { name: 'Leave alone' });
  await expect(alone.getByRole('link', { name: 'Two carboys, north window' })).toBeVisible();
  await expect(alone).toContainText('until 18:42');
  await expect(page.getByRole('region', { name: 'Dates in danger' })).toContainText(
    /Sleet, tram wires.*Likely ready .*; due 2 February: \d in 10/,
  );
});

test('every view that is asked for one step names the same minute and the same reason', async ({
  page,
}) => {
  const why = 'Waits for Glaze 2 to be paintable';
  // Now: what the step waits for is what gets ready; the plan has it when the painter is free.
  await open(page, 'Now');
  const ready = page.getByRole('region', { name: 'Gets ready' });
  await expect(ready).toContainText('18:42Two carboys, north window');
  await openPicture(page, 'Two carboys');
  const step = page.getByRole('listitem', { name: 'Glaze 3' });
  await expect(step).toContainText(`${why}, Thu 14 Jan, 18:42`);
  const planned = /(Fri 15 Jan, [0-9:]+)Waits for/.exec((await step.textContent()) ?? '')?.[1];
  expect(planned).toBeTruthy();
  await page.getByRole('button', { name: 'Cup: Glaze 3' }).click();
  await expect(page.getByTestId('cup-verdict')).toContainText(`${why}. Laid 18:42`);
  await open(page, 'Season');
  const over = page.getByRole('group', { name: 'Two carboys, north window over time' });
  await expect(over.getByRole('button', { name: `Glaze 3, ${planned}` })).toBeVisible();
  await page.getByRole('link', { name: 'Week sheet' }).click();
  const today = page.getByRole('region', { name: 'Friday 15 January' });
  await expect(today).toContainText(`${planned?.slice(-5)} to`);
  await expect(today).toContainText(`${why}.`);

  // And of a sealing coat the gate too.
  const gap = 'Waits after Varnish 1: the gap between varnish coats';
  await openPicture(page, 'Lamp row');
  const second = page.getByRole('listitem', { name: 'Varnish 2' });
  await expect(second).toContainText(gap);
  await openPicture(page, "Ship's lantern");
  const next = page.getByRole('listitem', { name: 'Varnish 2' });
  await expect(next).toContainText('Thu 14 Jan, 17:45');
  await page.goto('/gate');
  await page.getByRole('main').getByRole('link', { name: "Ship's lantern" }).click();
  await expect(page.getByText('Earliest hour: Thu 14 Jan, 17:45')).toBeVisible();
  await open(page, 'Now');
  await expect(
    page.getByRole('heading', { level: 1, name: 'From 17:45: Varnish 2' }),
  ).toBeVisible();
});

test('the drying rail is on every view, tells what comes, and goes to the picture', async ({
  page,
}) => {
  for (const view of ['Now', 'Pictures', 'Season', 'Gate', 'Shelf', 'Studio'] as const) {
    await open(page, view);
    const rail = page.getByRole('region', { name: 'Drying rail' });
    await expect(rail.getByText('17:34')).toBeVisible();
    await expect(rail.getByText('Thursday 14 January')).toBeVisible();
    await expect(rail.getByRole('button', { name: /Glaze 2 is paintable/ })).toBeVisible();
  }
  const rail = page.getByRole('region', { name: 'Drying rail' });
  await rail.getByRole('button', { name: 'Week' }).click();
  await expect(rail.getByRole('button', { name: 'Week' })).toHaveAttribute('aria-pressed', 'true');
  await rail.getByRole('button', { name: 'Later' }).click();
  await rail.getByRole('button', { name: 'Now', exact: true }).click();
  // What lies on top can be touched there.
  await rail.getByRole('button', { name: /Glaze 2 is paintable/ }).press('Enter');
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('button', { name: 'tacky' }).click();
  await expect(dialog).toContainText('Glaze 2 of Two carboys, north window felt tacky.');
  await expectAccessible(page);
  await dialog.getByRole('button', { name: 'Take it back' }).click();
  await expect(dialog).toContainText('The touch is taken back.');
  await dialog.getByRole('button', { name: 'Go to the picture' }).click();
  await expect(page.getByRole('heading', { name: 'Two carboys, north window' })).toBeVisible();
});

test('every key is listed, and leads where it says', async ({ page }) => {
  await open(page, 'Now');
  await page.keyboard.press('?');
  const list = page.getByRole('dialog', { name: 'Keys' });
  await expect(list).toContainText('Open Pictures');
  await expect(list).toContainText('Rail: later');
  await page.keyboard.press('Escape');
  await page.keyboard.press('2');
  await expect(page.getByRole('heading', { level: 1, name: 'Pictures' })).toBeVisible();
  await page.keyboard.press('d');
  await expect(page.getByRole('button', { name: 'Light screen' })).toBeVisible();
});

for (const surround of ['light', 'dim']) {
  test(`no view has a serious fault of access in the ${surround} surround`, async ({ page }) => {
    await page.addInitScript((s) => localStorage.setItem('ulvek.surround', s), surround);
    // The dim surround changes colours and nothing else.
    const rules = surround === 'dim' ? ['color-contrast'] : undefined;
    for (const view of ['Now', 'Pictures', 'Season', 'Gate', 'Shelf', 'Studio'] as const) {
      await open(page, view);
      await expectAccessible(page, rules);
    }
    await openPicture(page, 'Two carboys');
    await expectAccessible(page, rules);
    await page.getByRole('button', { name: /^Add a step/ }).click();
    await expect(page.getByRole('dialog')).toBeVisible();
    await expectAccessible(page, rules);
  });
}

test('on a phone nothing scrolls sideways', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  for (const view of ['Now', 'Pictures', 'Season', 'Gate', 'Shelf', 'Studio'] as const) {
    await open(page, view);
    await expectNoSidewaysScroll(page);
  }
  await openPicture(page, 'Two carboys');
  await expectNoSidewaysScroll(page);
});

test('a page that hears nothing says since when, and trusts what it shows again afterwards', async ({
  page,
  context,
}) => {
  await page.clock.install();
  await open(page, 'Now');
  const told = page.getByText(/^Nothing heard from Ulvek since \d\d:\d\d\.$/);
  await expect(told).toBeHidden();
  await context.setOffline(true);
  await page.clock.runFor(50_000);
  await expect(told).toBeHidden();
  await page.clock.runFor(40_000);
  await expect(told).toBeVisible();
  await expect(page.locator('[data-stale="true"]')).toHaveCSS('opacity', '0.5');
  await context.setOffline(false);
  await page.clock.runFor(60_000);
  await expect(told).toBeHidden();
});
