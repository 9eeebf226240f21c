import { cleanup, fireEvent, screen, within } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Schemas } from '../../api/client';
import { isoDay } from '../../format/time';
import { renderInStudio } from '../../renderInStudio';
import { Week } from './Week';

const OSLO = 'Europe/Oslo';
const DAY = 86_400_000;

const work: Schemas['WeekWork'] = {
  picture: 'p',
  picture_title: 'Lamp row',
  title: 'details',
  from: '2027-03-27T09:00:00Z',
  to: '2027-03-27T10:30:00Z',
  sitting: 1,
  of: 2,
  because: 'Waits for Glaze 3 to be paintable',
  cup: 'Take 8.5 ml Titanium white PW6, heavy.',
  beside: ['Humidifier on from 09:00.'],
  care: ['It dries faster than Glaze 3 below it, and may trap it wet.'],
};

/** Seven days from `first`; work on the first of them. */
function week(first: string, works: Schemas['WeekWork'][]): Schemas['Week'] {
  const days = Array.from({ length: 7 }, (_, n) => {
    const day = isoDay(Date.parse(`${first}T12:00:00Z`) + n * DAY, OSLO);
    return {
      day,
      sessions: n === 0 ? [{ from: '2027-03-27T09:00:00Z', to: '2027-03-27T15:00:00Z' }] : [],
      work: n === 0 ? works : [],
    };
  });
  const date: Schemas['DateOut'] = {
    standing: 'in_time',
    short: 'In time as planned',
    said: 'Planned ready 29 March; due 2 April.',
  };
  const dates = [{ id: 'p', title: 'Lamp row', date }];
  return { now: '2027-03-27T08:00:00Z', studio: 'North-light room', time_zone: OSLO, days, dates };
}

const asked: string[] = [];

function open(works: Schemas['WeekWork'][] = [work]) {
  asked.length = 0;
  vi.stubGlobal('fetch', (request: Request) => {
    if (request.method === 'POST') {
      const sampled = { futures: 120, pictures: [] };
      return Promise.resolve(
        new Response(JSON.stringify(sampled), { headers: { 'content-type': 'application/json' } }),
      );
    }
    const from = new URL(request.url).searchParams.get('from');
    asked.push(from ?? 'today');
    return Promise.resolve(
      new Response(JSON.stringify(week(from ?? '2027-03-27', works)), {
        headers: { 'content-type': 'application/json' },
      }),
    );
  });
  renderInStudio(<Week />);
}

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

describe('the week sheet', () => {
  it('says when, what, from which cup, what beside it and what to take care of', async () => {
    open();
    const day = await screen.findByRole('region', { name: 'Saturday 27 March' });
    expect(within(day).getByText('10:00 to 16:00')).toBeTruthy();
    const entry = within(day).getByRole('listitem').textContent;
    for (const said of [
      '10:00 to 11:30 details (1 of 2), Lamp row',
      'Take 8.5 ml Titanium white PW6, heavy.',
      'Waits for Glaze 3 to be paintable.',
      'Humidifier on from 09:00.',
      'may trap it wet.',
    ]) {
      expect(entry).toContain(said);
    }
    expect(screen.getAllByText('no hours')).toHaveLength(6);
    expect(screen.getByRole('region', { name: 'Dates' }).textContent).toBe(
      'Lamp row: Planned ready 29 March; due 2 April.',
    );
  });

  it('turns by a week of days, also over the change of the clocks', async () => {
    // Europe/Oslo goes to daylight saving on 28 March 2027 (IANA time zone database).
    open();
    await screen.findByRole('region', { name: 'Saturday 27 March' });
    fireEvent.click(screen.getByRole('button', { name: 'Week after' }));
    await screen.findByRole('region', { name: 'Saturday 3 April' });
    fireEvent.click(screen.getByRole('button', { name: 'Week before' }));
    await screen.findByRole('region', { name: 'Saturday 27 March' });
    expect(asked).toEqual(['today', '2027-04-03', '2027-03-27']);
  });

  it('says of a day without work that nothing is planned', async () => {
    open([]);
    await screen.findByRole('region', { name: 'Saturday 27 March' });
    expect(screen.getAllByText('Nothing planned.')).toHaveLength(7);
  });

  it('is printed by the browser', async () => {
    const print = vi.fn();
    vi.stubGlobal('print', print);
    open();
    fireEvent.click(await screen.findByRole('button', { name: 'Print it' }));
    expect(print).toHaveBeenCalledOnce();
  });
});
