import { expect, expectAccessible, open, test } from '../fixtures';

test.use({ serviceWorkers: 'allow' });

test('without a connection the page opens, entries wait, and what was overtaken is a question', async ({
  page,
  context,
  request,
  baseURL,
}) => {
  await open(page, 'Now');
  // The page itself and the last state are kept in the browser.
  await page.evaluate(() => navigator.serviceWorker.ready);
  const remembered = () =>
    page.evaluate(async () => {
      const kept = await indexedDB.databases();
      // Opened before it is made it would be made here, without its store.
      if (!kept.some((d) => d.name === 'keyval-store')) return false;
      return new Promise<boolean>((resolve) => {
        const open = indexedDB.open('keyval-store');
        open.onsuccess = () => {
          const get = open.result.transaction('keyval').objectStore('keyval').get('ulvek.last');
          get.onsuccess = () => resolve(get.result !== undefined);
        };
      });
    });
  await expect.poll(remembered).toBe(true);

  await context.setOffline(true);
  const waiting = page.getByRole('region', { name: 'Entries that wait' });
  await expect(waiting).toContainText('No connection.');
  const finger = page.getByRole('group', { name: /^A fingertip on Unifying glaze of Sleet/ });
  await finger.getByRole('button', { name: 'tacky' }).click();
  const said = page.getByRole('status').filter({ hasText: 'felt tacky' });
  await expect(said).toContainText('it waits in this browser');
  const glaze = page.getByRole('group', { name: 'What happened to Unifying glaze of Sleet' });
  await glaze.getByRole('button', { name: 'Something happened' }).click();
  await glaze.getByRole('button', { name: /Dust/ }).click();
  await expect(waiting).toContainText('2 entries wait in this browser');
  await expectAccessible(page);

  // Closed and opened again, still without a connection.
  await page.reload();
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await expect(page.getByRole('region', { name: 'Drying rail' })).toContainText('14 January');
  await expect(waiting).toContainText('Unifying glaze of Sleet, tram wires felt tacky.');

  // Meanwhile another device writes a note on the same picture.
  const studios = (await (await request.get(`${baseURL}/api/studios`)).json()) as { id: string }[];
  const outlook = (await (
    await request.get(`${baseURL}/api/studios/${studios[0]?.id}/outlook`)
  ).json()) as { pictures: { id: string; title: string; version: number }[] };
  const sleet = outlook.pictures.find((p) => p.title.startsWith('Sleet'));
  const note = await request.post(`${baseURL}/api/pictures/${sleet?.id}/happened`, {
    data: { version: sleet?.version, words: 'from the phone', what: { kind: 'noted' } },
  });
  expect(note.ok()).toBe(true);

  await context.setOffline(false);
  await expect(waiting.getByRole('alert')).toContainText('edited elsewhere in the meantime');
  await waiting.getByRole('button', { name: 'Enter it all the same' }).click();
  await expect(waiting).toBeHidden();
  await open(page, 'Log');
  const entries = page.getByRole('list', { name: 'Entries' }).getByRole('listitem');
  await expect(entries.filter({ hasText: 'from the phone' })).toHaveCount(1);
  await expect(entries.filter({ hasText: /Dust/ })).toHaveCount(1);
  await expect(entries.filter({ hasText: /Tacky/ })).toHaveCount(1);
});
