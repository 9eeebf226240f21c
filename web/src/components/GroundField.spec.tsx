import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Schemas } from '../api/client';
import { catalogue, InCatalogue } from '../renderInStudio';
import { GroundField } from './GroundField';

afterEach(cleanup);

const canvas = catalogue.grounds.find((g) => g.said === 'Primed canvas')?.ground;

function open(ground: Schemas['GroundDoc']) {
  const onChange = vi.fn<(ground: Schemas['GroundDoc']) => void>();
  render(
    <InCatalogue>
      <GroundField ground={ground} onChange={onChange} />
    </InCatalogue>,
  );
  return onChange;
}

describe('what a picture is painted on', () => {
  it('is a usual ground where nothing else is said', () => {
    open({ absorbs_um: 12, colour: '#996633' });
    expect(screen.getByRole('combobox').textContent).toBe('Primed canvas');
  });

  it('says that it has times of its own, and becomes the usual one with all of its numbers', () => {
    const onChange = open({ absorbs_um: 12, delay_s: 900, colour: '#996633' });
    expect(screen.getByRole('combobox').textContent).toBe('Primed canvas, own times');
    fireEvent.mouseDown(screen.getByRole('combobox'));
    fireEvent.click(screen.getByRole('option', { name: 'Primed canvas' }));
    expect(onChange).toHaveBeenCalledWith({ ...canvas, colour: '#996633' });
  });
});
