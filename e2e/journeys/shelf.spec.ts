import {
  addPart,
  expect,
  expectAccessible,
  expectNoSidewaysScroll,
  open,
  openPicture,
  test,
} from '../fixtures';

test('a material is found, added, counted, put away, brought back and undone', async ({ page }) => {
  // On plain http, which the rest of a network gets, a browser makes no random names by itself.
  await page.addInitScript(() => delete (crypto as { randomUUID?: unknown }).randomUUID);
  await open(page, 'Shelf');
  await page.getByLabel('Find').fill('pv19');
  const paints = page.getByRole('region', { name: 'Paints', exact: true });
  await expect(paints.getByRole('listitem')).toHaveCount(1);
  await page.getByLabel('Find').fill('moonlight');
  await expect(page.getByText('Nothing on the shelf is called “moonlight”.')).toBeVisible();
  await page.getByLabel('Find').fill('');

  await page.getByRole('button', { name: 'Add a material' }).click();
  const dialog = page.getByRole('dialog', { name: 'Add a material' });
  await dialog.getByLabel('What you call it').fill('Dusk violet PV15, fluid');
  await dialog.getByLabel('Water, %').fill('80');
  await expect(dialog.getByRole('alert')).toContainText('must sum to 100 %, not 127 %');
  await dialog.getByLabel('Water, %').fill('53');
  await dialog.getByLabel('Pace').fill('40');
  await dialog.getByLabel('There is now, ml').fill('20');
  await expect(dialog.getByText('Pace must be from 0.1 to 10, not 40.')).toBeVisible();
  await dialog.getByLabel('Pace').fill('1.3');
  await expectAccessible(page);
  await dialog.getByRole('button', { name: 'Put it on the shelf' }).click();
  const entry = page.getByRole('listitem', { name: 'Dusk violet PV15, fluid' });
  await expect(entry).toContainText('20 ml left');
  await expect(entry).toContainText('pace 1.3');
  await entry.getByRole('button', { name: 'Put away' }).click();
  await expect(entry).toBeHidden();
  await page.getByLabel('Show what is put away').check();
  await entry.getByRole('button', { name: 'Bring back' }).click();
  await expect(entry.getByRole('button', { name: 'Put away' })).toBeVisible();
  await page.keyboard.press('u');
  await expect(entry.getByRole('button', { name: 'Bring back' })).toBeVisible();
  await page.setViewportSize({ width: 390, height: 844 });
  await expectNoSidewaysScroll(page);
});

test('a tub is looked into, painted from, and runs short before the session', async ({ page }) => {
  await open(page, 'Shelf');
  await page.getByRole('radio', { name: 'Tubs' }).click();
  const fog = page.getByRole('listitem', { name: 'Fog grey' });
  await expect(fog).toContainText('Look into it before you use it.');
  await fog.getByRole('button', { name: 'Look into Fog grey' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'It is good' }).click();
  await expect(fog).toContainText('looked into');
  await expect(fog).not.toContainText('Look into it before you use it.');
  await expect(page.getByRole('listitem', { name: 'Dusk blue' })).toContainText(
    'Do not use it: the last look found mould.',
  );
  await fog.getByRole('button', { name: 'Edit Fog grey' }).click();
  await page.getByRole('dialog').getByLabel('Left in it, ml').fill('6');
  await page.getByRole('dialog').getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(fog).toContainText('6 ml left');

  await openPicture(page, 'Storm glass');
  await page.getByRole('button', { name: 'Cup: First colour' }).click();
  // What is told of the cup moves the fields below it.
  await expect(page.getByText('Mix 7 ml.')).toBeVisible();
  await page.getByRole('combobox', { name: 'Paint from' }).click();
  await page.getByRole('option', { name: /Fog grey/ }).click();
  await expect(page.getByText(/It holds 6 ml, this coat takes 7 ml/)).toBeVisible();
  await page.getByRole('button', { name: 'Put this into First colour' }).click();
  await expect(page.getByRole('listitem', { name: 'First colour' })).toContainText('from a tub');
  await open(page, 'Now');
  await expect(page.getByRole('region', { name: 'Runs short' })).toContainText(
    'The tub “Fog grey”: 6 ml left, 7 ml needed',
  );
  await open(page, 'Shelf');
  await page.getByRole('radio', { name: 'Tubs' }).click();
  await page
    .getByRole('listitem', { name: 'Fog grey' })
    .getByRole('button', { name: 'Edit Fog grey' })
    .click();
  await page.getByRole('dialog').getByLabel('Left in it, ml').fill('20');
  await page.getByRole('dialog').getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByRole('listitem', { name: 'Fog grey' })).toContainText('20 ml left');
  await expect(page.getByRole('region', { name: 'Runs short' })).toBeHidden();

  await openPicture(page, 'Storm glass');
  await page.getByRole('button', { name: 'Coat laid: First colour' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Log it' }).click();
  await expect(page.getByRole('dialog')).toBeHidden();
  await open(page, 'Shelf');
  await page.getByRole('radio', { name: 'Tubs' }).click();
  await expect(page.getByRole('listitem', { name: 'Fog grey' })).toContainText('13 ml left');
});

test('a mix is kept as a tub, and a way of working becomes one’s own', async ({ page }) => {
  await openPicture(page, 'Two carboys');
  await page.getByRole('button', { name: 'Cup: Glaze 3' }).click();
  await page.getByRole('button', { name: 'Keep this mix as a tub' }).click();
  const tub = page.getByRole('dialog', { name: 'A tub of mixed colour' });
  await tub.getByLabel('What you call it').fill('Harbour blue');
  await tub.getByRole('button', { name: 'Put it on the shelf' }).click();
  await expect(tub).toBeHidden();

  await openPicture(page, 'Storm glass');
  await page.getByRole('button', { name: 'Save as a way of working' }).click();
  const way = page.getByRole('dialog', { name: 'Save as a way of working' });
  await way.getByLabel('What you call it').fill('Storm glass, again');
  await way.getByLabel('Why you work like this').fill('It went well.');
  await way.getByRole('button', { name: 'Keep it' }).click();
  await expect(way).toBeHidden();

  await open(page, 'Shelf');
  await page.getByRole('radio', { name: 'Tubs' }).click();
  await expect(page.getByRole('listitem', { name: 'Harbour blue' })).toContainText('9.4 ml left');
  await page.getByRole('radio', { name: 'Ways of working' }).click();
  const own = page.getByRole('region', { name: 'My own' });
  await own.getByRole('button', { name: 'Edit Storm glass, again' }).click();
  const dialog = page.getByRole('dialog', { name: 'A way of working' });
  await dialog.getByLabel('Film, µm of First colour').fill('95');
  await dialog.getByLabel('Wait, min of First colour').fill('1440');
  await dialog.getByRole('button', { name: 'Keep it' }).click();
  await own.getByRole('button', { name: 'Steps of Storm glass, again' }).click();
  await expect(own).toContainText('95 µm of Ultramarine PB29, heavy');
  await expect(own).toContainText('waits at least 1440 min');
  await page.getByRole('button', { name: 'Make Explore my own' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Keep it' }).click();
  await expect(own.getByRole('listitem', { name: 'Explore, my own' })).toBeVisible();
  await expectAccessible(page);

  await open(page, 'Pictures');
  await page.getByRole('button', { name: 'Make a picture' }).click();
  const fresh = page.getByRole('dialog', { name: 'Make a picture' });
  await fresh.getByLabel('Title').fill('Beacon, third try');
  await fresh.getByRole('combobox', { name: 'Begin with' }).click();
  await page.getByRole('option', { name: 'Storm glass, again' }).click();
  await fresh.getByRole('button', { name: 'Make it' }).click();
  await expect(page.getByRole('listitem', { name: 'First colour' })).toContainText('95 µm wet');
});

test('a finding is set aside with a reason that is kept, and brought back', async ({ page }) => {
  await openPicture(page, 'Two carboys');
  await page.getByRole('button', { name: 'Cup: Glaze 3' }).click();
  await addPart(page, 'Retarder');
  await page.getByLabel('Percent of Retarder').fill('18');
  await page.getByRole('button', { name: 'Put this into Glaze 3' }).click();
  const step = page.getByRole('listitem', { name: 'Glaze 3' });
  await expect(step).toContainText('Stop: Retarder is 18 % of the mix');
  // It stands on the rail too, where that reaches so far.
  const rail = page.getByRole('region', { name: 'Drying rail' });
  await page.keyboard.press('z');
  await expect(
    rail.getByRole('link', { name: /Glaze 3. Think again: Retarder is 18 %/ }),
  ).toHaveCount(1);
  await step.getByRole('button', { name: /^Set aside: Retarder/ }).click();
  const dialog = page.getByRole('dialog', { name: 'Set it aside' });
  await expect(dialog.getByRole('button', { name: 'Set it aside' })).toBeDisabled();
  await dialog.getByLabel('Why it does not hold here').fill('A test board, not for sale.');
  await dialog.getByRole('button', { name: 'Set it aside' }).click();
  await expect(step).toContainText('Reason: “A test board, not for sale.”');
  await expect(step).not.toContainText('Stop:');
  await open(page, 'Now');
  await expect(page.getByText('Retarder is 18 %')).toHaveCount(0);
  await page.goBack();
  await step.getByRole('button', { name: /^Bring back/ }).click();
  await expect(step).toContainText('Stop: Retarder is 18 % of the mix');
});

test('a picture thins in a school of its own, with the reason shown', async ({ page }) => {
  await openPicture(page, 'Two carboys');
  await page.getByRole('button', { name: 'Cup: Glaze 3' }).click();
  await addPart(page, 'Water');
  await page.getByLabel('Percent of Water').fill('20');
  await page.getByRole('button', { name: 'Put this into Glaze 3' }).click();
  const step = page.getByRole('listitem', { name: 'Glaze 3' });
  await expect(step).toContainText('thinned with 20 % water');
  await page.getByRole('button', { name: 'Size, ground, date, school' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('combobox', { name: 'Thinning of this picture' }).click();
  await page.getByRole('option', { name: 'Water allowed' }).click();
  await expect(dialog.getByRole('button', { name: 'Keep', exact: true })).toBeDisabled();
  await dialog.getByLabel('Why this picture differs').fill('Washes on purpose');
  await dialog.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByText('water allowed here: “Washes on purpose”')).toBeVisible();
  await expect(step).not.toContainText('thinned with 20 % water');
});
