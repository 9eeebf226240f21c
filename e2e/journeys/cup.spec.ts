import { expect, expectAccessible, expectNoSidewaysScroll, openPicture, test } from '../fixtures';

test('a glaze is mixed, made slower, compared, and put into the coat', async ({ page }) => {
  await openPicture(page, 'Two carboys');
  await page.keyboard.press('c');
  await expect(page.getByRole('heading', { level: 1, name: 'Cup for Glaze 3' })).toBeVisible();
  const verdict = page.getByTestId('cup-verdict');
  // 40 x 50 cm at 40 µm are 8 ml; with 15 % lost, 9.4 ml are mixed.
  await expect(verdict).toContainText(
    'Mix 9.4 ml. Laid at 18:43, when the coat below is paintable',
  );
  await page.getByLabel('Lost in cup and brush, %').fill('20');
  await expect(verdict).toContainText('Mix 10 ml.');
  await expect(page.getByRole('group', { name: 'Recipe' })).toContainText('9 ml');
  await expect(page.getByTestId('rounding')).toContainText('9 ml + 1 ml');

  await page.getByRole('button', { name: 'Keep it beside' }).click();
  await page.getByRole('button', { name: 'Slower' }).click();
  await expect(page.getByText('Beside the kept cup:')).toBeVisible();
  await expect(page.getByRole('status').filter({ hasText: 'Beside the kept cup' })).toContainText(
    /\+\d+ min working, paintable .* instead of/,
  );
  await page.getByRole('button', { name: 'Slower' }).click();
  await page.getByRole('button', { name: 'Slower' }).click();
  await expect(page.getByLabel('Parts of Retarder')).toHaveValue('15');
  await expect(page.getByRole('button', { name: 'Slower' })).toBeDisabled();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Put this into Glaze 3' }).click();
  await expect(page.getByRole('listitem', { name: 'Glaze 3' })).toContainText('15 Retarder');
  await page.getByRole('button', { name: 'Undo: mix Glaze 3' }).click();
  await expect(page.getByRole('listitem', { name: 'Glaze 3' })).not.toContainText('Retarder');
});

test('limits speak up on the cup, and a short medium solves the other way round', async ({
  page,
}) => {
  await openPicture(page, 'Two carboys');
  await page.getByRole('button', { name: 'Cup: Glaze 3' }).click();
  const recipe = page.getByRole('group', { name: 'Recipe' });
  await recipe.getByRole('button', { name: 'Add a part' }).click();
  await recipe.getByRole('combobox', { name: 'Material' }).last().click();
  await page.getByRole('option', { name: 'Retarder' }).click();
  await page.getByLabel('Percent of Retarder').fill('20');
  const limits = page.getByRole('list', { name: 'Limits' });
  await expect(limits).toContainText(
    'Retarder of the mix: 20 %, at most 15 %: above that the film can stay soft',
  );
  await page.getByLabel('Parts of Retarder').fill('-1');
  await expect(page.getByText('Give each part as a number of 0 or more.')).toBeVisible();
  await expect(page.getByRole('button', { name: /^Put this into/ })).toBeDisabled();
  await page.getByRole('button', { name: 'Take Retarder out' }).click();
  await page.getByRole('combobox', { name: 'Short of' }).click();
  await page.getByRole('option', { name: 'Glazing liquid' }).click();
  await page.getByLabel('Left of it, ml').fill('4');
  await expect(
    page.getByText(/That makes 4.4 ml: a film of 18.9 µm, or 47 % of the picture/),
  ).toBeVisible();
  await page.getByLabel('Left of it, ml').fill('40');
  await expect(page.getByText('That is enough for this coat.')).toBeVisible();
  await page.setViewportSize({ width: 390, height: 844 });
  await expectNoSidewaysScroll(page);
});
