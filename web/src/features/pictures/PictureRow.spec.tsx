import { cleanup, screen } from '@testing-library/react';
import { afterEach, describe, expect, it } from 'vitest';
import type { Schemas } from '../../api/client';
import { renderInStudio } from '../../renderInStudio';
import { PictureRow } from './PictureRow';

afterEach(cleanup);

const NOW = Date.parse('2027-01-14T16:34:00Z');

const IN_TIME: Schemas['DateOut'] = {
  standing: 'in_time',
  short: 'In time as planned',
  said: 'Planned ready tomorrow; due 23 January.',
};

const picture = (extra: Partial<Schemas['PictureOutlook']>): Schemas['PictureOutlook'] => ({
  id: 'p1',
  version: 1,
  title: 'Lamp row',
  width_cm: 24,
  height_cm: 30,
  photograph: null,
  due: '2027-01-23',
  finish: '2027-01-15T19:55:00Z',
  days_late: 0,
  date: IN_TIME,
  ready_by: 'wrapped',
  ready_said: 'packed',
  steps: 12,
  done: 10,
  coats: [],
  top: null,
  plan: [],
  findings: [],
  ...extra,
});

const planned = (extra: Partial<Schemas['PlannedOut']> = {}): Schemas['PlannedOut'] => ({
  step: 's1',
  title: 'varnish 1',
  sittings: [{ from: '2027-01-15T16:10:00Z', to: '2027-01-15T16:35:00Z' }],
  waits_for: null,
  blocked: null,
  pin: null,
  cup_g: null,
  recipe: [],
  tub: null,
  ...extra,
});

function said(extra: Partial<Schemas['PictureOutlook']>): string {
  const shown = picture(extra);
  renderInStudio(<PictureRow picture={shown} date={shown.date} zone="Europe/Oslo" now={NOW} />);
  return screen.getByRole('article', { name: 'Lamp row' }).textContent ?? '';
}

describe('a picture in the list', () => {
  it('says its size, what is next and when it will be ready', () => {
    const text = said({ plan: [planned()] });
    expect(text).toContain('24 × 30 cm · 10 of 12 steps done');
    expect(text).toContain('Next: varnish 1, tomorrow 17:10.');
    expect(text).toContain('Planned ready tomorrow; due 23 January.');
  });

  it('says why its next step cannot be placed, and that rules are broken', () => {
    const text = said({
      plan: [planned({ sittings: [], blocked: 'the studio has no hours' })],
      finish: null,
      findings: [
        {
          rule: 'r',
          severity: 'stop',
          step: 's',
          title: 't',
          what: 'w',
          remedy: 'r',
          set_aside: null,
          provenance: 'p',
        },
        {
          rule: 'n',
          severity: 'note',
          step: 's',
          title: 't',
          what: 'w',
          remedy: 'r',
          set_aside: null,
          provenance: 'p',
        },
      ],
    });
    expect(text).toContain('Varnish 1: the studio has no hours.');
    expect(text).toContain('1 caution at its steps.');
  });
});
