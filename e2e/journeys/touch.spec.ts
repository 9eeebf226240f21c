import { expect, expectAccessible, open, openPicture, test } from '../fixtures';

test('two fingertips move next week’s plan, and can be put right and taken back', async ({
  page,
}) => {
  await openPicture(page, 'Sleet');
  const step = page.getByRole('listitem', { name: 'Lighter', exact: true });
  await expect(step).toContainText('15 Jan');
  const planned = (await step.textContent()) ?? '';
  await open(page, 'Now');
  // Five hours after the retarded glaze: most likely touch-dry by the book, and it still takes a print.
  const finger = page.getByRole('group', { name: /^A fingertip on Unifying glaze of Sleet/ });
  await finger.getByRole('button', { name: 'tacky' }).click();
  const moved = page.getByRole('status').filter({ hasText: 'Unifying glaze of Sleet' });
  await expect(moved).toContainText('felt tacky');
  await expect(moved).toContainText('Did the finger touch this coat?');
  await expect(moved).toContainText(/Sleet, tram wires is paintable by .*, not by/);

  // A second one on another picture, felt earlier than it was said.
  await openPicture(page, 'Two carboys');
  const glaze = page.getByRole('group', { name: /^A fingertip on Glaze 2/ });
  await glaze.getByRole('button', { name: 'tacky' }).click();
  // An hour after a glaze that is touch-dry within half of one: for this coat the finger counts.
  await expect(page.getByText('Touch it again before you paint over it.')).toBeVisible();
  const touched = page.getByRole('region', { name: 'Touched' });
  await touched.getByRole('button', { name: 'Put it right' }).click();
  await page.getByLabel('When').fill('2027-01-14T16:50');
  await page.getByRole('button', { name: 'Keep it so' }).click();
  await expect(page.getByText('The touch is put right.')).toBeVisible();
  await expect(touched).toContainText('16:50: Glaze 2 felt tacky');
  await expectAccessible(page);
  await openPicture(page, 'Sleet');
  await expect(step).toContainText('Jan');
  expect(await step.textContent()).not.toBe(planned);

  // A test before its coat is refused at once; taken back, the plan is what it was.
  await touched.getByRole('button', { name: 'Put it right' }).click();
  await page.getByLabel('When').fill('2027-01-14T11:00');
  await page.getByRole('button', { name: 'Keep it so' }).click();
  await expect(page.getByText('Unifying glaze was not on yet at that time')).toBeVisible();
  await touched.getByRole('button', { name: 'Take it back' }).click();
  await expect(page.getByText('The touch is taken back.')).toBeVisible();
  await expect(touched).toHaveCount(0);

  await open(page, 'Studio');
  const learned = page.getByRole('region', { name: 'How your studio differs from the book' });
  await expect(learned).toContainText('Your room dries');
  await expect(
    learned.getByRole('img', { name: /^not touch-dry after .*; expected/ }),
  ).toBeVisible();
  await expect(learned).toContainText('Two carboys, north window, Glaze 2: tacky');
  await expectAccessible(page);
});

test('a new studio is offered a swatch on its own ground', async ({ page }) => {
  await open(page, 'Studio');
  await page.getByRole('button', { name: 'Begin a swatch' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Begin it' }).click();
  await expect(
    page.getByRole('heading', { level: 1, name: /^Swatch: .* on primed canvas/ }),
  ).toBeVisible();
  await page.getByRole('button', { name: /^Coat laid L/ }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Log it' }).click();
  const finger = page.getByRole('group', { name: /^A fingertip on swatch/ });
  await expect(finger).toBeVisible();
});
