import { ThemeProvider } from '@mui/material/styles';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { createMemoryRouter, Outlet, RouterProvider } from 'react-router';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Schemas } from '../../api/client';
import { makeTheme } from '../../theme/theme';
import { RecordView } from './RecordView';

const sheet = (more: Partial<Schemas['RecordDoc']> = {}): Schemas['RecordDoc'] => ({
  format: 'ulvek.record/1',
  written_at: '2027-01-14T17:34:00+01:00',
  studio: 'North-light room',
  title: 'Fog lamp at four',
  width_cm: 24,
  height_cm: 36,
  ground: 'primed canvas',
  begun_at: '2026-11-06T03:34:00+01:00',
  finished_at: '2027-01-11T14:34:00+01:00',
  to_come: [],
  work: [
    {
      at: '2026-11-06T03:34:00+01:00',
      title: 'tone',
      seals: false,
      wet_film_um: 45,
      mix: '67 % Yellow ochre PY42, 33 % Matte medium',
    },
    { at: '2026-12-01T21:34:00+01:00', title: 'Varnish 1', seals: true, wet_film_um: 45, mix: '' },
  ],
  materials: [
    { name: 'Cadmium red', kind: 'paint', pigments: ['PR108'], hazards: 'Never sand it dry.' },
  ],
  removal: 'The varnish stays.',
  anyway: [],
  troubles: [],
  set_aside: [],
  photographs: [
    { id: 'f1', taken_at: '2026-11-29T21:34:00+01:00', caption: 'For the list', step: null },
  ],
  ...more,
});

function open(record: Schemas['RecordDoc']) {
  vi.stubGlobal('fetch', () =>
    Promise.resolve(
      new Response(JSON.stringify(record), { headers: { 'content-type': 'application/json' } }),
    ),
  );
  const context = { id: 'p', zone: 'Europe/Oslo' };
  const router = createMemoryRouter([
    {
      path: '/',
      Component: () => <Outlet context={context} />,
      children: [{ index: true, Component: RecordView }],
    },
  ]);
  render(
    <QueryClientProvider
      client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}
    >
      <ThemeProvider theme={makeTheme('light')}>
        <RouterProvider router={router} />
      </ThemeProvider>
    </QueryClientProvider>,
  );
}

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

describe('the record sheet', () => {
  it('says with the year what was done, with what, and how the varnish comes off', async () => {
    open(sheet());
    const done = await screen.findByRole('region', { name: 'What was done' });
    const rows = within(done)
      .getAllByRole('row')
      .map((row) => row.textContent);
    expect(rows[1]).toBe('Fri 6 Nov 2026, 03:34Tone67 % Yellow ochre PY42, 33 % Matte medium45 µm');
    expect(screen.getByText('The varnish stays.')).toBeTruthy();
    expect(screen.getByText(/Finished Mon 11 Jan 2027, 14:34/)).toBeTruthy();
    const materials = screen.getByRole('region', { name: 'Materials' });
    expect(materials.textContent).toContain('Cadmium red, paint, PR108. Never sand it dry.');
    const image = screen.getByRole<HTMLImageElement>('img', { name: 'For the list' });
    expect(image.src).toContain('/api/photographs/f1/small');
  });

  it('says what is still to come, and keeps what the painter decided against the gate', async () => {
    const at = '2027-01-14T17:34:00+01:00';
    open(
      sheet({
        to_come: ['Varnish 2'],
        anyway: [{ at, on: 'Varnish 1', what: 'Laid although not: The film is cured' }],
      }),
    );
    expect(await screen.findByText(/Not finished yet. Still to come: Varnish 2/)).toBeTruthy();
    expect(screen.queryByText(/Finished Mon/)).toBeNull();
    expect(screen.getByText(/Varnish 1: Laid although not: The film is cured/)).toBeTruthy();
  });

  it('is printed, and kept as a file', async () => {
    const print = vi.fn();
    vi.stubGlobal('print', print);
    open(sheet());
    fireEvent.click(await screen.findByRole('button', { name: 'Print it' }));
    expect(print).toHaveBeenCalledOnce();
    const file = screen.getByRole<HTMLAnchorElement>('link', { name: /open file/ });
    expect(file.getAttribute('href')).toBe('/api/pictures/p/record?file=true');
  });
});
