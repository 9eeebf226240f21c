import { act, renderHook } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { Schemas } from '../../api/client';
import { boardOf, matches } from './search';
import { catalogue, InCatalogue } from '../../renderInStudio';
import { useMaterialDraft } from './useMaterialDraft';
import { soundMix, wayStepDraft, wayStepFault, wayStepsMade } from './wayDraft';

const paint: Schemas['MaterialDoc'] = {
  id: 'fluid-pv19',
  name: 'Quinacridone PV19, fluid',
  kind: 'paint',
  line: 'fluid',
  opacity: 'transparent',
  pigments: ['PV19'],
  solids: 0.36,
  water: 0.59,
  glycol: 0.05,
  density_g_ml: 1.18,
  stock: { ml: 30, at: '2027-01-01T10:00:00Z' },
};
const NOW = Date.parse('2027-01-14T16:34:00Z');

describe('the shelf', () => {
  it('is searched by every word: pigment, line, finish', () => {
    expect(matches(paint, 'pv19 fluid')).toBe(true);
    expect(matches(paint, 'TRANSPARENT')).toBe(true);
    expect(matches(paint, 'pv19 heavy')).toBe(false);
    expect(matches(paint, '')).toBe(true);
  });

  it('has a board for everything', () => {
    expect(boardOf('solvent_varnish')).toBe('Varnishes');
    expect(boardOf('moonlight')).toBe('Other');
  });
});

describe('a material while it is edited', () => {
  it('comes back as it was when nothing was touched', () => {
    const { result } = renderHook(() => useMaterialDraft(paint, 22.4, NOW), {
      wrapper: InCatalogue,
    });
    expect(result.current.wrong).toEqual({});
    expect(result.current.made()).toMatchObject({ ...paint, swatch: '#8d8d8d' });
  });

  it('is counted anew from now when its stock is changed', () => {
    const { result } = renderHook(() => useMaterialDraft(paint, 22.4, NOW), {
      wrapper: InCatalogue,
    });
    act(() => result.current.numbers.set('stock', '18,5'));
    expect(result.current.made().stock).toEqual({ ml: 18.5, at: '2027-01-14T16:34:00.000Z' });
  });

  it('says at once what does not sum up', () => {
    const { result } = renderHook(() => useMaterialDraft(paint, null, NOW), {
      wrapper: InCatalogue,
    });
    act(() => result.current.numbers.set('water', '80'));
    expect(result.current.wrong.sum).toBe(
      'Solids, water, slow volatile and spirit must sum to 100 %, not 121 %.',
    );
    act(() => result.current.numbers.set('density_g_ml', 'much'));
    expect(result.current.wrong.density_g_ml).toBeDefined();
  });
});

describe('a way of working while it is edited', () => {
  const glaze: Schemas['StepDoc'] = {
    id: 's2',
    kind: 'glaze',
    hands_on_min: 40,
    wet_film_um: 40,
    mix: [{ material: 'glazing', parts: 9 }],
    after: ['s1'],
  };

  it('comes back as it was when nothing was touched', () => {
    expect(wayStepsMade([wayStepDraft(glaze)])).toEqual([
      { ...glaze, earliest_gap_min: undefined },
    ]);
  });

  it('wants a film and parts where there is a mix, and none where there is not', () => {
    const draft = wayStepDraft(glaze);
    expect(soundMix(draft)).toBe(true);
    expect(soundMix({ ...draft, mix: [{ material: 'glazing', parts: '0' }] })).toBe(false);
    expect(wayStepFault(catalogue, draft, 'film')).toBeUndefined();
    expect(wayStepFault(catalogue, { ...draft, film: '' }, 'film')).toMatch(/must be a number/);
    const drawing = wayStepDraft({ id: 's1', kind: 'drawing', hands_on_min: 0 });
    expect(wayStepFault(catalogue, drawing, 'film')).toBeUndefined();
  });
});
