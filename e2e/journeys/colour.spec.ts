import {
  expect,
  expectAccessible,
  expectNoSidewaysScroll,
  open,
  openPicture,
  test,
} from '../fixtures';

test('a glaze is taken from the ladder, and the plan has as many coats of it', async ({ page }) => {
  await openPicture(page, 'Two carboys');
  await page.keyboard.press('c');
  const looks = page.getByRole('region', { name: 'What it will look like' });
  await expect(looks).toContainText('What lies below keeps showing.');
  await expect(looks).toContainText('A screen is not paint');
  await expect(looks.getByRole('button', { name: 'One coat, as planned' })).toBeDisabled();
  await looks.getByRole('button', { name: /^3 coats, value here/ }).click();
  await expectAccessible(page);
  await page.setViewportSize({ width: 390, height: 844 });
  await expectNoSidewaysScroll(page);
  await page.setViewportSize({ width: 1280, height: 800 });
  await looks.getByRole('button', { name: 'Plan 3 coats of it' }).click();
  const coats = page.getByRole('listitem', { name: 'Glaze 3' });
  await expect(coats).toHaveCount(3);
  await expect(coats.last()).toContainText('Waits for Glaze 3 to be paintable');
  await page.getByRole('button', { name: 'Undo: 3 coats of Glaze 3' }).click();
  await expect(coats).toHaveCount(1);
});

test('a mix is found for a colour and put into the cup', async ({ page }) => {
  await openPicture(page, 'Two carboys');
  await page.keyboard.press('c');
  const box = page.getByRole('region', { name: 'A mix for a colour' });
  await box.getByRole('button', { name: 'Find a mix' }).click();
  await expect(box.getByRole('list', { name: 'Mixes' }).getByRole('listitem')).toHaveCount(4);
  await expect(box).toContainText('no difference to be seen');
  await box.getByLabel('The colour').fill('#2050ff');
  await expect(box).toContainText('out of reach of these paints');
  await box.getByRole('combobox', { name: 'Look for' }).click();
  await page.getByRole('option', { name: 'What stands in for a paint' }).click();
  await box.getByRole('combobox', { name: 'The paint that is lacking' }).click();
  await page.getByRole('option', { name: 'Ultramarine PB29, slow-drying' }).click();
  await expect(box.getByRole('listitem').first()).toContainText('Ultramarine PB29, heavy');
  await box.getByRole('button', { name: 'Take mix 1' }).click();
  const recipe = page.getByRole('group', { name: 'Recipe' });
  await expect(recipe).toContainText('Ultramarine PB29, heavy');
  await expect(recipe).not.toContainText('Glazing liquid');
});

test('a photograph becomes five mixed values with the amount of each', async ({ page }) => {
  await openPicture(page, 'Lamp row');
  await page
    .getByRole('button', { name: /^Cup: / })
    .first()
    .click();
  const box = page.getByRole('region', { name: 'A string of values' });
  await box.getByRole('button', { name: 'Mix dark to light' }).click();
  const values = box.getByRole('list', { name: 'Values' }).getByRole('listitem');
  await expect(values).toHaveCount(5);
  await expect(values.first()).toContainText('For the early passes.');
  await expect(values.last()).not.toContainText('ml');
  await box.getByRole('combobox', { name: 'Dark end' }).click();
  await page.getByRole('option', { name: 'Bone black PBk9, heavy' }).click();
  await box.getByRole('combobox', { name: 'Values of' }).click();
  await page.getByRole('option', { name: /^Before varnish/ }).click();
  await expect(values.first()).toContainText(/% of the picture.* ml/);
  const shares = await values.allTextContents();
  const sum = shares
    .map((text) => Number(/(\d+) % of the picture/.exec(text)?.[1]))
    .reduce((a, b) => a + b, 0);
  expect(sum).toBeGreaterThan(97);
  expect(sum).toBeLessThan(103);
  await box.getByRole('button', { name: 'Take value 3' }).click();
  await expect(page.getByRole('group', { name: 'Recipe' })).toContainText('Titanium white PW6');
});

test('matte is seen on the photograph before it is chosen, and not taken', async ({ page }) => {
  await open(page, 'Gate');
  await page.getByRole('main').getByRole('link', { name: 'Lamp row' }).click();
  const pages = page.getByRole('navigation', { name: 'Sealing' });
  await pages.getByRole('link', { name: /Varnish/ }).click();
  const sheens = page.getByRole('region', { name: 'Under each sheen' });
  const matte = sheens.getByRole('button', { name: /Matte/ });
  await expect(sheens.getByRole('img', { name: 'The picture under matte' })).toBeVisible();
  await matte.click();
  await expect(page.getByRole('radio', { name: 'Matte', exact: true })).toBeChecked();
  await expectAccessible(page);
  await sheens.getByRole('button', { name: /Gloss/ }).click();
  await expect(page.getByRole('radio', { name: 'Gloss', exact: true })).toBeChecked();
  await expect(matte).toHaveAttribute('aria-pressed', 'false');
});

test('a paint is read over two cards, and what cannot be is said at its field', async ({
  page,
}) => {
  await open(page, 'Shelf');
  await page.getByRole('button', { name: 'Edit Yellow PY74, heavy', exact: true }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Over the black card').fill('#ffffff');
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(dialog).toContainText('darker over the white card than over the black one');
  await dialog.getByLabel('Over the black card').fill('#504820');
  await dialog.getByLabel('Its tint, where it hides').fill('#ffffff');
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(dialog).toContainText('the tint is lighter than the white in it');
  await dialog.getByLabel('Its tint, where it hides').fill('#f0d870');
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(dialog).toBeHidden();
  await page.getByRole('button', { name: 'Edit Yellow PY74, heavy', exact: true }).click();
  await expect(page.getByLabel('Over the black card')).toHaveValue('#504820');
  await expect(page.getByLabel('Its tint, where it hides')).toHaveValue('#f0d870');
});
