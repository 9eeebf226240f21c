import { act, cleanup, screen, within } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { renderInStudio } from '../../renderInStudio';
import { TimerBar } from './TimerBar';
import { beginTimer, endSession, leftSaid } from './timers';

const ring = vi.hoisted(() => vi.fn());
vi.mock('./ring', () => ({ ring, mayAsk: () => false, askToRing: vi.fn() }));

const MINUTE = 60_000;

beforeEach(() => {
  vi.useFakeTimers({ now: Date.parse('2027-01-14T16:34:00Z') });
  localStorage.clear();
  ring.mockClear();
  vi.stubGlobal('fetch', () => new Promise(() => undefined));
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const pass = (ms: number) => act(() => vi.advanceTimersByTimeAsync(ms));
const timer = (name: string) => within(screen.getByRole('group', { name }));

describe('timers', () => {
  test('several run at once, ring once, and are there again after a reload', async () => {
    act(() => beginTimer('misting', 'Mist the palette', 10 * MINUTE));
    act(() => beginTimer('own', 'Tea', 2 * MINUTE));
    const first = renderInStudio(<TimerBar studio="s" />);
    await pass(1000);
    expect(timer('Tea').getByRole('timer').textContent).toBe('1:59');
    first.unmount();
    // The laptop was closed for a minute.
    await vi.advanceTimersByTimeAsync(MINUTE);
    renderInStudio(<TimerBar studio="s" />);
    await pass(1000);
    expect(timer('Tea').getByRole('timer').textContent).toBe('0:58');
    await pass(MINUTE);
    expect(timer('Tea').getByRole('alert').textContent).toBe('now');
    expect(ring.mock.calls).toEqual([['Tea']]);
    await pass(MINUTE);
    expect(ring).toHaveBeenCalledTimes(1);
  });

  test('one that is paused stands still, and ending the session ends its misting too', async () => {
    act(() => beginTimer('session', 'Until the hours end', 90 * MINUTE));
    act(() => beginTimer('misting', 'Mist the palette', 10 * MINUTE));
    act(() => beginTimer('own', 'Tea', 2 * MINUTE));
    renderInStudio(<TimerBar studio="s" />);
    act(() => timer('Tea').getByRole('button', { name: 'Pause' }).click());
    await pass(5 * MINUTE);
    expect(timer('Tea').getByRole('timer').textContent).toBe('2:00');
    act(() => endSession());
    expect(screen.getAllByRole('timer')).toHaveLength(1);
  });

  test('a session that was ended is entered, not beyond the hours it was for', async () => {
    const asked: { path: string; body: unknown }[] = [];
    vi.stubGlobal('fetch', async (request: Request) => {
      const path = new URL(request.url).pathname;
      if (request.method === 'POST') asked.push({ path, body: await request.json() });
      return new Response('{}', { headers: { 'content-type': 'application/json' } });
    });
    const begin = () => act(() => beginTimer('session', 'Until the hours end', 90 * MINUTE));
    const end = async () => {
      timer('Until the hours end').getByRole('button', { name: 'End' }).click();
      await pass(0);
    };
    renderInStudio(<TimerBar studio="s" />);
    begin();
    await pass(30_000);
    await end();
    expect(asked, 'a touch by mistake is no session').toEqual([]);
    begin();
    await pass(200 * MINUTE);
    await end();
    const [at, until] = ['2027-01-14T16:34:30.000Z', '2027-01-14T18:04:30.000Z'];
    expect(asked).toEqual([
      { path: '/api/studios/s/daybook', body: { at, what: { kind: 'session', until } } },
    ]);
  });

  test('what another program left there is no timer', () => {
    localStorage.setItem('ulvek.timers', '[{"ends":"soon"},7,null]');
    renderInStudio(<TimerBar studio="s" />);
    expect(screen.queryByRole('region', { name: 'Timers' })).toBeNull();
  });

  test('what is left is said in minutes, and in hours where there are any', () => {
    expect([0, 59_001, 61_000, 3_601_000].map(leftSaid)).toEqual([
      '0:00',
      '1:00',
      '1:01',
      '1:00:01',
    ]);
  });
});
