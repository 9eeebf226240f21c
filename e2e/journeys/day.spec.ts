import {
  expect,
  expectAccessible,
  expectNoSidewaysScroll,
  open,
  openPicture,
  test,
} from '../fixtures';

test('an evening: a session, a coat that went wrong, a note, and all of it found again', async ({
  page,
}) => {
  await open(page, 'Now');
  // What goes into the cup stands there, and when the coat dries.
  const next = page.getByRole('region', { name: 'Next' });
  await expect(next).toContainText('2.1 ml Water-borne varnish, gloss');
  await page.getByRole('button', { name: 'Begin the session' }).click();
  const timers = page.getByRole('region', { name: 'Timers' });
  await expect(timers.getByRole('timer')).toHaveCount(2);
  const misting = timers.getByRole('group', { name: /^Mist the palette/ });
  // As often as the week sheet says it.
  await expect(misting.getByRole('timer')).toHaveText(/^(15:00|14:\d\d)$/);
  await misting.getByRole('button', { name: 'Pause' }).click();
  await page.reload();
  await expect(timers).toContainText('Until the hours end');
  await expect(misting).toContainText('paused');
  await misting.getByRole('button', { name: 'Misted' }).click();
  await misting.getByRole('button', { name: 'End' }).click();
  await expect(timers.getByRole('timer')).toHaveCount(1);

  // One touch logs it; where it was comes afterwards.
  const glaze = page.getByRole('group', { name: 'What happened to Glaze 2 of Two carboys' });
  await glaze.getByRole('button', { name: 'Something happened' }).click();
  await glaze.getByRole('button', { name: 'Streaks or bands' }).click();
  const told = page.getByRole('status').filter({ hasText: 'streaks or bands.' });
  await expect(told).toContainText('Mix the next one with a knife until no streak shows.');
  await told.getByRole('textbox', { name: 'Where' }).fill('lower left glass');
  await told.getByRole('button', { name: 'Keep' }).click();
  await expect(told.getByRole('button', { name: 'Keep' })).toBeDisabled();
  await expectAccessible(page);

  // No film changes by it, and the record keeps both entries.
  await openPicture(page, 'Two carboys');
  await expect(page.getByRole('listitem', { name: 'Glaze 3' })).toContainText('40 µm wet');
  const notes = page.getByRole('region', { name: 'Notes and what happened' });
  await expect(notes).toContainText('Streaks or bands, Glaze 2, lower left glass');
  await notes.getByRole('button', { name: 'Write a note' }).click();
  const dialog = page.getByRole('dialog');
  await dialog
    .getByRole('textbox', { name: 'What you want to remember' })
    .fill('warmer by lamplight');
  await dialog.getByRole('textbox', { name: 'Where on the picture' }).fill('window bars');
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(notes.getByRole('listitem')).toHaveCount(2);

  // Next week: what was it with the bars?
  await open(page, 'Log');
  const entries = page.getByRole('list', { name: 'Entries' }).getByRole('listitem');
  await page.getByRole('textbox', { name: 'Look for' }).fill('window bars lamplight');
  await expect(entries).toHaveCount(1);
  await expect(entries).toContainText('“warmer by lamplight”');
  await page.getByRole('textbox', { name: 'Look for' }).fill('PY150');
  await expect(entries.first()).toContainText('Nickel azo PY150');
  await expectAccessible(page);

  // What is about no picture stands there too, and a note about a material.
  await page.getByRole('textbox', { name: 'Look for' }).fill('misted palette');
  await expect(entries).toHaveCount(1);
  await entries.first().getByRole('button', { name: 'Take it back' }).click();
  await expect(page.getByText('The entry is taken back.')).toBeVisible();
  await expect(entries).toHaveCount(0);
  await open(page, 'Shelf');
  await page.getByRole('button', { name: 'Write a note about Zinc white PW4, heavy' }).click();
  await dialog
    .getByRole('textbox', { name: 'What you want to remember' })
    .fill('stiffer than the last tube');
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await page.getByRole('link', { name: 'Everything done with Zinc white PW4, heavy' }).click();
  await expect(entries).toHaveCount(1);
  await entries.first().getByRole('button', { name: 'Put it right' }).click();
  await dialog
    .getByRole('textbox', { name: 'What you want to remember' })
    .fill('stiffer than the last two tubes');
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(entries.first()).toContainText('“stiffer than the last two tubes”');
  await entries.first().getByRole('button', { name: 'Put right: what stood before' }).click();
  await expect(entries.first()).toContainText('“stiffer than the last tube”');
  await page.setViewportSize({ width: 390, height: 844 });
  await expectNoSidewaysScroll(page);
});

test('a coat on a wet one is said before it is logged, and put right in place afterwards', async ({
  page,
}) => {
  await openPicture(page, 'Two carboys');
  const third = page.getByRole('listitem', { name: 'Glaze 3' });
  await third.getByRole('button', { name: /^Coat laid/ }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('status', { name: 'What the film says' })).toContainText(
    'Too early: Glaze 2 lies below Glaze 3 and is ready for it from Thursday 14 January, 18:42.',
  );
  await dialog.getByRole('button', { name: 'Not now' }).click();
  const second = page.getByRole('listitem', { name: 'Glaze 2' });
  await second.getByRole('button', { name: /^Put right/ }).click();
  await expect(dialog.getByLabel('When the coat was there')).toHaveValue('2027-01-14T16:34');
  await dialog.getByText('Measured, µm').click();
  await dialog.getByRole('textbox', { name: 'Wet film, µm' }).fill('60');
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(second).toContainText('60 µm wet');
  // Thicker, it takes longer.
  await expect(page.getByTestId('verdict')).not.toContainText('18:42');
  await page.getByRole('button', { name: /^Undo: put right/ }).click();
  await expect(page.getByTestId('verdict')).toContainText('18:42');
  // Nothing of the log is ever changed: what was put right, and taken back, stands behind it.
  await open(page, 'Log');
  const entries = page.getByRole('list', { name: 'Entries' }).getByRole('listitem');
  const entry = entries.filter({ hasText: 'Two carboys, north window: Glaze 2' }).first();
  await entry.getByRole('button', { name: 'Put right: what stood before' }).click();
  await expect(entry).toContainText('60 µm wet');
  await expect(entry.getByText('40 µm wet')).toHaveCount(2);
});

test('a paint is read from a photograph of its swatch', async ({ page }) => {
  await open(page, 'Shelf');
  // A card, bare on the left, painted on the right, the tint below; a dim, yellow lamp.
  const bytes = await page.evaluate(async () => {
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [400, 300];
    const draw = canvas.getContext('2d');
    if (!draw) throw new Error('no canvas');
    const halves = [
      ['#d8cfae', 0, 0],
      ['#18170f', 0, 100],
      ['#7f6a4e', 200, 0],
      ['#3a2a18', 200, 100],
      ['#a08e6c', 0, 200],
    ] as const;
    for (const [colour, x, y] of halves) {
      draw.fillStyle = colour;
      draw.fillRect(x, y, 200, 100);
    }
    const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/png'));
    return blob ? [...new Uint8Array(await blob.arrayBuffer())] : [];
  });
  await page.getByRole('button', { name: 'Edit Yellow ochre PY42, heavy' }).click();
  const dialog = page.getByRole('dialog');
  await dialog
    .getByLabel('Photograph of the swatch')
    .setInputFiles({ name: 'swatch.png', mimeType: 'image/png', buffer: Buffer.from(bytes) });
  const photograph = dialog.getByRole('button', { name: /^The photograph/ });
  const touch = async (x: number, y: number) => {
    const box = await photograph.boundingBox();
    if (!box) throw new Error('no photograph');
    await photograph.click({ position: { x: box.width * x, y: box.height * y } });
  };
  const reading = dialog.getByRole('region', { name: 'From a photograph of its swatch' });
  // The halves taken for one another: refused, with the reason.
  for (const [x, y] of [
    [0.25, 0.5],
    [0.25, 0.2],
    [0.75, 0.2],
    [0.75, 0.5],
  ] as const)
    await touch(x, y);
  await expect(reading.getByRole('alert')).toContainText('were the places swapped?');
  await reading.getByRole('button', { name: 'Point again' }).click();
  for (const [x, y] of [
    [0.25, 0.2],
    [0.25, 0.5],
    [0.75, 0.2],
    [0.75, 0.5],
  ] as const)
    await touch(x, y);
  await expect(reading).toContainText('Read: over the white card #');
  await touch(0.25, 0.8);
  await expect(reading).toContainText('its tint #');
  await expect(dialog.getByLabel('The white in it')).toContainText('Titanium white PW6, heavy');
  await expect(dialog.getByRole('textbox', { name: 'Where these colours come from' })).toHaveValue(
    'photograph of a swatch, 2027-01-14',
  );
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(dialog).toBeHidden();
  await expect(
    page.getByRole('button', { name: 'Undo: edit Yellow ochre PY42, heavy' }),
  ).toBeVisible();
});

test('the swatch that was made is kept beside the prediction, and the next one starts from it', async ({
  page,
}) => {
  await openPicture(page, 'Two carboys');
  await page.keyboard.press('c');
  const looks = page.getByRole('region', { name: 'What it will look like' });
  await expect(looks).toContainText('[memory] usual for its pigment');
  await looks.getByRole('button', { name: 'Keep the swatch you made' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Seen over white').fill('#7fa6c8');
  await dialog.getByLabel('Seen over black').fill('#1a1f2a');
  await dialog.getByRole('button', { name: 'Keep it' }).click();
  await expect(looks).toContainText('These colours start from your swatch');
  await expect(
    looks.getByRole('img', { name: /^Over white: #f4f3f0, with the coat/ }),
  ).toHaveAttribute('aria-label', 'Over white: #f4f3f0, with the coat #7fa6c8');
  // How many coats until it is deep enough: as deep as seven of them, seven.
  await looks.getByRole('button', { name: 'How many until it is deep enough?' }).click();
  await expect(looks).toContainText('7 coats come nearest: no difference to be seen');
});

test('a table of entries is looked at before anything of it is kept', async ({ page }) => {
  await open(page, 'Log');
  const csv =
    'at,picture,what,words\n2027-01-14 10:00,"Storm glass on the sill",noted,"crest line, first try"\n' +
    'soon,"Storm glass on the sill",noted,x\n';
  await page
    .getByLabel('Table of entries')
    .setInputFiles({ name: 'old.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) });
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('1 row can be kept, 1 row cannot. Nothing is kept yet.');
  await expect(dialog).toContainText('Line 3: "soon" is not a time');
  await dialog.getByRole('button', { name: 'Keep 1 row' }).click();
  await dialog.getByRole('button', { name: 'Close' }).click();
  await page.getByRole('textbox', { name: 'Look for' }).fill('crest');
  const entries = page.getByRole('list', { name: 'Entries' }).getByRole('listitem');
  await expect(entries).toHaveCount(1);
  await expect(entries).toContainText('“crest line, first try”');
});
