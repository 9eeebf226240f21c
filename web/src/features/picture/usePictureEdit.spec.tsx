import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, cleanup, renderHook, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { putStep, type Step } from '../../components/stepEdits';
import { usePictureEdit } from './usePictureEdit';

const glaze: Step = { id: 's1', kind: 'glaze', hands_on_min: 40 };

/** A server with one picture, as far as this hook sees it. */
function server() {
  const stored = { version: 1, title: 'Lamp', steps: [glaze] };
  const answer = (status: number, body: unknown) =>
    new Response(JSON.stringify(body), {
      status,
      headers: { 'content-type': status < 400 ? 'application/json' : 'application/problem+json' },
    });
  const whole = () => ({
    id: 'p',
    studio: 's',
    version: stored.version,
    history: { undo: null, redo: null },
    picture: { id: 'p', title: stored.title, width_cm: 20, height_cm: 20, steps: stored.steps },
  });
  vi.stubGlobal('fetch', async (request: Request) => {
    if (request.method === 'GET') return answer(200, whole());
    const edit = (await request.json()) as {
      version: number;
      picture: { title: string; steps: Step[] };
    };
    if (edit.version !== stored.version) {
      return answer(409, {
        type: 'urn:ulvek:problem:conflict',
        title: 'Edited elsewhere',
        status: 409,
        detail: 'It was edited elsewhere.',
        given_version: edit.version,
        current_version: stored.version,
      });
    }
    stored.version += 1;
    stored.title = edit.picture.title;
    stored.steps = edit.picture.steps;
    return answer(200, whole());
  });
  return stored;
}

const wrapper = ({ children }: { children: ReactNode }) => (
  <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
    {children}
  </QueryClientProvider>
);

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

async function opened() {
  const stored = server();
  const { result } = renderHook(() => usePictureEdit('p'), { wrapper });
  await waitFor(() => expect(result.current.stored?.version).toBe(1));
  return { stored, result };
}

describe('an edit of a picture', () => {
  it('is under way from the first tap on, also while the server is asked what it makes', async () => {
    const { stored, result } = await opened();
    let answered = (): void => undefined;
    act(() =>
      result.current.edit(
        'take out',
        (doc) => new Promise((made) => (answered = () => made({ ...doc, steps: [] }))),
      ),
    );
    expect(result.current.pending).toBe(true);
    act(() => answered());
    await waitFor(() => expect(stored.version).toBe(2));
    await waitFor(() => expect(result.current.pending).toBe(false));
    expect(stored.steps).toEqual([]);
  });

  it('is sent with the version it was made on, and seen when it is stored', async () => {
    const { stored, result } = await opened();
    act(() => result.current.edit('add', putStep({ ...glaze, id: '' })));
    await waitFor(() => expect(result.current.stored?.picture.steps).toHaveLength(2));
    expect(stored.version).toBe(2);
    expect(result.current.conflict).toBeUndefined();
  });

  it('that meets another one is kept, and can be made again on what is stored', async () => {
    const { stored, result } = await opened();
    stored.version = 2;
    stored.title = 'Lamp, from another tab';
    act(() => result.current.edit('add a glaze', putStep({ ...glaze, id: '' })));
    await waitFor(() => expect(result.current.conflict?.label).toBe('add a glaze'));
    expect(result.current.conflict?.problem.current_version).toBe(2);
    expect(stored.steps).toHaveLength(1);
    await act(() => result.current.again());
    await waitFor(() => expect(stored.version).toBe(3));
    expect(stored.title).toBe('Lamp, from another tab');
    expect(stored.steps).toHaveLength(2);
    await waitFor(() => expect(result.current.conflict).toBeUndefined());
  });

  it('can be let go: what is stored is shown', async () => {
    const { stored, result } = await opened();
    stored.version = 2;
    stored.title = 'Lamp, from another tab';
    act(() => result.current.edit('add a glaze', putStep({ ...glaze, id: '' })));
    await waitFor(() => expect(result.current.conflict).toBeDefined());
    act(() => result.current.drop());
    await waitFor(() =>
      expect(result.current.stored?.picture.title).toBe('Lamp, from another tab'),
    );
    expect(result.current.conflict).toBeUndefined();
    expect(stored.steps).toHaveLength(1);
  });
});
