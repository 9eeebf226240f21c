import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, open, test } from '../fixtures';

test('a database that is away is said plainly, and is back without a restart', async ({
  page,
  server,
}) => {
  await open(page, 'Pictures');
  const signal = (name: string) => {
    const pid = readFileSync(join(server.data, 'data', 'pid'), 'utf8').trim();
    execFileSync('kill', [`-${name}`, pid]);
    return pid;
  };
  const health = async () => (await fetch(`${server.url}/api/health`)).status;

  // It hangs: nothing answers until it goes on.
  signal('STOP');
  await expect.poll(health).toBe(503);
  await page.reload();
  await expect(page.getByText('The database does not answer just now.').first()).toBeVisible();
  signal('CONT');
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByRole('article', { name: 'Two carboys, north window' })).toBeVisible();

  // It dies: the application starts it again and goes on.
  const pid = signal('KILL');
  await expect
    .poll(() => readFileSync(join(server.data, 'data', 'pid'), 'utf8').trim())
    .not.toBe(pid);
  await expect.poll(health).toBe(200);
  await page.reload();
  await expect(page.getByRole('article', { name: 'Two carboys, north window' })).toBeVisible();
});
