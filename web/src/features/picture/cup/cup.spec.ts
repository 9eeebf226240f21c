import { describe, expect, it } from 'vitest';
import type { Schemas } from '../../../api/client';
import { compared, cupVerdict } from './compare';
import { settledMix, withMaterials, withTurn, type Recipe } from './turns';

const OSLO = 'Europe/Oslo';
const NOW = Date.parse('2027-01-14T16:34:00Z');

const cup = (extra: Partial<Schemas['CupOut']> = {}): Schemas['CupOut'] => ({
  total_ml: 9.4,
  on_picture_ml: 8,
  loss: 0.15,
  parts: [],
  rounding_share: 0,
  rounding_ml: 0,
  limits: [],
  laid_at: '2027-01-14T16:34:00Z',
  waits: false,
  because: null,
  working_min: 14.2,
  touch_dry_at: '2027-01-14T16:57:00Z',
  paintable_at: '2027-01-14T18:07:00Z',
  offers: [],
  short: null,
  hazards: [],
  ...extra,
});

describe('a cup in words', () => {
  it('says how long it works and when the next coat is safe', () => {
    expect(cupVerdict(cup(), NOW, OSLO, 400)).toBe(
      'Laid now it works 14 min, is touch-dry 17:57 and paintable 19:07.',
    );
  });

  it('never has a coat laid on one that is not paintable', () => {
    const later = cup({ waits: true, laid_at: '2027-01-14T17:42:10Z' });
    expect(cupVerdict(later, NOW, OSLO, 400)).toContain(
      'Waits for the coat below to be paintable. Laid 18:43 it works',
    );
    const because = 'Waits after Varnish 1: the gap between varnish coats';
    expect(cupVerdict({ ...later, because }, NOW, OSLO, 400)).toContain(`${because}. Laid 18:43`);
    expect(cupVerdict(cup({ laid_at: null }), NOW, OSLO, 400)).toBe(
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

describe('a recipe that is turned', () => {
  const start: Recipe = { mix: [{ material: 'liquid', parts: 9 }], turns: [] };
  const ml = (part: number, value: number) => ({ part, unit: 'ml' as const, value });

  it('keeps one turn per field while the hand stays in it', () => {
    const dragged = [1, 2, 3].reduce((was, value) => withTurn(was, ml(0, value)), start);
    expect(dragged.turns).toEqual([ml(0, 3)]);
  });

  it('loses no turn that the server has not answered yet', () => {
    const both = withTurn(withTurn(start, ml(0, 3)), ml(1, 2));
    expect(both).toEqual({ mix: start.mix, turns: [ml(0, 3), ml(1, 2)] });
    expect(settledMix(both)).toBeUndefined();
  });

  it('goes on from what the server made of it', () => {
    const answered = [{ material: 'liquid', parts: 7 }];
    const turned = withTurn(start, ml(0, 3));
    expect(settledMix(turned, answered)).toBe(answered);
    expect(withTurn(turned, ml(1, 2), answered)).toEqual({ mix: answered, turns: [ml(1, 2)] });
    expect(settledMix(start)).toBe(start.mix);
  });

  it('takes a material while a turn is worked out, and keeps the turn', () => {
    const turn = { part: 0, unit: 'ml' as const, value: 4, of_ml: 10 };
    const turned = withTurn(start, turn, start.mix);
    const water = { material: 'water', parts: 1 };
    const more = withMaterials(turned, undefined, (mix) => [...mix, water]);
    expect(more).toEqual({ mix: [...start.mix, water], turns: [turn] });
    const answered = [{ material: 'liquid', parts: 4 }];
    const settled = withMaterials(turned, answered, (mix) => [...mix, water]);
    expect(settled).toEqual({ mix: [...answered, water], turns: [] });
  });
});
