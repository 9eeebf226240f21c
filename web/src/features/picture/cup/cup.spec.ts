import { describe, expect, it } from 'vitest';
import type { Schemas } from '../../../api/client';
import { compared, cupVerdict } from './compare';
import { withPercent } from './useCup';

const OSLO = 'Europe/Oslo';
const NOW = Date.parse('2027-01-14T16:34:00Z');

const cup = (extra: Partial<Schemas['CupOut']> = {}): Schemas['CupOut'] => ({
  total_ml: 9.4,
  on_picture_ml: 8,
  parts: [],
  rounding_share: 0,
  rounding_ml: 0,
  limits: [],
  laid_at: '2027-01-14T16:34:00Z',
  waits: false,
  working_min: 14.2,
  touch_dry_at: '2027-01-14T16:57:00Z',
  paintable_at: '2027-01-14T18:07:00Z',
  offers: [],
  short: null,
  ...extra,
});

describe('a cup in words', () => {
  it('says how long it works and when the next coat is safe', () => {
    expect(cupVerdict(cup(), NOW, OSLO)).toBe(
      'Laid now it works 14 min, is touch-dry 17:57 and paintable 19:07.',
    );
  });

  it('never has a coat laid on one that is not paintable', () => {
    const later = cup({ waits: true, laid_at: '2027-01-14T17:42:10Z' });
    expect(cupVerdict(later, NOW, OSLO)).toContain(
      'Laid at 18:43, when the coat below is paintable,',
    );
    expect(cupVerdict(cup({ laid_at: null }), NOW, OSLO)).toBe(
      'The film below is not paintable within 400 days.',
    );
  });

  it('is compared with the one beside it', () => {
    const slow = cup({ working_min: 54.2, paintable_at: '2027-01-15T07:00:00Z' });
    expect(compared(slow, cup(), NOW, OSLO)).toBe(
      '+40 min working, paintable tomorrow 08:00 instead of 19:07.',
    );
    expect(compared(cup({ total_ml: 4.7 }), cup(), NOW, OSLO)).toBe(
      'works as long, paintable 19:07 too, 4.7 ml less to mix.',
    );
  });
});

describe('the percent of a part', () => {
  const mix = [
    { material: 'liquid', parts: '80' },
    { material: 'paint', parts: '10' },
    { material: 'retarder', parts: '10' },
  ];

  it('moves the others in proportion, and the cup stays whole', () => {
    expect(withPercent(mix, 1, 28).map((p) => p.parts)).toEqual(['64', '28', '8']);
    expect(withPercent(mix, 0, 0).map((p) => p.parts)).toEqual(['0', '50', '50']);
    expect(withPercent(mix, 0, 100).map((p) => p.parts)).toEqual(['100', '0', '0']);
  });

  it('of the only part with anything in it leaves the rest even', () => {
    const one = [
      { material: 'a', parts: '1' },
      { material: 'b', parts: '0' },
      { material: 'c', parts: '0' },
    ];
    expect(withPercent(one, 0, 50).map((p) => p.parts)).toEqual(['50', '25', '25']);
  });
});
