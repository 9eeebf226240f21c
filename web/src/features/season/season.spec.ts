import { describe, expect, it } from 'vitest';
import type { Schemas } from '../../api/client';
import { ticks } from '../../figures/seasonAxis';
import { consequences, withPicture, withSettings, withStep } from './draft';
import { beyondDate, verdictOf } from './words';

const OSLO = 'Europe/Oslo';

function picture(extra: Partial<Schemas['SeasonPicture']>): Schemas['SeasonPicture'] {
  return {
    id: 'a',
    version: 1,
    code: 'a',
    title: 'Lamp row',
    weight: 1,
    due: '2027-01-20',
    last_hours: null,
    finish: '2027-01-18T12:00:00Z',
    days_late: 0,
    date: { standing: 'in_time', short: 'In time: 9 in 10', said: 'Surely ready.' },
    ready_by: 'wrapped',
    earliest: '2027-01-18T12:00:00Z',
    done: false,
    laid: [],
    work: [],
    blocked: [],
    film: [],
    held_by: [],
    ...extra,
  };
}

const LATE: Schemas['DateOut'] = {
  standing: 'late',
  short: 'Late: 2 in 10',
  said: 'Likely ready 23 January; due 20 January: 2 in 10.',
};
const late = picture({
  id: 'b',
  title: 'Sleet',
  finish: '2027-01-23T12:00:00Z',
  days_late: 3,
  date: LATE,
});
const dateOf = (p: Schemas['SeasonPicture']) => p.date;

describe('the verdict of a season', () => {
  it('names the picture that is in most danger, and says its date', () => {
    const unsure = picture({
      id: 'c',
      title: 'Fog',
      date: { standing: 'not_sure', short: 'Not sure: 6 in 10', said: 'Likely ready today.' },
    });
    expect(verdictOf([picture({}), unsure, late], dateOf)).toBe(
      'Sleet will more likely be late than in time. Likely ready 23 January; due 20 January: 2 in 10. ' +
        '1 more is not sure either.',
    );
    expect(verdictOf([unsure], dateOf)).toBe(
      'Fog is not sure to make its date. Likely ready today.',
    );
    expect(verdictOf([picture({})], dateOf)).toBe('Every picture makes its date.');
    const done = picture({ done: true, date: { ...LATE, standing: 'done' } });
    expect(verdictOf([done], dateOf)).toBe('Every picture is done.');
  });

  it('says what cannot be placed, and why', () => {
    const blocked = [{ step: 's', title: 'Varnish', why: 'there is no flat place' }];
    const date: Schemas['DateOut'] = { ...LATE, standing: 'stuck' };
    const stuck = picture({ blocked, finish: null, date });
    expect(verdictOf([stuck], dateOf)).toBe('Lamp row: Varnish cannot be placed.');
    expect(beyondDate(stuck, 'stuck', OSLO)).toBe(
      'Varnish cannot be placed: there is no flat place.',
    );
  });

  it('says the earliest possible day of a date that may not be met', () => {
    const alone = picture({ ...late, earliest: '2027-01-21T12:00:00Z' });
    expect(beyondDate(alone, 'late', OSLO)).toBe('Were it your only picture: Thu 21 Jan, 13:00.');
    expect(beyondDate(alone, 'in_time', OSLO)).toBe('');
  });
});

describe('drafts', () => {
  const doc = (steps: string[]): Schemas['PictureDoc'] => ({
    id: 'a',
    title: 'Lamp row',
    width_cm: 20,
    height_cm: 30,
    steps: steps.map((id) => ({ id, kind: 'detail', hands_on_min: 30 })),
  });
  const stored = { id: 'key', version: 4, picture: doc(['s1', 's2']) };
  const pin = withStep('s2', (s) => ({ ...s, pinned_at: '2027-01-16T11:00:00Z' }));

  it('are whole pictures on the version they were made on, one change on top of another', async () => {
    const first = await withPicture(undefined, stored, pin);
    const second = await withPicture(first, { ...stored, version: 9 }, (p) => ({
      ...p,
      weight: 3,
    }));
    expect(second.pictures).toHaveLength(1);
    const [made] = second.pictures ?? [];
    expect(made?.version).toBe(4);
    expect(made?.picture.weight).toBe(3);
    expect(made?.picture.steps?.[1]?.pinned_at).toBe('2027-01-16T11:00:00Z');
    expect(stored.picture.steps?.[1]?.pinned_at).toBeUndefined();
  });

  it('keep their pictures and the room when the settings change too', async () => {
    const studio = { name: 'Room', time_zone: OSLO };
    const room = { version: 3, warmer_k: 2, damper: 0, least_speed_m_s: 0 };
    const first = { ...(await withPicture(undefined, stored, pin)), room };
    const both = withSettings(first, { version: 2, studio }, (s) => ({
      ...s,
      closed: [{ from: '2027-01-18', to: '2027-01-20' }],
    }));
    expect(both.room).toEqual(room);
    expect(both.studio?.version).toBe(2);
    expect(both.studio?.studio.closed).toHaveLength(1);
    expect(both.pictures).toHaveLength(1);
  });

  it('say what becomes of each picture, the worst first', () => {
    const season = (pictures: Schemas['SeasonPicture'][]) => ({ pictures }) as Schemas['Season'];
    const found = consequences(
      season([picture({}), late, picture({ id: 'c' })]),
      season([
        picture({ finish: '2027-01-18T15:00:00Z' }),
        { ...late, finish: '2027-01-20T12:00:00Z', days_late: 0 },
        picture({ id: 'c' }),
      ]),
    );
    expect(found.map((c) => [c.title, c.later])).toEqual([
      ['Lamp row', 180],
      ['Sleet', -3 * 24 * 60],
    ]);
  });
});

describe('the axis of the season', () => {
  const at = (text: string) => Date.parse(text);

  it('has words only where there is room, on the days and months of the studio', () => {
    const words = (from: string, to: string) =>
      ticks(at(from), at(to), 1000, OSLO).map((t) => t.word);
    expect(words('2027-01-13T23:00:00Z', '2027-01-14T23:00:00Z')).toHaveLength(9);
    expect(words('2027-01-14T10:00:00Z', '2027-01-21T10:00:00Z')[0]).toBe('Fri 15');
    expect(words('2027-01-14T10:00:00Z', '2027-02-14T10:00:00Z')).toEqual([
      '18 Jan',
      '25 Jan',
      '1 Feb',
      '8 Feb',
    ]);
    expect(words('2027-01-14T10:00:00Z', '2027-07-14T10:00:00Z')[0]).toBe('Feb');
  });

  it('keeps midnight over the change of the clocks', () => {
    // Europe/Oslo goes to daylight saving on 28 March 2027 (IANA time zone database).
    const days = ticks(at('2027-03-26T23:00:00Z'), at('2027-03-30T22:00:00Z'), 1000, OSLO);
    expect(days.map((t) => new Date(t.at).toISOString().slice(5, 16))).toEqual([
      '03-26T23:00',
      '03-27T23:00',
      '03-28T22:00',
      '03-29T22:00',
      '03-30T22:00',
    ]);
  });
});
