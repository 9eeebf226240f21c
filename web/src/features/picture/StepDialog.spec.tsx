import { cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Schemas } from '../../api/client';
import { InCatalogue } from '../../renderInStudio';
import { StepDialog } from './StepDialog';
import type { Step } from '../../components/stepEdits';
import type { Change, usePictureEdit } from './usePictureEdit';

afterEach(cleanup);

const kind = (
  name: Step['kind'],
  word: string,
  film: number | null,
  minutes: number,
): Schemas['KindOut'] => ({
  kind: name,
  word,
  does: `what a ${word} does`,
  needs: 'paintable',
  usual_film_um: film,
  usual_minutes: minutes,
  splittable: film === null,
  section: film !== null,
});

const KINDS = [
  kind('glaze', 'glaze', 40, 40),
  kind('pass', 'pass', 80, 90),
  kind('drawing', 'drawing', null, 60),
];

const material = (id: string, name: string, word: string): Schemas['MaterialDoc'] => ({
  id,
  name,
  kind: word,
  solids: 0.4,
  water: 0.55,
  glycol: 0.05,
});

const begin = (step: Partial<Step> & Pick<Step, 'kind'>, place: number) => ({
  place,
  step: { id: '', hands_on_min: 0, ...step },
});

const BEGINS: Schemas['UsualStep'][] = [
  // On a large picture each takes longer than its kind does on a small one.
  begin(
    { kind: 'glaze', hands_on_min: 120, mix: [{ material: 'pv19', parts: 1 }], share_of_area: 1 },
    0,
  ),
  begin(
    {
      kind: 'pass',
      hands_on_min: 420,
      mix: [{ material: 'liquid', parts: 2 }],
      share_of_area: 0.5,
    },
    0,
  ),
  begin({ kind: 'drawing', hands_on_min: 305 }, 0),
];

const SHELF = [material('liquid', 'Glazing liquid', 'medium'), material('pv19', 'PV19', 'paint')];

function open(step: Step) {
  const edit = vi.fn<(label: string, change: Change, done?: () => void) => void>();
  const edits = { edit, pending: false, refusal: undefined, forget: vi.fn() };
  render(
    <StepDialog
      step={step}
      index={step.id ? 0 : -1}
      count={1}
      others={[]}
      kinds={KINDS}
      begins={BEGINS}
      materials={SHELF}
      zone="Europe/Oslo"
      edits={edits as unknown as ReturnType<typeof usePictureEdit>}
      onClose={vi.fn()}
    />,
    { wrapper: InCatalogue },
  );
  const kept = (): Step => {
    const [, change] = edit.mock.calls.at(-1) ?? [];
    const made = change?.({ id: 'p', title: 'p', width_cm: 1, height_cm: 1, steps: [] });
    if (made instanceof Promise) throw new Error('putting a step in asks nobody');
    const [first] = made?.steps ?? [];
    if (!first) throw new Error('no step was kept');
    return first;
  };
  return { edit, kept };
}

const fill = (label: string, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });

describe('a step', () => {
  it('begins as the studio begins one of its kind', () => {
    const { kept } = open({ id: '', kind: 'glaze', hands_on_min: 0 });
    fireEvent.click(screen.getByRole('button', { name: 'Add it' }));
    expect(kept()).toMatchObject({
      kind: 'glaze',
      wet_film_um: 40,
      hands_on_min: 120,
      mix: [{ material: 'pv19', parts: 1 }],
      share_of_area: 1,
    });
  });

  it('of another kind takes the usual film, cup and area of that kind, or none', () => {
    const { kept } = open({ id: '', kind: 'glaze', hands_on_min: 0 });
    fireEvent.mouseDown(screen.getByRole('combobox', { name: /What happens/ }));
    fireEvent.click(within(screen.getByRole('listbox')).getByText('Pass'));
    fireEvent.click(screen.getByRole('button', { name: 'Add it' }));
    expect(kept()).toMatchObject({
      mix: [{ material: 'liquid', parts: 2 }],
      share_of_area: 0.5,
      wet_film_um: 80,
    });
    fireEvent.mouseDown(screen.getByRole('combobox', { name: /What happens/ }));
    fireEvent.click(within(screen.getByRole('listbox')).getByText('Drawing'));
    expect(screen.queryByLabelText('Wet film, µm')).toBeNull();
    fireEvent.click(screen.getByRole('button', { name: 'Add it' }));
    expect(kept()).toMatchObject({ kind: 'drawing', hands_on_min: 305, mix: [] });
    expect(kept().wet_film_um).toBeUndefined();
  });

  it('is not kept with a film of nothing, a mix of nothing, or a word for a number', () => {
    const { edit } = open({ id: 's1', kind: 'glaze', hands_on_min: 40, wet_film_um: 40 });
    const keep = screen.getByRole<HTMLButtonElement>('button', { name: 'Keep' });
    for (const [label, bad, good] of [
      ['Wet film, µm', '0', '40'],
      ['Wet film, µm', '-3', '40'],
      ['Parts', '0', '1'],
      ['Parts', 'some', '1'],
      ['Hands-on, min', '', '40'],
    ] as const) {
      fill(label, bad);
      expect(keep.disabled, `${label} ${bad}`).toBe(true);
      fill(label, good);
      expect(keep.disabled).toBe(false);
    }
    expect(edit).not.toHaveBeenCalled();
  });

  it('keeps what it does not show, and a comma is a point', () => {
    const { kept } = open({
      id: 's1',
      kind: 'glaze',
      hands_on_min: 40,
      wet_film_um: 40,
      after: ['s0'],
      laid_at: '2027-01-14T10:00:00Z',
      mix: [{ material: 'liquid', parts: 9 }],
    });
    fill('Wet film, µm', '37,5');
    fireEvent.click(screen.getByRole('button', { name: 'Add a part' }));
    fireEvent.click(screen.getByRole('button', { name: 'Keep' }));
    expect(kept()).toMatchObject({
      wet_film_um: 37.5,
      after: ['s0'],
      laid_at: '2027-01-14T10:00:00Z',
      mix: [
        { material: 'liquid', parts: 9 },
        { material: 'pv19', parts: 1 },
      ],
    });
  });
});
