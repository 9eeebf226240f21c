import { ThemeProvider } from '@mui/material/styles';
import { cleanup, fireEvent, render as plainRender, screen } from '@testing-library/react';
import type { ReactElement } from 'react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Schemas } from '../api/client';
import { makeTheme } from '../theme/theme';
import { Core } from './Core';
import { layers, sampleAt } from './geometry';
import { InCatalogue } from '../renderInStudio';
import { Strata } from './Strata';

afterEach(cleanup);

const render = (figure: ReactElement) =>
  plainRender(<ThemeProvider theme={makeTheme('light')}>{figure}</ThemeProvider>, {
    wrapper: InCatalogue,
  });

const T0 = Date.parse('2027-01-14T10:00:00Z');
const iso = (min: number) => new Date(T0 + min * 60_000).toISOString();

const states = {
  setting_at: null,
  touch_dry_at: null,
  paintable_at: null,
  dry_through_at: null,
  ready_to_seal_at: null,
};

const coat = (title: string, min: number, planned = false): Schemas['CoatOut'] => ({
  step: title,
  title,
  name: title,
  section: null,
  seals: false,
  planned,
  on_top: false,
  laid_at: iso(min),
  wet_um: 80,
  swatch: '#803c22',
  states,
  if_left: states,
  followed: true,
  likely: null,
  seal_from: null,
  paint_to_come: false,
});

const strata = {
  now: iso(100),
  outlook: { coats: [coat('tone', 0), coat('glaze', 60), coat('varnish', 600, true)] },
  absorbs_um: 12,
  untold: [],
  face: [
    { place: 'lights', seen: ['#e2e2e2', '#c0a090', '#c0a090'] },
    { place: 'darks', seen: ['#3b3b3b', '#382820', '#382820'] },
  ],
  sessions: [{ from: iso(30), to: iso(120) }],
  frames: [0, 30, 60, 60, 300, 600, 600, 900].map(iso),
  films: [
    {
      from: 0,
      um: [80, 40, 38, 39, 36, 36, 36, 36],
      state: [
        'workable',
        'setting',
        'paintable',
        'paintable',
        'dry_through',
        'dry_through',
        'dry_through',
        'ready_to_seal',
      ],
    },
    {
      from: 3,
      um: [40, 20, 18, 18, 18],
      state: ['workable', 'paintable', 'paintable', 'dry_through', 'dry_through'],
    },
    { from: 6, um: [45, 15], state: ['workable', 'paintable'] },
  ],
} as unknown as Schemas['Strata'];

const all = layers(strata);

function draw(cursor: number, onCursor = vi.fn<(t: number) => void>()) {
  render(
    <Strata
      strata={strata}
      coats={strata.outlook.coats}
      all={all}
      zone="Europe/Oslo"
      now={T0 + 100 * 60_000}
      cursor={cursor}
      onCursor={onCursor}
      mode="even"
      width={900}
      height={380}
      spoken="Glaze is paintable."
    />,
  );
  return onCursor;
}

describe('strata', () => {
  it('are a slider that says its verdict', () => {
    draw(T0);
    const slider = screen.getByRole('slider', { name: 'Film of the picture over time' });
    expect(slider.getAttribute('aria-valuetext')).toBe('Glaze is paintable.');
    expect(slider.getAttribute('aria-valuemax')).toBe('7');
  });

  it('go from coat to coat, to both ends and a little on by keys', () => {
    const onCursor = draw(T0 + 90 * 60_000);
    const slider = screen.getByRole('slider');
    const after = (key: string, shiftKey = false) => {
      fireEvent.keyDown(slider, { key, shiftKey });
      return ((onCursor.mock.calls.at(-1)?.[0] ?? NaN) - T0) / 60_000;
    };
    expect(after('ArrowRight', true)).toBe(600);
    expect(after('ArrowLeft', true)).toBe(60);
    expect(after('Home')).toBe(0);
    expect(after('End')).toBe(900);
    const little = after('ArrowRight');
    expect(little).toBeGreaterThan(90);
    expect(little).toBeLessThan(100);
    fireEvent.keyDown(slider, { key: 'x' });
    expect(onCursor).toHaveBeenCalledTimes(5);
  });

  it('show what is seen from the front after each coat', () => {
    draw(T0);
    expect(screen.getByText('After Glaze over the lights: #c0a090')).toBeTruthy();
    expect(screen.getByText('After Glaze over the darks: #382820')).toBeTruthy();
  });

  it('name every coat, and the moment of the cursor', () => {
    draw(T0 + 100 * 60_000);
    for (const said of ['Tone', 'Glaze', 'Varnish', 'now 12:40']) {
      expect(screen.getByText(said)).toBeTruthy();
    }
  });
});

describe('the core', () => {
  const core = (t: number) =>
    render(
      <Core
        coats={strata.outlook.coats}
        sample={sampleAt(all, t)}
        absorbs={12}
        width={290}
        height={380}
      />,
    );

  it('names the coats there are at that moment with their states', () => {
    const { container } = core(T0 + 100 * 60_000);
    expect(container.textContent).toContain('Glazeworkable');
    expect(container.textContent).toContain('Tonepaintable');
    expect(container.textContent).not.toContain('Varnish');
    expect(container.textContent).toContain('Primed canvas');
  });

  it('is bare ground before the first coat', () => {
    expect(core(T0 - 1).container.textContent).toBe('Primed canvas');
  });

  it('counts the coats it has no room to name', () => {
    const many = Array.from({ length: 60 }, (_, i) => coat(`c${i}`, i));
    const sample = many.map((_, i) => ({ coat: i, um: 20, state: 'dry_through' as const }));
    const { container } = render(
      <Core coats={many} sample={sample} absorbs={0} width={290} height={380} />,
    );
    expect(container.textContent).toMatch(/C59/);
    expect(container.textContent).toMatch(/and 4\d more below/);
  });
});
