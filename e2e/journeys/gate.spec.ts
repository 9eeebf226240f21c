import type { Page } from '@playwright/test';
import { expect, expectAccessible, expectNoSidewaysScroll, open, test } from '../fixtures';

/** Opens a page of sealing for the picture whose title begins so. */
async function openGate(page: Page, title: string, to = 'Gate') {
  await open(page, 'Gate');
  await page.getByRole('main').getByRole('link', { name: title }).click();
  await expect(page.getByRole('list', { name: 'Conditions' })).toBeAttached();
  if (to !== 'Gate') {
    await page.getByRole('navigation', { name: 'Sealing' }).getByRole('link', { name: to }).click();
  }
}

const verdict = (page: Page) => page.getByTestId('gate-verdict');

test('the list says what may be sealed now, what not and what is done', async ({ page }) => {
  await open(page, 'Gate');
  const row = (name: string) => page.getByRole('listitem', { name });
  await expect(row('Lamp row, harbour steps')).toContainText('You may seal it now.');
  await expect(row("Ship's lantern, unlit")).toContainText('look it over, then seal');
  await expect(row('Two carboys, north window')).toContainText('Not yet: leave it unsealed.');
  await expect(row('Fog lamp at four')).toContainText('Wrapped.');
  await expect(page.getByText(/73 % is too damp. It would fit with a dehumidifier/)).toBeVisible();
  await expectAccessible(page);
  await page.setViewportSize({ width: 390, height: 844 });
  await expectNoSidewaysScroll(page);
});

test('a picture that is not ready says why and from when', async ({ page }) => {
  await openGate(page, 'Two carboys');
  const conditions = page.getByRole('list', { name: 'Conditions' }).getByRole('listitem');
  await expect(conditions).toHaveCount(9);
  await expect(conditions.filter({ hasText: 'The film is cured' })).toContainText(
    /from (\w+day|\d+ January)/,
  );
  await expect(conditions.filter({ hasText: 'It is signed' })).toContainText('yours to do');
  await expect(page.getByText('Earliest hour:')).toBeVisible();
  // Nor does the log of the picture let the coat through without a reason.
  await page.getByRole('link', { name: 'its film and steps' }).click();
  const varnish = page.getByRole('listitem', { name: 'Varnish 1' });
  await varnish.getByRole('button', { name: /^Coat laid/ }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('button', { name: 'Log it' }).click();
  await expect(dialog.getByLabel('Why you seal it anyway')).toBeVisible();
  await expect(dialog.getByText(/The gate is closed: .*the film is not cured/)).toBeVisible();
});

test('the ready picture is varnished by the bench sheet, coat by coat', async ({ page }) => {
  await openGate(page, 'Lamp row', 'Varnish plan');
  await expect(page.getByText('Pour 5 ml for each coat')).toBeVisible();
  await page.getByRole('radio', { name: 'Matte' }).click();
  await expect(page.getByRole('region', { name: 'The varnish plan' })).toContainText(
    'Varnish 2 of 2, matte',
  );
  await expect(page.getByText('Light is scattered')).toBeVisible();
  await page.getByLabel('Isolation coat between paint and varnish').check();
  await expect(page.getByText('Say why: your studio lays no isolation coat.')).toBeVisible();
  await page.getByLabel('Isolation coat between paint and varnish').uncheck();
  await expect(page.getByText('Pour 5 ml for each coat')).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Settle on this varnish' }).click();
  await expect(page.getByText('Its coats are in the plan now.')).toBeVisible();

  await page.getByRole('link', { name: 'Bench sheet' }).click();
  await expect(page.getByText('Do not shake the bottle: bubbles.')).toBeVisible();
  await page.getByRole('button', { name: 'First stroke: start the timer' }).click();
  await expect(page.getByRole('timer')).toContainText('left to touch it');
  await page.reload();
  await expect(page.getByRole('timer')).toContainText('left to touch it');
  await page.getByRole('button', { name: 'The coat is on', exact: true }).click();
  await expect(page.getByText('Varnish 1 of 2, gloss is on since')).toBeVisible();
  // The timer goes on until it is dry to the touch.
  const timer = page.getByRole('region', { name: 'Timer', exact: true }).getByRole('timer');
  await expect(timer).toContainText('left to touch it');
  await expect(page.getByRole('region', { name: 'Timers' })).toContainText('Sets: Varnish 1 of 2');
  await expect(verdict(page)).toContainText('Not yet: leave it unsealed.');
  await page.getByRole('button', { name: 'Trouble found on Varnish 1 of 2, gloss' }).click();
  await page.getByRole('button', { name: 'A cloud over darks' }).click();
  const advice = page.getByRole('status');
  await expect(advice).toContainText('Leave it');
  await expect(advice).toContainText('The sheen you chose stays.');
  await expectAccessible(page);
  await page.setViewportSize({ width: 390, height: 844 });
  await expectNoSidewaysScroll(page);
});

test('between coats the surface is looked over, or sealed anyway with a reason', async ({
  page,
}) => {
  await openGate(page, "Ship's lantern", 'Bench sheet');
  const anyway = page.getByRole('button', { name: 'Seal anyway: the coat is on' });
  await expect(anyway).toBeDisabled();
  await page.getByLabel('Why you seal it anyway').fill('Seen by lamplight, no dust');
  await anyway.click();
  await expect(verdict(page)).toContainText('Sealed: leave it.');
  const sealing = page.getByRole('navigation', { name: 'Sealing' });
  await sealing.getByRole('link', { name: 'Record sheet' }).click();
  await expect(page.getByText(/Reason: Seen by lamplight, no dust/)).toBeVisible();
  // Taken back, it is done as it should be.
  await page.getByRole('button', { name: 'Undo: log Varnish 2' }).click();
  await expect(verdict(page)).toContainText('look it over, then seal');
  await sealing.getByRole('link', { name: 'Gate' }).click();
  await page.getByRole('button', { name: 'Dusted and looked over' }).click();
  await expect(verdict(page)).toContainText('You may coat it again now.');
});

/** CRC-32 of PNG chunks (ISO 3309). */
function crc(bytes: Buffer): number {
  let sum = ~0;
  for (const byte of bytes) {
    sum ^= byte;
    for (let bit = 0; bit < 8; bit++) sum = (sum >>> 1) ^ (0xedb88320 & -(sum & 1));
  }
  return ~sum >>> 0;
}

const PIXEL = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);

test('a photograph is kept and brought back; hostile files are refused with a sentence', async ({
  page,
}) => {
  await openGate(page, 'Two carboys', 'Photographs');
  const bring = (name: string, mimeType: string, buffer: Buffer) =>
    page.getByLabel('Photograph', { exact: true }).setInputFiles({ name, mimeType, buffer });
  const alert = page.getByRole('alert');
  await bring('lamp.jpg', 'image/jpeg', Buffer.from('MZ\x90\0 a program'));
  await expect(alert).toContainText('not a JPEG, PNG or WebP picture, whatever its name says');
  await bring('lamp.png', 'image/png', Buffer.from('<svg><script>alert(1)</script></svg>'));
  await expect(alert).toContainText('SVG drawing');
  const large = Buffer.from(PIXEL);
  large.writeUInt32BE(20_000, 16);
  large.writeUInt32BE(20_000, 20);
  large.writeUInt32BE(crc(large.subarray(12, 29)), 29);
  await bring('wide.png', 'image/png', large);
  await expect(alert).toContainText('20000 x 20000 pixels');
  await bring('cut.png', 'image/png', PIXEL.subarray(0, 50));
  await expect(alert).toContainText('ends too early or is damaged');
  await expect(page.getByText('There is none yet.')).toBeVisible();

  await page.getByLabel('Your words on it').fill('North window');
  await bring('seen.png', 'image/png', PIXEL);
  const kept = page.getByRole('img', { name: 'North window' });
  await expect(kept).toBeVisible();
  await page.getByRole('button', { name: 'Take away' }).click();
  await expect(kept).toBeHidden();
  await page.getByRole('button', { name: 'Bring it back' }).click();
  await expect(kept).toBeVisible();
  await expectAccessible(page);
});

test('readings that are brought change the good hours, and a bad file changes nothing', async ({
  page,
}) => {
  await open(page, 'Gate');
  const csv = page.getByLabel('Readings as CSV');
  const bring = (text: string) =>
    csv.setInputFiles({ name: 'room.csv', mimeType: 'text/csv', buffer: Buffer.from(text) });
  await bring('at,temperature_c,relative_humidity_percent\n2027-01-15 17:00,warm,50\n');
  await expect(page.getByRole('alert')).toContainText('line 2: "warm" is not a number');
  await bring(
    'at,temperature_c,relative_humidity_percent\n2027-01-15 08:00,14,60\n2027-01-16 08:00,20,50\n',
  );
  await expect(page.getByText('Readings you brought')).toBeVisible();
  await expect(
    page.getByText(/14 °C is too cold. It would fit with heating to 20 °C/),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Keep the room as usual' }).click();
  await expect(page.getByText('The room as it is usually kept')).toBeVisible();
  await expect(page.getByText(/too cold/)).toBeHidden();
});

test('solvent varnish over an isolation coat brings its cautions to the bench, and only there', async ({
  page,
}) => {
  await openGate(page, 'Lamp row', 'Bench sheet');
  const before = page.getByRole('region', { name: 'Before' });
  await expect(before).toContainText('Do not shake the bottle');
  await expect(before).not.toContainText('respirator');
  const sealing = page.getByRole('navigation', { name: 'Sealing' });
  await sealing.getByRole('link', { name: 'Varnish plan' }).click();
  await page.getByRole('radio', { name: 'Solvent, removable' }).click();
  const plan = page.getByRole('region', { name: 'The varnish plan' });
  await expect(plan).toContainText('its vapour harms people and catches fire');
  await page.getByLabel('Isolation coat between paint and varnish').check();
  await page.getByLabel('Why with an isolation coat').fill('It hangs in a kitchen');
  await expect(plan).toContainText('3 to 4 days after the water-borne coat below');
  await page.getByRole('button', { name: 'Settle on this varnish' }).click();
  await expect(page.getByText('Its coats are in the plan now.')).toBeVisible();
  await expect(verdict(page)).toContainText('Isolation coat');

  // The isolation coat is water-borne: no word of solvent yet.
  await sealing.getByRole('link', { name: 'Bench sheet' }).click();
  await expect(before).not.toContainText('respirator');
  await page.getByRole('button', { name: 'The coat is on', exact: true }).click();
  await expect(page.getByText('Isolation coat is on since')).toBeVisible();
  await expect(before).toContainText('respirator for organic vapour');
  await expect(before).toContainText("Read the product's safety data sheet");
  await expect(page.getByRole('region', { name: 'Laying it' })).toContainText('closed metal bin');
  await sealing.getByRole('link', { name: 'Gate' }).click();
  const gap = page.getByRole('listitem').filter({ hasText: 'The coat below has lain long enough' });
  await expect(gap).toContainText('Solvent varnish over a water-borne coat');
});

test('a picture without varnish gets one planned, and the log names what is missing', async ({
  page,
}) => {
  await open(page, 'Pictures');
  await page.getByRole('main').getByRole('link', { name: 'Storm glass' }).click();
  for (const coat of ['Varnish 2', 'Varnish 1']) {
    await page.getByRole('button', { name: `Delete: ${coat}` }).click();
    await expect(page.getByRole('listitem', { name: coat })).toBeHidden();
  }
  await page.keyboard.press('g');
  await expect(verdict(page)).toContainText('No varnish is planned.');
  await page.getByRole('link', { name: 'Choose a varnish' }).click();
  await page.getByRole('radio', { name: 'High gloss' }).click();
  await page.getByRole('button', { name: 'Settle on this varnish' }).click();
  await expect(page.getByText('Its coats are in the plan now.')).toBeVisible();
  await expect(verdict(page)).toContainText('Not yet: leave it unsealed.');
  await page.getByRole('link', { name: 'its film and steps' }).click();
  await expect(page.getByRole('listitem', { name: 'Varnish 4 of 4, gloss' })).toBeVisible();
});
