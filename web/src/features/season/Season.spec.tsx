import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Schemas } from '../../api/client';
import { renderInStudio } from '../../renderInStudio';
import { Season } from './Season';

const NOW = '2027-01-14T16:34:00Z';

function picture(extra: Partial<Schemas['SeasonPicture']>): Schemas['SeasonPicture'] {
  return {
    id: 'p',
    version: 3,
    code: 'lamp',
    title: 'Lamp row',
    weight: 1,
    due: '2027-01-20',
    last_hours: null,
    finish: '2027-01-23T12:25:00Z',
    days_late: 3,
    date: {
      standing: 'not_sure',
      short: 'Not sure as planned',
      said: 'Planned ready 23 January; due 20 January.',
    },
    ready_by: 'wrapped',
    earliest: '2027-01-23T12:25:00Z',
    done: false,
    laid: [{ step: 's1', title: 'tone', at: '2027-01-12T10:00:00Z' }],
    work: [
      {
        step: 's2',
        title: 'Varnish 1',
        from: '2027-01-23T12:00:00Z',
        to: '2027-01-23T12:25:00Z',
        sitting: 1,
        of: 1,
        pinned_at: null,
        pin: null,
        waits_for: null,
      },
    ],
    blocked: [],
    film: [
      { at: '2027-01-12T10:00:00Z', um: 45, state: 'workable' },
      { at: '2027-01-13T10:00:00Z', um: 22, state: 'dry_through' },
      { at: '2027-01-25T10:00:00Z', um: 20, state: 'ready_to_seal' },
    ],
    held_by: [
      {
        step: 's2',
        title: 'Varnish 1',
        from: '2027-01-23T12:00:00Z',
        to: '2027-01-23T12:25:00Z',
        because: 'Waits for tone to be ready to seal',
        until: '2027-01-23T08:00:00Z',
        then: 'your next hours',
        idle_min: 240,
      },
    ],
    ...extra,
  };
}

const season = (pictures: Schemas['SeasonPicture'][]): Schemas['Season'] => ({
  now: NOW,
  time_zone: 'Europe/Oslo',
  version: 1,
  until: '2027-02-02T00:00:00Z',
  sessions: [{ from: '2027-01-14T16:00:00Z', to: '2027-01-14T20:00:00Z' }],
  objective: { weighted_days_late: 3, past_tubs: 0, sum_of_finish_min: 9000, set_ups: 4 },
  order: [],
  pictures,
});

const stored = {
  id: 'p',
  studio: 's',
  version: 3,
  history: { undo: null, redo: null },
  picture: {
    id: 'lamp',
    title: 'Lamp row',
    width_cm: 20,
    height_cm: 30,
    steps: [{ id: 's2', kind: 'varnish', hands_on_min: 25 }],
  },
};

const IN_TIME: Schemas['DateOut'] = {
  standing: 'in_time',
  short: 'In time: 9 in 10',
  said: 'Surely ready by 20 January; due 20 January: 9 in 10.',
};

const way = {
  what: 'A fan that moves the room’s air over the work',
  risk: 'It moves dust.',
  harm: 1,
  gain_min: 4320,
  finish: '2027-01-20T12:00:00Z',
  days_late: 0,
  date: IN_TIME,
  others_later: 0,
  draft: { pictures: [] },
};

/** What was sent to the server, and what it answers. */
interface Backend {
  sent: { path: string; body: unknown }[];
  answers: Record<string, { status?: number; body: unknown }>;
}

function backend(): Backend {
  const made: Backend = {
    sent: [],
    answers: {
      'GET /api/studios/s/season': { body: season([picture({})]) },
      'POST /api/studios/s/season/what-if': {
        body: season([picture({ finish: '2027-01-20T12:00:00Z', days_late: 0, date: IN_TIME })]),
      },
      'POST /api/studios/s/season/odds': {
        body: {
          futures: 200,
          pictures: [
            {
              id: 'p',
              date: {
                standing: 'late',
                short: 'Late: 1 in 10',
                said: 'Likely ready 23 January, surely by 27 January; due 20 January: 1 in 10.',
              },
              on_day: 0.12,
              told: '1 in 10',
              beside: 'A day earlier 1 in 20, a day later 3 in 10.',
              day_10: '2027-01-20',
              day_50: '2027-01-23',
              day_90: '2027-01-27',
            },
          ],
        },
      },
      'POST /api/studios/s/season/ways': { body: [way] },
      'POST /api/studios/s/season/accept': {
        body: { pictures: [{ id: 'p', version: 4 }] },
      },
      'GET /api/studios/s/season/search': { body: null },
      'GET /api/pictures/p': { body: stored },
      'GET /api/pictures/p/cause': {
        body: { said: 'Most of all by your hours: it could be ready 3 days sooner.' },
      },
    },
  };
  vi.stubGlobal('fetch', async (request: Request) => {
    const path = `${request.method} ${new URL(request.url).pathname}`;
    if (request.method === 'POST') made.sent.push({ path, body: await request.json() });
    const { status = 200, body } = made.answers[path] ?? { status: 404, body: {} };
    return new Response(JSON.stringify(body), {
      status,
      headers: { 'content-type': status < 400 ? 'application/json' : 'application/problem+json' },
    });
  });
  return made;
}

beforeEach(() => {
  vi.stubGlobal(
    'ResizeObserver',
    class {
      observe = vi.fn();
      disconnect = vi.fn();
    },
  );
  vi.spyOn(HTMLElement.prototype, 'getBoundingClientRect').mockReturnValue({
    width: 900,
  } as DOMRect);
});

afterEach(() => {
  cleanup();
  sessionStorage.clear();
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
});

function open() {
  renderInStudio(<Season />);
}

describe('the season', () => {
  it('says what is late, with its odds, and why', async () => {
    backend();
    open();
    fireEvent.click(await screen.findByRole('button', { name: /^Lamp row.*Late: 1 in 10/ }));
    const said = 'Likely ready 23 January, surely by 27 January; due 20 January: 1 in 10.';
    expect(screen.getByTestId('season-verdict').textContent).toBe(
      `Lamp row will more likely be late than in time. ${said}`,
    );
    const panel = screen.getByRole('region', { name: 'Lamp row' });
    expect(within(panel).getByTestId('date').textContent).toBe(said);
    expect(within(panel).getByTestId('odds').textContent).toBe(
      'A day earlier 1 in 20, a day later 3 in 10.',
    );
    const holds = within(panel).getByRole('region', { name: 'What holds it' });
    expect(holds.textContent).toMatch(
      /Waits for tone to be ready to seal \(\d days\), then for your next hours \(4 h\)\./,
    );
  });

  it('opens a way beside the plan and keeps it, naming what it was made on', async () => {
    const { sent } = backend();
    open();
    fireEvent.click(await screen.findByRole('button', { name: /^Lamp row/ }));
    await screen.findByText(/^Most of all by your hours/);
    fireEvent.click(await screen.findByRole('button', { name: 'Open beside the plan' }));
    const draft = await screen.findByRole('region', { name: 'Draft' });
    await within(draft).findByText('3 days earlier', { exact: false });
    // What holds it most is known of what is kept alone.
    expect(screen.queryByText(/^Most of all by your hours/)).toBeNull();
    expect(draft.textContent).toContain('makes its date');
    fireEvent.click(within(draft).getByRole('button', { name: 'Keep it' }));
    await screen.findByRole('button', { name: /^Undo: Lamp row: A fan/ });
    const kept = sent.find((s) => s.path.endsWith('/accept'));
    expect(kept?.body).toEqual({ label: `Lamp row: ${way.what}`, draft: way.draft });
  });

  it('pins a sitting to a time that is typed', async () => {
    const { sent } = backend();
    open();
    fireEvent.click(await screen.findByRole('button', { name: /^Varnish 1, Sat 23 Jan, 13:00$/ }));
    const panel = screen.getByRole('region', { name: 'Lamp row' });
    const field = within(panel).getByLabelText('Begin at');
    fireEvent.change(field, { target: { value: '' } });
    expect(within(panel).getByText('Give a day and a time.')).toBeTruthy();
    fireEvent.change(field, { target: { value: '2027-01-20T12:15' } });
    fireEvent.click(within(panel).getByRole('button', { name: 'Pin it there' }));
    await screen.findByText('Tried, not kept: pin Varnish 1 to Wed 20 Jan, 12:15');
    await waitFor(() => expect(sent.some((s) => s.path.endsWith('/what-if'))).toBe(true));
    const asked = sent.find((s) => s.path.endsWith('/what-if'))?.body as Schemas['Draft'];
    expect(asked.pictures?.[0]?.version).toBe(3);
    expect(asked.pictures?.[0]?.picture.steps?.[0]?.pinned_at).toBe('2027-01-20T11:15:00.000Z');
  });

  it('says what refused a draft, and loses nothing of it', async () => {
    const { answers } = backend();
    answers['POST /api/studios/s/season/accept'] = {
      status: 409,
      body: {
        type: 'urn:ulvek:problem:conflict',
        title: 'x',
        status: 409,
        detail: 'it was edited elsewhere',
      },
    };
    open();
    fireEvent.click(await screen.findByRole('button', { name: /^Lamp row/ }));
    fireEvent.click(await screen.findByRole('button', { name: 'Open beside the plan' }));
    const draft = await screen.findByRole('region', { name: 'Draft' });
    const keep = within(draft).getByRole<HTMLButtonElement>('button', { name: 'Keep it' });
    await waitFor(() => expect(keep.disabled).toBe(false));
    fireEvent.click(keep);
    expect((await within(draft).findByRole('alert')).textContent).toBe('It was edited elsewhere');
    expect(draft.textContent).toContain('Tried, not kept: Lamp row: A fan');
  });

  it('has a sentence for no pictures, for a fault, and for a step that cannot be placed', async () => {
    const { answers } = backend();
    answers['GET /api/studios/s/season'] = { body: season([]) };
    open();
    expect(await screen.findByText(/No pictures yet/)).toBeTruthy();
    cleanup();
    answers['GET /api/studios/s/season'] = {
      status: 503,
      body: { type: 't', title: 'Away', status: 503, detail: 'The database is away.' },
    };
    open();
    expect(await screen.findByText(/The database is away/)).toBeTruthy();
    cleanup();
    const blocked = [{ step: 's2', title: 'Varnish 1', why: 'there is no flat place' }];
    answers['GET /api/studios/s/season'] = {
      body: season([
        picture({
          blocked,
          work: [],
          held_by: [],
          finish: null,
          days_late: null,
          date: { standing: 'stuck', short: 'Cannot be finished', said: 'It cannot be finished.' },
        }),
      ]),
    };
    open();
    fireEvent.click(
      await screen.findByRole('button', { name: /^Lamp row.*(Cannot be finished|Late)/ }),
    );
    const sittings = screen.getByRole('region', { name: 'Sittings' });
    expect(sittings.textContent).toContain('Varnish 1 cannot be placed: there is no flat place.');
  });
});

describe('the search', () => {
  class Source {
    static last: Source | undefined;
    onerror: (() => void) | undefined;
    closed = false;
    private heard: ((event: MessageEvent<string>) => void) | undefined;
    constructor(readonly url: string) {
      Source.last = this;
    }
    addEventListener(_: string, listener: (event: MessageEvent<string>) => void) {
      this.heard = listener;
    }
    tell(body: unknown) {
      this.heard?.({ data: JSON.stringify(body) } as MessageEvent<string>);
    }
    close() {
      this.closed = true;
    }
  }
  const worth = (late: number, sum: number) => ({
    weighted_days_late: late,
    past_tubs: 0,
    sum_of_finish_min: sum,
    set_ups: 4,
  });
  const search = {
    running: true,
    began: NOW,
    seconds: 60,
    took_s: 12,
    tried: 400,
    start: worth(3, 9000),
    best: worth(3, 9000),
    better: false,
    bound: worth(0, 5000),
    at_bound: false,
    version: 1,
    order: [],
  };

  it('that runs is found again, followed to its end, and its order opened as a draft', async () => {
    vi.stubGlobal('EventSource', Source);
    const { answers, sent } = backend();
    answers['GET /api/studios/s/season/search'] = { body: search };
    answers['GET /api/studios/s'] = {
      body: {
        id: 's',
        version: 1,
        history: { undo: null, redo: null },
        studio: { name: 'Room', time_zone: 'Europe/Oslo' },
        air: { temperature_c: 21, relative_humidity: 0.5 },
        materials: [],
      },
    };
    open();
    const box = await screen.findByRole('region', { name: 'A better order of work' });
    await within(box).findByText(/400 orders tried. None better yet/);
    await waitFor(() => expect(Source.last?.url).toBe('/api/studios/s/season/search/events'));
    const order = [{ picture: 'lamp', step: 's2' }];
    Source.last?.tell({
      ...search,
      running: false,
      tried: 900,
      best: worth(1, 8400),
      better: true,
      order,
    });
    await within(box).findByText(
      /900 orders tried .* 2 days less late, all finishes together 10 h/,
    );
    fireEvent.click(within(box).getByRole('button', { name: 'Open beside the plan' }));
    await screen.findByText('Tried, not kept: a better order of work');
    await waitFor(() => expect(sent.some((s) => s.path.endsWith('/what-if'))).toBe(true));
    const asked = sent.find((s) => s.path.endsWith('/what-if'))?.body as Schemas['Draft'];
    expect(asked.studio?.studio.order).toEqual(order);
  });
});
