import { expect, open, test } from '../fixtures';

test('the keyboard gets to the view at once and is seen on every control', async ({ page }) => {
  await open(page, 'Now');
  await expect(page).toHaveTitle('Now - Ulvek');
  await page.keyboard.press('Tab');
  await expect(page.getByRole('link', { name: 'To the view' })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('main')).toBeFocused();
  for (let n = 0; n < 8; n += 1) {
    await page.keyboard.press('Tab');
    await expect(page.locator(':focus')).toHaveCSS('outline', /solid 3px$/);
  }
  await page.goto('/log');
  await expect(page).toHaveTitle('Log - Ulvek');
});

test('on a phone whatever can be touched is as large as a thumb', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  for (const view of ['Now', 'Pictures', 'Season', 'Gate', 'Log', 'Shelf', 'Studio'] as const) {
    await open(page, view);
    // Marks of the figures can be reached through the views that list them.
    const small = () =>
      page.evaluate(() => {
        const touched = document.querySelectorAll(
          'a[href], button, summary, [role=combobox], .MuiInputBase-root',
        );
        const names = Array.from(touched).map((e) => {
          const { width, height } = e.getBoundingClientRect();
          const seen = width > 1 && height > 1 && !e.closest('svg');
          return seen && Math.min(width, height) < 43.5 ? (e.textContent ?? e.tagName) : '';
        });
        return names.filter(Boolean);
      });
    await expect.poll(small, view).toEqual([]);
  }
});
