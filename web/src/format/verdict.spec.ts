import { describe, expect, it } from 'vitest';
import type { Schemas } from '../api/client';
import { clock, day, fromField, moment, span, toField } from './time';
import { topCoat, verdict } from './verdict';

const OSLO = 'Europe/Oslo';

const coat = (title: string, laid: string, extra: Partial<Schemas['CoatOut']> = {}) => {
  const after = (min: number) => new Date(Date.parse(laid) + min * 60_000).toISOString();
  const states = {
    setting_at: after(15),
    touch_dry_at: after(25),
    paintable_at: after(95),
    dry_through_at: after(1200),
    ready_to_seal_at: after(4000),
  };
  return {
    step: title,
    title,
    name: title,
    section: null,
    seals: false,
    planned: false,
    on_top: false,
    laid_at: laid,
    wet_um: 40,
    swatch: '#803c22',
    states,
    if_left: states,
    followed: true,
    likely: null,
    seal_from: after(4320),
    paint_to_come: false,
    ...extra,
  };
};

describe('the verdict', () => {
  const coats = [coat('Glaze 1', '2027-01-06T09:00:00Z'), coat('Glaze 2', '2027-01-07T13:00:00Z')];
  const at = (text: string) => verdict(coats, Date.parse(text), OSLO, 400);

  it('says what to do now and when the next coat is safe', () => {
    expect(at('2027-01-07T13:05:00Z').head).toBe('Glaze 2 is workable: blend, keep a wet edge.');
    const setting = at('2027-01-07T13:20:00Z');
    expect(setting.head).toBe('Glaze 2 is setting: leave it.');
    expect(setting.rest).toBe(
      'Paintable from 15:35. Do not sand before tomorrow 10:00. Seal from Sunday 14:00.',
    );
  });

  it('says what is likely beside what is sure, as long as it is still to come', () => {
    const base = coat('Glaze 2', '2027-01-07T13:00:00Z');
    const likely = { ...base.if_left, paintable_at: '2027-01-07T14:05:00Z' };
    const said = (time: string) => verdict([{ ...base, likely }], Date.parse(time), OSLO, 400).rest;
    expect(said('2027-01-07T13:20:00Z')).toContain('Paintable by 15:35, likely from 15:05.');
    expect(said('2027-01-07T14:10:00Z')).toContain('Paintable from 15:35.');
  });

  it('never calls cured what the school still makes wait', () => {
    const cured = '2027-01-10T09:00:00Z';
    expect(at(cured).head).toBe('Glaze 2 is dry through: paint, sand or tape.');
    expect(at('2027-01-10T13:01:00Z').head).toBe('Ready to seal.');
  });

  it('says what never comes, and is silent about what was not followed', () => {
    const never = { ...coats[1], seal_from: null } as (typeof coats)[number];
    const t = Date.parse('2027-01-09T00:00:00Z');
    expect(verdict([never], t, OSLO, 400).rest).toBe('Not cured for varnish within 400 days.');
    expect(verdict([{ ...never, followed: false }], t, OSLO, 400).rest).toBe('');
    // With paint still to come it is not sealed as it is.
    expect(verdict([{ ...never, paint_to_come: true }], t, OSLO, 400).rest).toBe('');
  });

  it('calls the next coat safe on varnish, and a picture finished when nothing is left', () => {
    const varnish = coat('Varnish 2', '2027-01-07T13:00:00Z', { seals: true });
    const said = (text: string) => verdict([varnish], Date.parse(text), OSLO, 400);
    // It is wet, never “workable: blend”; it may be coated again when the law says so, not the film.
    expect(said('2027-01-07T13:05:00Z')).toMatchObject({
      head: 'Varnish 2 is wet: leave it.',
      rest: 'Next coat from Sunday 14:00.',
    });
    expect(said('2027-01-07T16:00:00Z')).toMatchObject({
      head: 'Varnish 2 is dry to the touch.',
      rest: 'Next coat from Sunday 14:00.',
    });
    const late = Date.parse('2027-01-10T16:00:00Z');
    expect(verdict([varnish], late, OSLO, 400).rest).toBe('The next coat is safe.');
    expect(verdict([varnish], late, OSLO, 400, true).head).toBe('Sealed and finished.');
  });

  it('looks at the coat that is on top at that moment', () => {
    expect(topCoat(coats, Date.parse('2027-01-07T12:59:00Z'))?.title).toBe('Glaze 1');
    expect(at('2027-01-05T00:00:00Z').head).toBe('Nothing is laid yet.');
  });
});

describe('times', () => {
  const now = Date.parse('2027-01-07T12:00:00Z');

  it('are said in the zone of the studio, rounded up to the minute', () => {
    expect(clock(now, OSLO)).toBe('13:00');
    expect(moment(Date.parse('2027-01-07T18:10:30Z'), now, OSLO)).toBe('19:11');
    expect(moment(Date.parse('2027-01-08T08:00:00Z'), now, OSLO)).toBe('tomorrow 09:00');
    expect(moment(Date.parse('2027-02-12T08:00:00Z'), now, OSLO)).toBe('12 February');
    expect(day(Date.parse('2026-12-24T08:00:00Z'), now, OSLO)).toBe('24 December 2026');
  });

  it('go into a field and back over a change of clocks', () => {
    // Europe/Oslo: daylight saving from 28 March 2027, 02:00 (IANA time zone database).
    for (const text of ['2027-03-27T11:30:00.000Z', '2027-03-28T11:30:00.000Z']) {
      expect(fromField(toField(Date.parse(text), OSLO), OSLO)).toBe(text);
    }
    expect(fromField('soon', OSLO)).toBeUndefined();
  });

  it('spans are said in the unit that fits', () => {
    expect([span(40), span(97), span(120), span(4320)]).toEqual([
      '40 min',
      '1 h 37 min',
      '2 h',
      '3 days',
    ]);
  });
});
