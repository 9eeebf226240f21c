/** Keys and fetches of everything that is read, one option each. */
import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import { client, unwrap, type Schemas } from './client';

/** How often computed views are asked for again [ms]: a coat can change state any minute. */
const FRESH_MS = 30_000;

export const studiosQuery = queryOptions({
  queryKey: ['studios'],
  queryFn: () => unwrap(client.GET('/api/studios')),
});

export const catalogueQuery = queryOptions({
  queryKey: ['catalogue'],
  queryFn: () => unwrap(client.GET('/api/catalogue')),
  staleTime: Infinity,
});

export const studioQuery = (id: string) =>
  queryOptions({
    queryKey: ['studio', id],
    queryFn: () => unwrap(client.GET('/api/studios/{id}', { params: { path: { id } } })),
  });

export const outlookQuery = (id: string) =>
  queryOptions({
    queryKey: ['outlook', id],
    queryFn: () => unwrap(client.GET('/api/studios/{id}/outlook', { params: { path: { id } } })),
    refetchInterval: FRESH_MS,
  });

export const pictureQuery = (id: string) =>
  queryOptions({
    queryKey: ['picture', id],
    queryFn: () => unwrap(client.GET('/api/pictures/{id}', { params: { path: { id } } })),
  });

export const strataQuery = (id: string) =>
  queryOptions({
    queryKey: ['strata', id],
    queryFn: () => unwrap(client.GET('/api/pictures/{id}/strata', { params: { path: { id } } })),
    refetchInterval: FRESH_MS,
  });

/** A cup of a picture. Each ask has its own key, so that no old answer can overtake a newer one. */
export const cupQuery = (id: string, ask: Schemas['CupAsk']) =>
  queryOptions({
    queryKey: ['cup', id, ask],
    queryFn: ({ signal }) =>
      unwrap(
        client.POST('/api/pictures/{id}/cup', { params: { path: { id } }, body: ask, signal }),
      ),
    placeholderData: keepPreviousData,
    staleTime: 60_000,
  });
