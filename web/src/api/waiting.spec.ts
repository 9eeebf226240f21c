import { beforeEach, expect, test } from 'vitest';
import { ask, insist, letGo, next, sent, wait, waiting, whyWaits, type Waiting } from './waiting';

const entry = (key: string, of: string, version: number): Waiting => ({
  key,
  kind: 'happened',
  of,
  said: key,
  since: 0,
  body: { version, what: { kind: 'noted' }, words: key },
});

const versions = (picture: string) =>
  waiting()
    .filter((w) => w.of === picture)
    .map((w) => 'version' in w.body && w.body.version);

beforeEach(() => localStorage.clear());

test('entries of one picture follow on the versions that the ones before them leave', () => {
  // The page shows version 5 all the while: nothing answers.
  for (const key of ['a', 'b', 'c']) wait(entry(key, 'p', 5));
  wait(entry('d', 'q', 9));
  expect([versions('p'), versions('q')]).toEqual([[5, 6, 7], [9]]);
  const [a, b] = waiting();
  if (a) sent(a);
  expect(versions('p'), 'as it was foreseen').toEqual([6, 7]);
  if (b) letGo(b);
  expect(versions('p'), 'what is let go leaves no version').toEqual([6]);
  expect(JSON.parse(localStorage.getItem('ulvek.waiting') ?? '')).toHaveLength(2);
});

test('a question holds up its own picture and no other, until the painter insists', () => {
  for (const [key, picture] of [
    ['a', 'p'],
    ['b', 'p'],
    ['c', 'q'],
  ] as const)
    wait(entry(key, picture, 5));
  const [a] = waiting();
  expect(whyWaits('p')).toContain('does not answer');
  if (a) ask(a, 'It was edited elsewhere.');
  expect([whyWaits('p'), whyWaits('q')].map((s) => s.includes('question'))).toEqual([true, false]);
  expect(next(waiting())?.key).toBe('c');
  if (a) insist(a, 12);
  expect(next(waiting())?.key).toBe('a');
  expect(versions('p')).toEqual([12, 13]);
  expect(waiting()[0]?.against).toBeUndefined();
});

test('an entry of the day book stands by itself, and holds up nothing when it is a question', () => {
  const misted = (key: string): Waiting => ({
    ...entry(key, 's', 0),
    kind: 'daybook',
    body: { what: { kind: 'misted' } },
  });
  wait(misted('a'));
  wait(misted('b'));
  wait(entry('c', 'p', 5));
  const [a] = waiting();
  if (a) ask(a, 'That is still to come.');
  expect(next(waiting())?.key).toBe('b');
  if (a) letGo(a);
  expect(waiting().map((w) => w.key)).toEqual(['b', 'c']);
});

test('an entry that another window sent is not numbered twice', () => {
  for (const key of ['a', 'b', 'c']) wait(entry(key, 'p', 5));
  const [a] = waiting();
  if (!a) throw new Error('nothing waits');
  sent(a);
  const [b] = waiting();
  if (b) sent(b);
  sent(a);
  expect(versions('p')).toEqual([7]);
});
