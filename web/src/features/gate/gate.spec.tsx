import { ThemeProvider } from '@mui/material/styles';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import { createMemoryRouter, RouterProvider } from 'react-router';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Schemas } from '../../api/client';
import { waiting } from '../../api/waiting';
import { StudioContext } from '../../components/currentStudio';
import { InCatalogue } from '../../renderInStudio';
import { makeTheme } from '../../theme/theme';
import { AirBox } from './AirBox';
import { BenchView } from './BenchView';
import { GateView } from './GateView';
import { PhotographsView } from './PhotographsView';
import { Sealing } from './Sealing';
import { VarnishView } from './VarnishView';

const NOW = '2027-01-14T16:34:00Z';

const choice: Schemas['ChoiceDoc'] = {
  carrier: 'water_borne',
  finish: 'gloss',
  purpose: 'hung',
  coats: 2,
  isolation: false,
  strokes: 'follow_paint',
  edge_cm: 2,
};

const condition = (
  id: Schemas['ConditionOut']['id'],
  standing: Schemas['ConditionOut']['standing'],
  from: string | null = null,
): Schemas['ConditionOut'] => ({
  id,
  standing,
  from,
  asks: `asks ${id}`,
  lacks: `lacks ${id}`,
  evidence: `why ${id}`,
});

const trouble: Schemas['TroubleOut'] = {
  trouble: 'drip',
  looks_like: 'a run',
  while_wet: 'Take it up once.',
  when_set: 'Do not pick it off.',
};

function gate(more: Partial<Schemas['GateOut']> = {}): Schemas['GateOut'] {
  const conditions = more.conditions ?? [condition('surface', 'yours')];
  const against = conditions.filter((c) => c.standing !== 'holds');
  return {
    now: NOW,
    time_zone: 'UTC',
    version: 3,
    brief: {
      picture: 'p',
      title: 'Lamp row',
      stage: against.length > 0 ? 'closed' : 'open',
      coat: 'Varnish 2',
      between: true,
      against,
      earliest: { from: '2027-01-14T16:44:00Z', to: '2027-01-14T17:09:00Z' },
    },
    step: 's2',
    conditions,
    forward: [],
    choice,
    purposes: [{ purpose: 'handled', coats: 5 }],
    habit_isolation: false,
    sheet: {
      preparation: [{ what: 'Shut the dust out.', care: false }],
      application: [{ what: 'Mind the waste water.', care: true }],
      inspection: [trouble],
      stop_after_min: 10,
      touch_dry_min: 14,
    },
    sealed: [
      {
        step: 's1',
        title: 'Varnish 1',
        at: '2027-01-13T16:00:00Z',
        setting_at: '2027-01-13T16:10:00Z',
      },
    ],
    advice: [trouble],
    anyway: [],
    troubles: [],
    packing: [],
    removal: '',
    photographs: [],
    ...more,
  };
}

const picture = {
  id: 'p',
  studio: 's',
  version: 3,
  history: { undo: null, redo: null },
  picture: { id: 'p', title: 'Lamp row', width_cm: 24, height_cm: 30, steps: [] },
};

const air: Schemas['AirAhead'] = {
  now: NOW,
  time_zone: 'UTC',
  version: 1,
  history: { undo: null, redo: null },
  source: 'constant',
  room: { held_c: 20.5, warmer_k: 3, lag_h: 12, changes_per_h: 0.5, moisture_g_m3_h: 1.2 },
  wanted_c: { low: 18, high: 24 },
  wanted_rh: { low: 0.3, high: 0.65 },
  hours: Array.from({ length: 48 }, (_, h) => ({
    at: new Date(Date.parse('2027-01-14T16:00:00Z') + h * 3_600_000).toISOString(),
    temperature_c: 20,
    relative_humidity: h < 24 ? 0.5 : 0.75,
    fit: h < 24,
    open: h % 24 < 4,
  })),
  days: [
    {
      day: '2027-01-14',
      good: [{ from: NOW, to: '2027-01-14T20:00:00Z' }],
      open_min: 206,
      remedies: [],
    },
    {
      day: '2027-01-15',
      good: [],
      open_min: 240,
      fault: '75 % is too damp',
      remedies: ['heating to 23 °C', 'a dehumidifier to 60 %'],
    },
    { day: '2027-01-16', good: [], open_min: 0, remedies: [] },
  ],
};

let sent: { path: string; body: unknown }[] = [];

/** Opens a page of sealing; `answers` are given to what is sent, the last one again and again. */
function open(
  page: string,
  of: Schemas['GateOut'],
  answers: Record<string, [number, unknown]> = {},
) {
  sent = [];
  vi.stubGlobal('fetch', async (request: Request) => {
    const { pathname } = new URL(request.url);
    const last = pathname.split('/').at(-1) ?? '';
    const told = answers[last];
    if (request.method !== 'GET') {
      const text = await request.clone().text();
      sent.push({ path: last, body: text.startsWith('{') ? JSON.parse(text) : text });
    }
    const outlook = { pictures: [] };
    const read: Record<string, unknown> = { gate: of, air, p: picture, photographs: [], outlook };
    const [status, body] = told ?? [200, read[last] ?? picture];
    // An entry knows its own answer by the id that it carried.
    const headers = new Headers({ 'content-type': 'application/json' });
    headers.set('idempotency-key', request.headers.get('idempotency-key') ?? '');
    return new Response(JSON.stringify(body), { status, headers });
  });
  const router = createMemoryRouter(
    [
      {
        path: '/pictures/:id',
        Component: Sealing,
        children: [
          { path: 'gate', Component: GateView },
          { path: 'bench', Component: BenchView },
          { path: 'varnish', Component: VarnishView },
          { path: 'photographs', Component: PhotographsView },
        ],
      },
      { path: '/air', Component: AirBox },
    ],
    { initialEntries: [page === 'air' ? '/air' : `/pictures/p/${page}`] },
  );
  render(
    <QueryClientProvider
      client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}
    >
      <ThemeProvider theme={makeTheme('light')}>
        <StudioContext value={{ id: 's', choose: vi.fn() }}>
          <InCatalogue>
            <RouterProvider router={router} />
          </InCatalogue>
        </StudioContext>
      </ThemeProvider>
    </QueryClientProvider>,
  );
}

const refuse = (path: string, detail: string): [number, unknown] => [
  422,
  { type: 'urn:ulvek:problem:refused', title: 'Input refused', status: 422, path, detail },
];

beforeEach(() => {
  localStorage.clear();
  vi.stubGlobal(
    'ResizeObserver',
    class {
      observe = vi.fn();
      disconnect = vi.fn();
    },
  );
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

describe('the gate of a picture', () => {
  it('gives each condition its standing in words, its evidence and its time', async () => {
    open(
      'gate',
      gate({
        conditions: [
          condition('cure', 'waits', '2027-01-16T10:00:00Z'),
          condition('product', 'against'),
          condition('photograph', 'missed'),
          condition('signature', 'holds', '2027-01-10T10:00:00Z'),
        ],
        forward: [{ what: 'A warmer room', risk: 'It skins.', earliest: NOW, gain_min: 2880 }],
      }),
    );
    const list = await screen.findByRole('list', { name: 'Conditions' });
    const rows = within(list)
      .getAllByRole('listitem')
      .map((row) => row.textContent);
    expect(rows).toEqual([
      'asks cure (waits)why curefrom Saturday 10:00',
      'asks product (against it)why product',
      'asks photograph (missed)why photograph',
      'asks signature (holds)why signaturesince Sun 10 Jan, 10:00',
    ]);
    expect(screen.getByText(/2 days earlier/)).toBeTruthy();
    expect(screen.getByText(/Risk: It skins/)).toBeTruthy();
  });

  it('takes the word that it was looked over, on the version it saw', async () => {
    open('gate', gate());
    fireEvent.click(await screen.findByRole('button', { name: 'Dusted and looked over' }));
    await waitFor(() => expect(sent).toEqual([{ path: 'inspected', body: { version: 3 } }]));
  });

  it('offers no looking over while coats are still to come', async () => {
    open(
      'gate',
      gate({ conditions: [condition('last_coat', 'yours'), condition('surface', 'yours')] }),
    );
    await screen.findByRole('list', { name: 'Conditions' });
    expect(screen.queryByRole('button', { name: 'Dusted and looked over' })).toBeNull();
  });
});

describe('the bench', () => {
  it('lets a coat through a closed gate only with a reason, and says why it is refused', async () => {
    open('bench', gate(), { laid: refuse('anyway', 'anyway: the gate is closed (asks air)') });
    const seal = await screen.findByRole<HTMLButtonElement>('button', { name: /^Seal anyway/ });
    expect(seal.disabled).toBe(true);
    fireEvent.change(screen.getByLabelText('Why you seal it anyway'), {
      target: { value: ' late ' },
    });
    fireEvent.click(seal);
    expect(await screen.findByText('The gate is closed (asks air).')).toBeTruthy();
    const at = expect.any(String) as string;
    expect(sent).toEqual([{ path: 'laid', body: { version: 3, step: 's2', at, anyway: 'late' } }]);
    expect(waiting(), 'the form is open: nothing is left behind').toEqual([]);
  });

  it('logs through an open gate without one, at the moment it is entered', async () => {
    open('bench', gate({ conditions: [condition('cure', 'holds', NOW)] }));
    fireEvent.click(await screen.findByRole('button', { name: 'The coat is on' }));
    const at = expect.any(String) as string;
    await waitFor(() =>
      expect(sent).toEqual([{ path: 'laid', body: { version: 3, step: 's2', at } }]),
    );
    const entered = sent[0]?.body as { at: string };
    expect(Math.abs(Date.parse(entered.at) - Date.now())).toBeLessThan(60_000);
  });

  it('says what to do about a drip that has set, and what it changed', async () => {
    open('bench', gate(), { troubles: [200, { version: 4, changed: ['Varnish 2 waits.'] }] });
    fireEvent.click(await screen.findByRole('button', { name: 'Trouble found on Varnish 1' }));
    fireEvent.click(screen.getByRole('button', { name: 'A drip' }));
    const said = await screen.findByRole('status');
    expect(said.textContent).toContain('Do not pick it off.');
    expect(said.textContent).toContain('Varnish 2 waits.');
  });
});

describe('the varnish plan', () => {
  it('takes the usual coats of a purpose and shows a refusal at its field', async () => {
    open('varnish', gate(), { preview: refuse('choice.finish', 'choice.finish: no such varnish') });
    fireEvent.click(await screen.findByRole('radio', { name: 'It is handled' }));
    expect(screen.getByLabelText<HTMLSelectElement>(/Varnish coats/).value).toBe('5');
    expect(await screen.findByText('No such varnish.')).toBeTruthy();
    const settle = screen.getByRole<HTMLButtonElement>('button', { name: /^Settle/ });
    expect(settle.disabled).toBe(true);
  });
});

describe('photographs', () => {
  it('says why a file was not kept', async () => {
    open('photographs', gate(), { photographs: refuse('', 'the picture is damaged') });
    const file = new File(['MZ'], 'lamp.jpg', { type: 'image/jpeg' });
    fireEvent.change(await screen.findByLabelText('Photograph'), { target: { files: [file] } });
    expect(await screen.findByText('It was not kept: the picture is damaged.')).toBeTruthy();
  });
});

describe('the air ahead', () => {
  it('says each day good hours, or what is wrong and what would help', async () => {
    open('air', gate());
    const days = await screen.findAllByRole('listitem');
    expect(days.map((day) => day.textContent)).toEqual([
      'Thursday 14 Januarygood 16:34 to 20:00',
      'Friday 15 January75 % is too damp. It would fit with heating to 23 °C; or a dehumidifier to 60 %.',
      'Saturday 16 Januaryno hours',
    ]);
  });

  it('sends the room as typed and shows a refusal of the readings', async () => {
    open('air', gate(), {});
    fireEvent.change(await screen.findByLabelText('Heated to, °C'), { target: { value: '' } });
    fireEvent.change(screen.getByLabelText('Follows in, h'), { target: { value: '3,5' } });
    fireEvent.click(screen.getByRole('button', { name: 'Take in the forecast' }));
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]?.body).toMatchObject({
      version: 1,
      source: 'forecast',
      room: { held_c: null, lag_h: 3.5 },
    });
    fireEvent.change(screen.getByLabelText('Follows in, h'), { target: { value: 'soon' } });
    const take = screen.getByRole<HTMLButtonElement>('button', { name: 'Take in the forecast' });
    expect(take.disabled).toBe(true);
  });
});
