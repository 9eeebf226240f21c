import { act, renderHook } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { Schemas } from '../../api/client';
import { boardOf, matches } from './search';
import { useMaterialDraft } from './useMaterialDraft';
import { soundWayStep, wayStepDraft, wayStepsMade } from './wayDraft';

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
    const { result } = renderHook(() => useMaterialDraft(paint, 22.4, NOW));
    expect(result.current.wrong).toEqual({});
    expect(result.current.made()).toMatchObject({ ...paint, swatch: '#8d8d8d' });
  });

  it('is counted anew from now when its stock is changed', () => {
    const { result } = renderHook(() => useMaterialDraft(paint, 22.4, NOW));
    act(() => result.current.change({ stock: '18,5' }));
    expect(result.current.made().stock).toEqual({ ml: 18.5, at: '2027-01-14T16:34:00.000Z' });
  });

  it('says at once what does not sum up', () => {
    const { result } = renderHook(() => useMaterialDraft(paint, null, NOW));
    act(() => result.current.setNumber('water', '80'));
    expect(result.current.wrong.sum).toBe(
      'Solids, water and slow volatile must sum to 100 %, not 121 %.',
    );
    act(() => result.current.setNumber('density_g_ml', 'much'));
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

  it('lets no step stand on one that was taken out', () => {
    const first = wayStepDraft({ id: 's1', kind: 'drawing', hands_on_min: 60 });
    const [, kept] = wayStepsMade([first, wayStepDraft(glaze)]);
    expect(kept?.after).toEqual(['s1']);
    expect(wayStepsMade([wayStepDraft(glaze)])[0]?.after).toBeUndefined();
  });

  it('wants a film and parts where there is a mix, and none where there is not', () => {
    const draft = wayStepDraft(glaze);
    expect(soundWayStep(draft)).toBe(true);
    expect(soundWayStep({ ...draft, film: '' })).toBe(false);
    expect(soundWayStep({ ...draft, mix: [{ material: 'glazing', parts: '0' }] })).toBe(false);
    expect(soundWayStep(wayStepDraft({ id: 's1', kind: 'drawing', hands_on_min: 0 }))).toBe(true);
  });
});
