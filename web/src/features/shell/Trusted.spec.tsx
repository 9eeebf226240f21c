import { fireEvent, screen, waitFor } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import { renderInStudio } from '../../renderInStudio';
import { Trusted } from './Trusted';

afterEach(() => vi.unstubAllGlobals());

test('what cannot be read is named, two at first, and all when asked', async () => {
  const unread = ['entry 1 of the log', 'the picture "Fog lamp"', 'entry 9 of the log'];
  const outlook = JSON.stringify({ unread, time_zone: 'UTC' });
  const headers = { 'content-type': 'application/json' };
  vi.stubGlobal('fetch', () => Promise.resolve(new Response(outlook, { headers })));
  renderInStudio(<Trusted studio="s">shown</Trusted>);
  const notice = await waitFor(() => screen.getByRole('alert'));
  expect(notice.textContent).toContain('3 things kept here cannot be read.');
  expect(notice.textContent).not.toContain('entry 9');
  fireEvent.click(screen.getByRole('button', { name: 'Name the other 1' }));
  expect(notice.textContent).toContain('entry 9');
});
