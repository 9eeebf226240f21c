import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { alone, holdLease } from './lock';
import { deliver, drain } from './sender';
import { wait, waiting, whyWaits, type Waiting } from './waiting';

const entry = (key: string, version: number): Waiting & { kind: 'happened' } => ({
  key,
  kind: 'happened',
  of: 'p',
  said: key,
  since: 0,
  body: { version, what: { kind: 'noted' }, words: key },
});

/** A server that answers each request by what `answer` says of its key and how many came. */
function server(answer: (key: string, n: number) => Response | Promise<Response>) {
  const keys: string[] = [];
  vi.stubGlobal('fetch', async (request: Request) => {
    const key = request.headers.get('idempotency-key') ?? '';
    keys.push(key);
    return await answer(key, keys.length);
  });
  return keys;
}

const own = (key: string, status: number, body: unknown) =>
  new Response(JSON.stringify(body), {
    status,
    headers: { 'content-type': 'application/json', 'idempotency-key': key },
  });
const kept = (key: string) => own(key, 200, { picture: { id: 'p', version: 2 }, moves: [] });

beforeEach(() => localStorage.clear());
afterEach(() => vi.unstubAllGlobals());

test('an entry is in the browser before it is sent, and gone when its own answer came', async () => {
  let stored = 0;
  server((key) => {
    stored = waiting().length;
    return kept(key);
  });
  const answer = await deliver(entry('a', 1));
  expect([stored, waiting().length]).toEqual([1, 0]);
  expect(answer?.picture.version).toBe(2);
});

test('an answer of something in between does not count: the entry waits', async () => {
  server((_, n) => (n === 1 ? new Response(null, { status: 204 }) : new Response('<html>')));
  expect(await deliver(entry('a', 1))).toBeUndefined();
  expect(waiting()).toHaveLength(1);
  expect(whyWaits('p')).toContain('does not answer');
});

test('a refusal goes to the form that is open, and leaves nothing waiting', async () => {
  const detail = 'words: is too long';
  server((key) => own(key, 422, { type: 'x', title: 'x', status: 422, detail }));
  await expect(deliver(entry('a', 1))).rejects.toThrow(detail);
  expect(waiting()).toHaveLength(0);
  // Of one that waited already nobody has the form any more: it becomes a question.
  wait(entry('b', 1));
  await drain();
  expect(waiting()[0]?.against).toBe(detail);
});

test('twelve that wait go out in one go, in order, and once', async () => {
  for (let n = 0; n < 12; n++) wait(entry(`e${n}`, 1));
  const keys = server((key) => kept(key));
  await Promise.all([drain(), drain()]);
  expect(keys).toEqual(Array.from({ length: 12 }, (_, n) => `e${n}`));
  expect(waiting()).toHaveLength(0);
});

test('without the browser’s locks one window at a time sends, by a lease that ends', async () => {
  const done: string[] = [];
  await alone('x', (hold) => {
    done.push(`held ${hold()}`);
    return Promise.resolve();
  });
  expect(localStorage.getItem('ulvek.lease'), 'it is given back').toBeNull();
  localStorage.setItem('ulvek.lease', JSON.stringify({ by: 'other', until: 2_000 }));
  expect([holdLease(1_000), holdLease(3_000)]).toEqual([false, true]);
  expect(done).toEqual(['held true']);
});

test('one behind an open question waits, and one that comes in meanwhile goes out at once', async () => {
  const keys = server((key) => kept(key));
  wait({ ...entry('a', 1), against: 'It was edited elsewhere.' });
  expect(await deliver(entry('b', 2))).toBeUndefined();
  expect([keys, waiting().length]).toEqual([[], 2]);
  expect(whyWaits('p')).toContain('behind the question');
  const other = { ...entry('c', 1), of: 'q' };
  const answers = await Promise.all([deliver(other), deliver({ ...other, key: 'd' })]);
  expect(answers.every((answer) => answer !== undefined)).toBe(true);
  expect(keys).toEqual(['c', 'd']);
});
