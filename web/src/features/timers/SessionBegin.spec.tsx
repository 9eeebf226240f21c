import { act, cleanup, fireEvent, screen } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { catalogue, renderInStudio } from '../../renderInStudio';
import { SessionBegin } from './SessionBegin';
import { TimerBar } from './TimerBar';

vi.mock('./ring', () => ({ ring: vi.fn(), mayAsk: () => false, askToRing: vi.fn() }));

const MINUTE = 60_000;

beforeEach(() => {
  vi.useFakeTimers({ now: Date.parse('2027-01-14T16:34:00Z') });
  localStorage.clear();
  vi.stubGlobal('fetch', () => new Promise(() => undefined));
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const begun = (left: number) =>
  renderInStudio(
    <>
      <SessionBegin left={left} />
      <TimerBar studio="s" />
    </>,
  );
const running = () => screen.getAllByRole('timer').map((timer) => timer.textContent);

describe('beginning the session', () => {
  test('runs until the hours end, and mists as often as the week sheet says', async () => {
    begun(95 * MINUTE);
    fireEvent.click(screen.getByRole('button', { name: 'Begin the session' }));
    await act(() => vi.advanceTimersByTimeAsync(0));
    expect(running()).toEqual(['1:35:00', `${catalogue.mist_every_min}:00`]);
    expect(screen.queryByRole('button', { name: 'Begin the session' })).toBeNull();
  });

  test('is not offered outside of the hours', () => {
    begun(0);
    expect(screen.queryByRole('button', { name: 'Begin the session' })).toBeNull();
  });

  test('a timer of one’s own takes minutes up to a day, and says where not', async () => {
    begun(0);
    fireEvent.click(screen.getByRole('button', { name: 'Set a timer' }));
    const minutes = screen.getByRole('textbox', { name: 'Minutes' });
    for (const wrong of ['', '0', '-3', 'soon', '1441']) {
      fireEvent.change(minutes, { target: { value: wrong } });
      expect(minutes.getAttribute('aria-invalid'), wrong).toBe('true');
      fireEvent.submit(minutes);
      expect(screen.queryByRole('timer'), wrong).toBeNull();
    }
    fireEvent.change(minutes, { target: { value: '2,5' } });
    fireEvent.change(screen.getByRole('textbox', { name: 'For what' }), {
      target: { value: 'Gesso' },
    });
    fireEvent.submit(minutes);
    await act(() => vi.advanceTimersByTimeAsync(0));
    expect(running()).toEqual(['2:30']);
    expect(screen.getByRole('group', { name: 'Gesso' })).toBeDefined();
  });
});
