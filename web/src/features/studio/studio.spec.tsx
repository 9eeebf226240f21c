import { cleanup, fireEvent, render, renderHook, screen } from '@testing-library/react';
import { act } from 'react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Schemas } from '../../api/client';
import { HoursEditor } from './HoursEditor';
import { InCatalogue } from '../../renderInStudio';
import { useStudioForm, type Given } from './useStudioForm';

afterEach(cleanup);

const GIVEN: Given = {
  studio: {
    name: 'Test room',
    time_zone: 'Europe/Oslo',
    hours: [{ day: 'sat', from: '10:00', to: '16:00' }],
    flat_places: 2,
    setup_min: 10,
    missed_sessions: 0.2,
  },
  air: {
    version: 6,
    usual: { temperature_c: 20.4, relative_humidity: 0.47, air_speed_m_s: 0.15 },
  },
};

describe('the settings of a studio', () => {
  it('come back as they were, the room on the version it was read', () => {
    const { result } = renderHook(() => useStudioForm(GIVEN), { wrapper: InCatalogue });
    expect(result.current.changed).toBe(false);
    const made = result.current.made();
    expect(made.air).toEqual(GIVEN.air);
    expect(made.studio).toMatchObject(GIVEN.studio);
    act(() => result.current.numbers.set('missed', ''));
    expect(result.current.made().studio.missed_sessions).toBeUndefined();
  });

  it('are not kept with half a place, no name, or a number outside of its range', () => {
    const { result } = renderHook(() => useStudioForm(GIVEN), { wrapper: InCatalogue });
    act(() => {
      result.current.change({ flat_places: '1.5', name: ' ' });
      result.current.numbers.set('humidity', '140');
      result.current.numbers.set('temperature', '');
    });
    expect(result.current.wrong).toMatchObject({
      humidity: 'Relative humidity must be from 0 to 100 %, not 140 %.',
      temperature: 'Temperature must be a number.',
    });
    expect(Object.keys(result.current.wrong).sort()).toEqual([
      'humidity',
      'studio.flat_places',
      'studio.name',
      'temperature',
    ]);
    act(() => result.current.reset());
    expect(result.current.wrong).toEqual({});
  });

  it('are filled anew after an undo, and count as unchanged then', () => {
    const other = {
      ...GIVEN,
      air: { version: 7, usual: { ...GIVEN.air.usual, relative_humidity: 0.6 } },
    };
    const { result, rerender } = renderHook(({ given }) => useStudioForm(given), {
      initialProps: { given: GIVEN },
      wrapper: InCatalogue,
    });
    act(() => result.current.numbers.set('humidity', '55'));
    expect(result.current.changed).toBe(true);
    rerender({ given: other });
    act(() => result.current.load(other));
    expect(result.current.numbers.texts.humidity).toBe('60');
    expect(result.current.changed).toBe(false);
  });
});

describe('the hours', () => {
  it('are added on a day that has none yet, changed, and taken out', () => {
    const onChange = vi.fn<(hours: Schemas['HourDoc'][]) => void>();
    const hours = [{ day: 'mon', from: '10:00', to: '12:00' }];
    render(<HoursEditor hours={hours} error={() => undefined} onChange={onChange} />);
    fireEvent.click(screen.getByRole('button', { name: 'Add hours' }));
    expect(onChange.mock.lastCall?.[0].at(-1)?.day).toBe('tue');
    fireEvent.change(screen.getByLabelText('To'), { target: { value: '13:30' } });
    expect(onChange).toHaveBeenLastCalledWith([{ day: 'mon', from: '10:00', to: '13:30' }]);
    fireEvent.click(screen.getByRole('button', { name: 'Remove hours 1' }));
    expect(onChange).toHaveBeenLastCalledWith([]);
  });

  it('say what is wrong where it is wrong, and that nothing can be planned without them', () => {
    const said = 'the hours must end after they begin, not run from 12:00 to 10:00';
    const { rerender } = render(
      <HoursEditor
        hours={[{ day: 'mon', from: '12:00', to: '10:00' }]}
        error={(path) => (path === 'studio.hours[0]' ? said : undefined)}
        onChange={vi.fn()}
      />,
    );
    expect(screen.getByText(said)).toBeTruthy();
    rerender(<HoursEditor hours={[]} error={() => undefined} onChange={vi.fn()} />);
    expect(screen.getByText(/nothing can be planned/)).toBeTruthy();
  });
});
