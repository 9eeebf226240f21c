import { readFileSync } from 'node:fs';
import { downloaded, expect, expectAccessible, open, openPicture, test } from '../fixtures';

test('hours and air decide when a step is done, and the reason stands with it', async ({
  page,
}) => {
  await openPicture(page, 'Two carboys');
  const glaze = page.getByRole('listitem', { name: 'Glaze 3' });
  await expect(glaze).toContainText('Fri 15 Jan, 19:45');
  await open(page, 'Studio');
  await page.getByLabel('Humidity, %').fill('140');
  await expect(
    page.getByText('Relative humidity must be from 0 to 100 %, not 140 %.'),
  ).toBeVisible();
  await expect(page.getByRole('button', { name: 'Keep the settings' })).toBeDisabled();
  await page.getByLabel('Humidity, %').fill('60');
  // Only Saturdays are left.
  for (let n = 6; n >= 1; n -= 1) {
    const row = n === 6 ? 7 : n;
    await page.getByRole('button', { name: `Remove hours ${row}` }).click();
  }
  await page.getByRole('button', { name: 'Keep the settings' }).click();
  await expect(page.getByText('Kept. The plan follows the new settings.')).toBeVisible();
  await openPicture(page, 'Two carboys');
  await expect(glaze).toContainText('Sat 16 Jan');
  await expect(glaze).toContainText('Waits for Glaze 2 to be paintable');
  await expect(glaze).toContainText('next free hours Saturday');
  await open(page, 'Studio');
  await page.getByRole('button', { name: 'Undo: change the settings' }).click();
  await expect(page.getByRole('button', { name: 'Redo: change the settings' })).toBeVisible();
  // The hours are undone by themselves: the room stays as it was said to be, with its own undo.
  await expect(page.getByLabel('Humidity, %')).toHaveValue('60');
  await page.getByRole('button', { name: 'Undo: change the room' }).click();
  await expect(page.getByLabel('Humidity, %')).toHaveValue('47');
  await expect(page.getByRole('button', { name: 'Remove hours 7' })).toBeVisible();
  await openPicture(page, 'Two carboys');
  await expect(glaze).toContainText('Thu 14 Jan');
});

test('a studio goes out as a document and comes back in', async ({ page }, info) => {
  await open(page, 'Studio');
  const file = info.outputPath('studio.json');
  await (
    await downloaded(page, page.getByRole('link', { name: 'Export this studio' }))
  ).saveAs(file);
  const document = JSON.parse(readFileSync(file, 'utf8')) as {
    format: string;
    studio: { name: string };
  };
  expect(document.format).toBe('ulvek.studio/1');
  document.studio.name = 'North-light room, read in again';
  const give = (name: string, body: string | Buffer) =>
    page.getByLabel('Studio document to import').setInputFiles({
      name,
      mimeType: 'application/json',
      buffer: Buffer.from(body),
    });
  await give('old.json', JSON.stringify({ ...document, format: 'ulvek.studio/0' }));
  await expect(
    page.getByText('format: is "ulvek.studio/0"; only "ulvek.studio/1" is read'),
  ).toBeVisible();
  await give('half.json', JSON.stringify(document).slice(0, 2000));
  await expect(page.getByText(/Not read in: .*cannot be read: it/)).toBeVisible();
  await give('large.json', Buffer.alloc(20_000_000, ' '));
  await expect(page.getByText(/larger than 16 MB/)).toBeVisible();
  await give('studio.json', JSON.stringify(document));
  await expect(
    page.getByRole('heading', { name: 'North-light room, read in again' }),
  ).toBeVisible();
  await openPicture(page, 'Two carboys');
  await expect(page.getByTestId('verdict')).toContainText('Glaze 2 is touch-dry');
});

test('the plan is a calendar to download and to subscribe to', async ({ page, request }, info) => {
  await open(page, 'Studio');
  const address = await page.getByLabel('Address to subscribe to').inputValue();
  expect(address).toMatch(/\/api\/studios\/[0-9a-f-]{36}\/plan\.ics$/);
  const subscribed = await (await request.get(address)).text();
  const file = info.outputPath('ulvek.ics');
  await (
    await downloaded(page, page.getByRole('link', { name: 'Download the calendar' }))
  ).saveAs(file);
  const events = (text: string) => text.match(/^UID:.*@ulvek/gm);
  expect(events(readFileSync(file, 'utf8'))).toEqual(events(subscribed));
  expect(subscribed).toContain('ACTION:DISPLAY');
});

test('a new studio has a plan after its room, its hours and a way of working are given', async ({
  page,
}) => {
  await open(page, 'Studio');
  await page.getByRole('button', { name: 'New studio' }).click();
  const dialog = page.getByRole('dialog', { name: 'New studio' });
  await dialog.getByLabel('Name of the studio').fill('Attic above the chandlery');
  await dialog.getByRole('button', { name: 'Make it' }).click();
  await expect(page.getByRole('heading', { name: 'Attic above the chandlery' })).toBeVisible();
  await page.keyboard.press('2');
  await expect(page.getByText('No pictures yet.')).toBeVisible();
  await page.getByRole('button', { name: /^Make a picture/ }).click();
  const picture = page.getByRole('dialog', { name: 'Make a picture' });
  await picture.getByLabel('Title').fill('Hail on the skylight');
  await picture.getByRole('combobox', { name: 'Begin with' }).click();
  await page.getByRole('option', { name: 'Greys then colour' }).click();
  await picture.getByRole('button', { name: 'Make it' }).click();
  await expect(page.getByRole('listitem', { name: 'Tone' })).toContainText('Sat 16 Jan');
  await expect(page.getByTestId('verdict')).toContainText('Nothing is laid yet.');
});

test('a studio that was taken away comes back, and with none left one can begin', async ({
  page,
}) => {
  await open(page, 'Studio');
  await page.getByRole('button', { name: 'Take this studio away' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'No studio is open' })).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Begin a studio' }).click();
  const dialog = page.getByRole('dialog', { name: 'New studio' });
  await dialog.getByLabel('Name of the studio').fill('Loft over the sail store');
  await dialog.getByRole('button', { name: 'Make it' }).click();
  await expect(
    page.getByRole('heading', { level: 1, name: 'Loft over the sail store' }),
  ).toBeVisible();
  await page.getByRole('button', { name: /^Bring North-light room, Varnholt back$/ }).click();
  await expect(page.getByRole('heading', { level: 1, name: /North-light room/ })).toBeVisible();
  await openPicture(page, 'Two carboys');
  await expect(page.getByTestId('verdict')).toContainText('Glaze 2 is touch-dry');
});

test('a hygrometer sends by itself, falls silent, and a typed reading stands beside it', async ({
  page,
  server,
}) => {
  await open(page, 'Studio');
  const room = page.getByRole('region', { name: 'The room and its instruments' });
  await expect(room).toContainText('No instrument sends anything');
  await room.getByRole('button', { name: 'Try a simulated hygrometer' }).click();
  // It tells of the last day at once, and the page hears of it without being asked.
  const hygrometer = room.getByRole('article', { name: 'Simulated hygrometer' });
  await expect(hygrometer).toContainText(/\d °C · \d/);
  await expect(room.getByRole('listitem').first()).toContainText('The hygrometer');
  await hygrometer.getByText('Dew point and water in the air').click();
  await expect(hygrometer).toContainText(/holds \d+(\.\d+)? g of water/);

  // A real device would send so.
  await room.getByRole('button', { name: 'Add an instrument' }).click();
  await page.getByLabel('What you call it').fill('East shelf');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  const token = await page
    .getByRole('dialog', { name: 'Its token' })
    .locator('code')
    .first()
    .innerText();
  await page.getByRole('button', { name: 'It has it' }).click();
  const shelf = room.getByRole('article', { name: 'East shelf' });
  await expect(shelf).toContainText('Nothing was heard of it yet');
  const at = '2027-01-14T17:00:00+01:00';
  const sent = await page.request.post(`${server.url}/api/instruments/readings`, {
    headers: { authorization: `Bearer ${token}` },
    data: { readings: [{ at, temperature_c: 18.2, relative_humidity: 0.66 }] },
  });
  expect(await sent.json()).toEqual({ taken: 1, known: 0, refused: [] });
  await expect(shelf).toContainText('18.2 °C · 66 %');
  await expect(shelf).toContainText('Nothing was heard of it since 14 January 17:00');

  await room.getByRole('button', { name: 'Type a reading' }).click();
  const dialog = page.getByRole('dialog', { name: 'Type a reading' });
  await dialog.getByLabel(/^Temperature/).fill('20');
  await dialog.getByLabel(/^Humidity/).fill('50');
  await dialog.getByLabel('When').fill('2027-01-14T17:05');
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(shelf).toContainText('1.8 K colder and 16.0 % damper than what you read');

  await shelf.getByRole('button', { name: 'Take away' }).click();
  await expect(shelf).toBeHidden();
});
