import { ThemeProvider } from '@mui/material/styles';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Schemas } from '../api/client';
import { makeTheme } from '../theme/theme';
import { filmWords, Ribbon } from './Ribbon';

const NOW = Date.parse('2027-01-14T12:00:00Z');
const DAY = 86_400_000;

const work = (extra: Partial<Schemas['WorkOut']> = {}): Schemas['WorkOut'] => ({
  step: 's2',
  title: 'Glaze 2',
  from: '2027-01-16T12:00:00Z',
  to: '2027-01-16T12:40:00Z',
  sitting: 1,
  of: 1,
  pinned_at: null,
  pin: null,
  waits_for: null,
  ...extra,
});

const picture = (extra: Partial<Schemas['SeasonPicture']> = {}): Schemas['SeasonPicture'] => ({
  id: 'p',
  version: 1,
  code: 'p',
  title: 'Lamp row',
  weight: 1,
  due: '2027-01-18',
  last_hours: null,
  finish: '2027-01-16T12:40:00Z',
  days_late: 0,
  date: { standing: 'in_time', short: 'In time', said: 'Surely ready.' },
  ready_by: 'wrapped',
  earliest: null,
  done: false,
  laid: [{ step: 's1', title: 'tone', at: '2027-01-13T12:00:00Z' }],
  work: [work()],
  blocked: [],
  film: [
    { at: '2027-01-13T12:00:00Z', um: 45, state: 'workable' },
    { at: '2027-01-13T13:00:00Z', um: 25, state: 'paintable' },
    { at: '2027-01-20T12:00:00Z', um: 20, state: 'ready_to_seal' },
  ],
  held_by: [],
  ...extra,
});

const onChoose = vi.fn();
const onMove = vi.fn();

/** Ten days on a thousand pixels: a day is 100 px, a quarter of an hour 1.04. */
function ribbon(shown: Schemas['SeasonPicture'], more: { odds?: string; chain?: boolean } = {}) {
  return render(
    <ThemeProvider theme={makeTheme('light')}>
      <Ribbon
        picture={shown}
        from={NOW - DAY}
        to={NOW + 9 * DAY}
        now={NOW}
        zone="Europe/Oslo"
        width={1000}
        sessions={[]}
        most={60}
        odds={more.odds}
        chain={more.chain ?? false}
        onChoose={onChoose}
        onMove={onMove}
      />
    </ThemeProvider>,
  );
}

beforeEach(() => {
  onChoose.mockReset();
  onMove.mockReset();
  Element.prototype.setPointerCapture = vi.fn();
});
afterEach(cleanup);

const notch = () => screen.getByRole('button', { name: /^Glaze 2/ });

describe('a ribbon', () => {
  it('names its sittings with their time, and whether they are pinned', () => {
    ribbon(picture({ work: [work({ pinned_at: '2027-01-16T12:00:00Z' })] }), { odds: '8 in 10' });
    expect(notch().getAttribute('aria-label')).toBe('Glaze 2, Sat 16 Jan, 13:00, pinned');
    expect(screen.getByText('due 18 Jan')).toBeTruthy();
    expect(screen.getByText('8 in 10')).toBeTruthy();
    expect(screen.getByText(/tone: done Wed 13 Jan, 13:00/)).toBeTruthy();
  });

  it('tells while a sitting is dragged where it would be, to the quarter of an hour', () => {
    ribbon(picture());
    fireEvent.pointerDown(notch(), { clientX: 300, pointerId: 1 });
    fireEvent.pointerMove(notch(), { clientX: 302, pointerId: 1 });
    expect(onMove).not.toHaveBeenCalled();
    fireEvent.pointerMove(notch(), { clientX: 400.4, pointerId: 1 });
    const day = Date.parse('2027-01-17T12:00:00Z');
    expect(onMove).toHaveBeenLastCalledWith('s2', day, false);
    expect(screen.getByText('Sun 17 Jan, 13:00')).toBeTruthy();
    fireEvent.pointerUp(notch(), { clientX: 500, pointerId: 1 });
    expect(onMove).toHaveBeenLastCalledWith('s2', day + DAY, true);
  });

  it('is not moved by a click, by a key, or where a step is split', () => {
    const { unmount } = ribbon(picture());
    fireEvent.pointerDown(notch(), { clientX: 300, pointerId: 1 });
    fireEvent.pointerUp(notch(), { clientX: 300, pointerId: 1 });
    fireEvent.click(notch());
    fireEvent.keyDown(notch(), { key: 'Enter' });
    expect(onChoose).toHaveBeenCalledTimes(2);
    expect(onMove).not.toHaveBeenCalled();
    unmount();
    ribbon(picture({ work: [work({ of: 2 })] }));
    fireEvent.pointerDown(notch(), { clientX: 300, pointerId: 1 });
    fireEvent.pointerMove(notch(), { clientX: 500, pointerId: 1 });
    expect(onMove).not.toHaveBeenCalled();
  });

  it('draws what holds its end as a line while it waits and dots while it waits for hours', () => {
    const link = {
      step: 's2',
      title: 'Glaze 2',
      from: '2027-01-16T12:00:00Z',
      to: '2027-01-16T12:40:00Z',
      because: 'Waits for tone to be paintable',
      until: '2027-01-15T12:00:00Z',
      then: 'your next hours',
      idle_min: 1440,
    };
    const { container } = ribbon(picture({ held_by: [link] }), { chain: true });
    const lines = [...container.querySelectorAll('line[stroke-width="4"]')].slice(0, 2);
    const ends = lines.map((l) => [l.getAttribute('x1'), l.getAttribute('x2')].map(Number));
    expect(ends).toEqual([
      [100, 200],
      [200, 300],
    ]);
    expect(lines.map((l) => l.hasAttribute('stroke-dasharray'))).toEqual([false, true]);
  });

  it('has its film in words for those who do not see it', () => {
    expect(filmWords(picture(), NOW)).toBe('25 µm, paintable');
    expect(filmWords(picture(), NOW - 2 * DAY)).toBe('no film yet');
  });
});
