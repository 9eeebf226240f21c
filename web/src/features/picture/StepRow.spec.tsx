import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Schemas } from '../../api/client';
import { StepRow } from './StepRow';
import type { Step } from '../../components/stepEdits';
import type { usePictureEdit } from './usePictureEdit';

afterEach(cleanup);

const NOW = Date.parse('2027-01-14T16:34:00Z');

const SHELF: Schemas['MaterialDoc'][] = [
  { id: 'liquid', name: 'Glazing liquid', kind: 'medium', solids: 0.3, water: 0.6, glycol: 0.1 },
  { id: 'pv19', name: 'PV19', kind: 'paint', solids: 0.4, water: 0.5, glycol: 0.1 },
];

const STEP: Step = {
  id: 's3',
  kind: 'glaze',
  name: 'Last glow',
  hands_on_min: 40,
  wet_film_um: 40,
  mix: [
    { material: 'liquid', parts: 90 },
    { material: 'pv19', parts: 10 },
  ],
};

const PLANNED: Schemas['PlannedOut'] = {
  step: 's3',
  title: 'Last glow',
  sittings: [{ from: '2027-01-16T09:10:00Z', to: '2027-01-16T09:50:00Z' }],
  waits_for: {
    state: 'paintable',
    of: 'Glaze 2',
    until: '2027-01-14T19:10:00Z',
    lag_min: 97,
    because: 'Waits for Glaze 2 to be paintable',
    film_ready: '2027-01-14T19:10:00Z',
  },
  blocked: null,
  pin: null,
  cup_g: null,
  recipe: [],
  tub: null,
};

function row(extra: Partial<Parameters<typeof StepRow>[0]> = {}) {
  const edit = vi.fn();
  const [onEdit, onLog, onCup] = [vi.fn(), vi.fn(), vi.fn()];
  render(
    <ol>
      <StepRow
        step={STEP}
        number={2}
        last={false}
        word="glaze"
        planned={PLANNED}
        findings={[]}
        materials={SHELF}
        zone="Europe/Oslo"
        now={NOW}
        edits={{ edit, pending: false } as unknown as ReturnType<typeof usePictureEdit>}
        onEdit={onEdit}
        onLog={onLog}
        onCup={onCup}
        {...extra}
      />
    </ol>,
  );
  return { edit, onEdit, onLog, onCup, said: () => screen.getByRole('listitem').textContent ?? '' };
}

describe('a step of a picture', () => {
  it('says with what, when, and why not before', () => {
    const { said } = row();
    expect(said()).toContain('90 Glazing liquid : 10 PV19 · 40 µm wet · 40 min');
    expect(said()).toContain('Sat 16 Jan, 10:10');
    expect(said()).toContain(
      'Waits for Glaze 2 to be paintable, Thu 14 Jan, 20:10 (1 h 37 min after it); next free hours Saturday 10:10.',
    );
  });

  it('that is laid says when, and can be taken back', () => {
    const { said, edit } = row({
      step: { ...STEP, laid_at: '2027-01-13T09:00:00Z' },
      planned: undefined,
    });
    expect(said()).toContain('Done Wed 13 Jan, 10:00');
    expect(screen.queryByRole('button', { name: /^Done/ })).toBeNull();
    fireEvent.click(screen.getByRole('button', { name: 'Not done yet: Last glow' }));
    expect(edit.mock.lastCall?.[0]).toBe('take back the log of Last glow');
  });

  it('that cannot be placed says why', () => {
    const blocked = {
      ...PLANNED,
      sittings: [],
      waits_for: null,
      blocked: 'there is no flat place',
    };
    expect(row({ planned: blocked }).said()).toContain('Cannot be placed: there is no flat place.');
  });

  it('split over sessions says in how many', () => {
    const sittings = [
      ...PLANNED.sittings,
      { from: '2027-01-17T09:10:00Z', to: '2027-01-17T09:50:00Z' },
    ];
    expect(row({ planned: { ...PLANNED, sittings } }).said()).toContain('10:10, in 2 sittings');
  });

  it('carries what the rules say about it, with what to do', () => {
    const findings: Schemas['FindingOut'][] = [
      {
        rule: 'too-much-retarder',
        severity: 'stop',
        step: 's3',
        title: 'Last glow',
        what: 'Retarder is 20 % of the mix.',
        remedy: 'Take some out.',
        set_aside: null,
        provenance: '[memory]',
      },
    ];
    expect(row({ findings }).said()).toContain('Stop: Retarder is 20 % of the mix. Take some out.');
  });

  it('is edited, moved, copied, deleted and opened from its own buttons', () => {
    const { edit, onEdit, onCup } = row();
    for (const [button, label] of [
      ['Duplicate: Last glow', 'duplicate Last glow'],
      ['Down: Last glow', 'move Last glow down'],
      ['Delete: Last glow', 'delete Last glow'],
    ]) {
      fireEvent.click(screen.getByRole('button', { name: button }));
      expect(edit.mock.lastCall?.[0]).toBe(label);
    }
    fireEvent.click(screen.getByRole('button', { name: 'Edit: Last glow' }));
    fireEvent.click(screen.getByRole('button', { name: 'Cup: Last glow' }));
    expect([onEdit.mock.calls.length, onCup.mock.calls.length]).toEqual([1, 1]);
  });

  it('at an end is not moved further', () => {
    row({ number: 1, last: true });
    for (const name of ['Up: Last glow', 'Down: Last glow']) {
      expect(screen.getByRole<HTMLButtonElement>('button', { name }).disabled).toBe(true);
    }
  });
});
