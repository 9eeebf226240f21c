import type { Page } from '@playwright/test';
import { expect, expectAccessible, expectNoSidewaysScroll, open, test } from '../fixtures';

const verdict = (page: Page) => page.getByTestId('season-verdict');
const draft = (page: Page) => page.getByRole('region', { name: 'Draft' });

test('a late picture shows what holds it, and a way to its date is tried, kept and undone', async ({
  page,
}) => {
  await open(page, 'Season');
  await expect(verdict(page)).toContainText(
    'Sleet, tram wires will more likely be late than in time',
  );
  await page.getByRole('button', { name: /^Sleet, tram wires/ }).click();
  const panel = page.getByRole('region', { name: 'Sleet, tram wires' });
  await expect(panel.getByRole('region', { name: 'What holds it' })).toContainText(
    'two weeks at least, because slow-drying paint is in the stack',
  );
  await expect(panel.getByRole('region', { name: 'What holds it' })).toContainText(
    'Most of all by slow-drying paint and retarder: it could be ready',
  );
  await expect(panel.getByTestId('odds')).toContainText(/A day earlier .*, a day later .*/);
  const ways = panel.getByRole('region', { name: 'Ways to make the date' });
  const way = ways
    .getByRole('listitem')
    .filter({ hasText: /due 2 February: 9 in 10/ })
    .first();
  await way.getByRole('button', { name: 'Open beside the plan' }).click();
  await expect(draft(page)).toContainText('makes its date');
  await expect(verdict(page)).toHaveText('Every picture makes its date.');
  await expectAccessible(page);
  await draft(page).getByRole('button', { name: 'Keep it' }).click();
  await expect(draft(page)).toContainText('Kept: Sleet, tram wires:');
  await page.reload();
  await expect(verdict(page)).toHaveText('Every picture makes its date.');
});

test('what was kept together is taken back together', async ({ page }) => {
  await open(page, 'Season');
  await page.getByRole('button', { name: /^Sleet, tram wires/ }).click();
  const ways = page.getByRole('region', { name: 'Ways to make the date' });
  await ways.getByRole('button', { name: 'Open beside the plan' }).first().click();
  await draft(page).getByRole('button', { name: 'Keep it' }).click();
  await expect(verdict(page)).toHaveText('Every picture makes its date.');
  await expect(draft(page)).toContainText('Kept: Sleet');
  // Undo is still there after another view.
  await open(page, 'Pictures');
  await open(page, 'Season');
  await draft(page).getByRole('button', { name: /^Undo/ }).click();
  await expect(verdict(page)).toContainText(
    'Sleet, tram wires will more likely be late than in time',
  );
});

test('lost days are tried, and dropped without a trace', async ({ page }) => {
  await open(page, 'Season');
  await page.getByRole('button', { name: 'What if I lose days?' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Last day').fill('2027-01-10');
  await expect(dialog.getByText('The last day is before the first.')).toBeVisible();
  await dialog.getByLabel('Last day').fill('2027-01-24');
  await dialog.getByRole('button', { name: 'Try it' }).click();
  const changes = draft(page).getByRole('list', { name: 'What it changes' });
  await expect(changes).toContainText(/Lamp row, harbour steps: ready .* later/);
  await draft(page).getByRole('button', { name: 'Drop it' }).click();
  await expect(draft(page)).toBeHidden();
  await expect(verdict(page)).toContainText('due 2 February: ');
});

test('a sitting is dragged, its consequence seen before it is let go, and pinned', async ({
  page,
}) => {
  await open(page, 'Season');
  await page.getByRole('button', { name: 'Month' }).click();
  const lamps = page.getByRole('group', { name: 'Lamp row, harbour steps over time' });
  const notch = lamps.getByRole('button', { name: /^Varnish 2/ });
  const box = await notch.boundingBox();
  if (!box) throw new Error('the notch is not drawn');
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 66, y, { steps: 8 });
  // Let go outside the hours it stays there, and that is said before it is kept.
  await expect(draft(page)).toContainText('Pinned outside your hours');
  await page.mouse.up();
  await draft(page).getByRole('button', { name: 'Keep it' }).click();
  await expect(draft(page)).toContainText('Kept: pin Varnish 2 to Sun 17 Jan');
  await expect(lamps.getByRole('button', { name: /^Varnish 2, Sun 17 Jan.*pinned/ })).toBeVisible();
  const panel = page.getByRole('region', { name: 'Lamp row, harbour steps' });
  await panel.getByRole('button', { name: 'Unpin' }).click();
  await draft(page).getByRole('button', { name: 'Keep it' }).click();
  await expect(lamps.getByRole('button', { name: /pinned/ })).toHaveCount(0);
});

test('a step is skipped and a day barred, from the sittings', async ({ page }) => {
  await open(page, 'Season');
  await page.getByRole('button', { name: /^Two carboys/ }).click();
  const panel = page.getByRole('region', { name: 'Two carboys, north window' });
  await panel.getByRole('button', { name: /^Varnish 2/ }).click();
  await panel.getByRole('button', { name: 'Skip this step' }).click();
  await expect(draft(page)).toContainText('Tried, not kept: skip Varnish 2');
  await expect(panel.getByRole('button', { name: /^Varnish 2/ })).toHaveCount(0);
  const varnish = panel.getByRole('button', { name: /^Varnish 1/ });
  // The rows may still move under the pointer while odds arrive: it is touched until it is chosen.
  await expect(async () => {
    if ((await varnish.getAttribute('aria-expanded')) !== 'true') await varnish.click();
    await expect(varnish).toHaveAttribute('aria-expanded', 'true', { timeout: 5_000 });
  }).toPass();
  await panel.getByRole('button', { name: 'Not on that day' }).click();
  await expect(draft(page)).toContainText(/no work on 2027-0\d-\d\d/);
  await draft(page).getByRole('button', { name: 'Keep it' }).click();
  await expect(draft(page)).toContainText('Kept:');
  await open(page, 'Studio');
  await expect(page.getByLabel('First day off').last()).toHaveValue(/^2027-0\d-\d\d$/);
});

test('a search tells how far it is, survives a reload, is stopped, and says what it found', async ({
  page,
}) => {
  await open(page, 'Season');
  const box = page.getByRole('region', { name: 'A better order of work' });
  await box.getByRole('button', { name: '5 minutes' }).click();
  await expect(box).toContainText(/[1-9]\d* orders tried/);
  await page.reload();
  await expect(box.getByRole('progressbar')).toBeVisible();
  await box.getByRole('button', { name: 'Stop' }).click();
  await expect(box.getByRole('status')).toContainText(/orders tried in \d+ s/);
  await box.getByRole('button', { name: 'Let go of it' }).click();
  await expect(box.getByRole('status')).toBeHidden();
});

test('the week is a sheet with the cups to mix', async ({ page }) => {
  await open(page, 'Season');
  await page.getByRole('link', { name: 'Week sheet' }).click();
  const today = page.getByRole('region', { name: 'Friday 15 January' });
  await expect(today).toContainText('Glaze 3, Two carboys, north window');
  await expect(today).toContainText('Mix 9.4 ml: 8.9 ml Glazing liquid + 0.47 ml Phthalo blue');
  await expectAccessible(page);
  await page.emulateMedia({ media: 'print' });
  await expect(page.getByRole('navigation', { name: 'Views' })).toBeHidden();
  await expect(today).toBeVisible();
  await page.emulateMedia({ media: 'screen' });
  await page.getByRole('button', { name: 'Week after' }).click();
  await expect(page.getByRole('region', { name: 'Thursday 21 January' })).toBeVisible();
});

test('the season works on a phone and in the dim surround', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await open(page, 'Season');
  await expectNoSidewaysScroll(page);
  await page.keyboard.press('d');
  await page.getByRole('button', { name: /^Sleet, tram wires/ }).click();
  await expect(page.getByRole('region', { name: 'Ways to make the date' })).toContainText(
    /due 2 February: \d in 10/,
  );
  await expectNoSidewaysScroll(page);
  await expectAccessible(page);
});
