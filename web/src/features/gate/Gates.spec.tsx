import { cleanup, screen, within } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Schemas } from '../../api/client';
import { renderInStudio } from '../../renderInStudio';
import { Gates } from './Gates';

const NOW = '2027-01-14T16:34:00Z';

const brief = (
  title: string,
  stage: Schemas['GateBrief']['stage'],
  more: Partial<Schemas['GateBrief']> = {},
): Schemas['GateBrief'] => ({
  picture: title,
  title,
  stage,
  between: false,
  coat: 'Varnish 1',
  against: [],
  ...more,
});

const from = (at: string) => ({ earliest: { from: at, to: at } });

function open(pictures: Schemas['GateBrief'][], status = 200) {
  vi.stubGlobal('fetch', (request: Request) => {
    const gates = request.url.endsWith('/gates');
    const body = gates
      ? { now: NOW, time_zone: 'UTC', pictures }
      : { type: 'x', title: 'Away', status: 503, detail: 'The room cannot be read.' };
    const refused = { type: 'x', title: 'Away', status, detail: 'The gate cannot be read.' };
    return Promise.resolve(
      new Response(JSON.stringify(status === 200 ? body : refused), {
        status: gates ? status : 503,
        headers: { 'content-type': 'application/problem+json' },
      }),
    );
  });
  renderInStudio(<Gates />);
}

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

describe('the gates of a studio', () => {
  it('stand in the order in which the server has them', async () => {
    open([
      brief('Open', 'open'),
      brief('Tomorrow', 'closed', from('2027-01-15T17:00:00Z')),
      brief('Cures', 'curing', { wrap_from: '2027-01-18T17:00:00Z' }),
      brief('No varnish', 'unplanned'),
    ]);
    await screen.findByRole('listitem', { name: 'Open' });
    const list = screen.getAllByRole('list')[0];
    const rows = list ? within(list).getAllByRole('listitem') : [];
    expect(rows.map((row) => row.getAttribute('aria-label'))).toEqual([
      'Open',
      'Tomorrow',
      'Cures',
      'No varnish',
    ]);
  });

  it('says what to do when there is no picture, and when the room cannot be read', async () => {
    open([]);
    expect(await screen.findByText(/There is no picture yet/)).toBeTruthy();
    expect(await screen.findByText('The room cannot be read.')).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Try again' })).toBeTruthy();
  });

  it('says that the gate cannot be read', async () => {
    open([], 503);
    expect(await screen.findByText('The gate cannot be read.')).toBeTruthy();
  });
});
