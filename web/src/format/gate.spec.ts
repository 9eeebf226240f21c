import { describe, expect, it } from 'vitest';
import type { Schemas } from '../api/client';
import { gateVerdict } from './gate';

const NOW = Date.parse('2027-01-14T12:00:00Z');

type Against = [Schemas['ConditionOut']['id'], Schemas['ConditionOut']['standing'], string?];

function said(stage: Schemas['GateBrief']['stage'], against: Against[], more = {}) {
  const brief: Schemas['GateBrief'] = {
    picture: 'p',
    title: 'Lamp',
    stage,
    coat: 'Varnish 1',
    between: false,
    earliest: { from: '2027-01-15T17:10:00Z', to: '2027-01-15T17:35:00Z' },
    against: against.map(([id, standing, from]) => ({
      id,
      standing,
      from: from ?? null,
      asks: '',
      lacks: `the ${id} is not there`,
      evidence: '',
    })),
    ...more,
  };
  const { head, rest } = gateVerdict(brief, NOW, 'UTC', 400);
  return `${head} ${rest}`;
}

describe('the verdict of a gate', () => {
  it('names what takes longest and what wants the painter', () => {
    const sentence = said('closed', [
      ['floor', 'waits', '2027-01-15T00:00:00Z'],
      ['cure', 'waits', '2027-01-15T16:00:00Z'],
      ['signature', 'yours'],
      ['photograph', 'yours'],
    ]);
    expect(sentence).toBe(
      'Not yet: leave it unsealed. The cure is not there. Earliest tomorrow 17:10, if you sign it and photograph it first.',
    );
  });

  it('is nearly open when only a hand is missing', () => {
    expect(said('closed', [['surface', 'yours']])).toBe(
      'Almost: look it over, then seal. Earliest tomorrow 17:10.',
    );
  });

  it('says that waiting does not help where it does not', () => {
    expect(said('closed', [['product', 'against']], { earliest: null })).toBe(
      'Not yet: leave it unsealed. The product is not there. Waiting does not help.',
    );
  });

  it('never is a bare yes', () => {
    expect(said('open', [])).toContain('Every condition holds for Varnish 1.');
    expect(said('curing', [], { wrap_from: '2027-01-20T12:00:00Z' })).toBe(
      'Sealed: leave it. Nothing touches the face before Wednesday 12:00.',
    );
  });
});
