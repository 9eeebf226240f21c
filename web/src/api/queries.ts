/** Keys and fetches of everything that is read, one option each. */
import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import { client, isGoing, unwrap, type Schemas } from './client';
import type { paths } from './schema';

/** How often computed views are asked for again [ms]: a coat can change state any minute. */
const FRESH_MS = 30_000;

export const studiosQuery = queryOptions({
  queryKey: ['studios'],
  queryFn: () => unwrap(client.GET('/api/studios')),
});

export const takenAwayQuery = queryOptions({
  queryKey: ['studios', 'taken away'],
  queryFn: () => unwrap(client.GET('/api/studios', { params: { query: { taken_away: true } } })),
});

export const picturesAwayQuery = (id: string) =>
  queryOptions({
    queryKey: ['pictures away', id],
    queryFn: () =>
      unwrap(client.GET('/api/studios/{id}/pictures/away', { params: { path: { id } } })),
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

export const shelfQuery = (id: string) =>
  queryOptions({
    queryKey: ['shelf', id],
    queryFn: () => unwrap(client.GET('/api/studios/{id}/shelf', { params: { path: { id } } })),
  });

/** Every way of working, with its steps as they begin in this studio. */
export const waysOfStudioQuery = (id: string, size: { width_cm: number; height_cm: number }) =>
  queryOptions({
    queryKey: ['shelf', id, 'ways', size],
    queryFn: () =>
      unwrap(client.GET('/api/studios/{id}/ways', { params: { path: { id }, query: size } })),
    placeholderData: keepPreviousData,
  });

/** A step of every kind as it usually begins on a picture, and where it belongs. */
export const usualStepsQuery = (id: string) =>
  queryOptions({
    queryKey: ['picture', id, 'usual-steps'],
    queryFn: () =>
      unwrap(client.GET('/api/pictures/{id}/usual-steps', { params: { path: { id } } })),
  });

/** What lies on the scale of a studio. */
export const scaleQuery = (id: string) =>
  queryOptions({
    queryKey: ['scale', id],
    queryFn: () => unwrap(client.GET('/api/studios/{id}/scale', { params: { path: { id } } })),
    // A real one sends while one pours. [practice]
    refetchInterval: 2_000,
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

/** The film of a picture: at its slowest place, or at the section that is asked for. */
export const strataQuery = (id: string, section?: string) =>
  queryOptions({
    queryKey: ['strata', id, section],
    queryFn: () =>
      unwrap(
        client.GET('/api/pictures/{id}/strata', { params: { path: { id }, query: { section } } }),
      ),
    refetchInterval: FRESH_MS,
  });

export const spreadQuery = (id: string) =>
  queryOptions({
    queryKey: ['spread', id],
    queryFn: () => unwrap(client.GET('/api/pictures/{id}/spread', { params: { path: { id } } })),
  });

/** What a picture would be ready soonest without, for the plan that shows `plan`. */
export const causeQuery = (id: string, plan: string) =>
  queryOptions({
    queryKey: ['cause', id, plan],
    queryFn: () => unwrap(client.GET('/api/pictures/{id}/cause', { params: { path: { id } } })),
  });

export const learnedQuery = (id: string) =>
  queryOptions({
    queryKey: ['learned', id],
    queryFn: () => unwrap(client.GET('/api/studios/{id}/learned', { params: { path: { id } } })),
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

/** A dilution series for a picture. */
export const seriesQuery = (id: string, ask: Schemas['SeriesAsk']) =>
  queryOptions({
    queryKey: ['series', id, ask],
    queryFn: ({ signal }) =>
      unwrap(
        client.POST('/api/pictures/{id}/cup/series', {
          params: { path: { id } },
          body: ask,
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
    staleTime: 60_000,
  });

export const seasonQuery = (id: string) =>
  queryOptions({
    queryKey: ['season', id],
    queryFn: () => unwrap(client.GET('/api/studios/{id}/season', { params: { path: { id } } })),
    refetchInterval: FRESH_MS,
  });

/** The season with the changes of a draft. Each draft has its own key: none overtakes another. */
export const whatIfQuery = (id: string, draft: Schemas['Draft']) =>
  queryOptions({
    queryKey: ['what-if', id, draft],
    queryFn: ({ signal }) =>
      unwrap(
        client.POST('/api/studios/{id}/season/what-if', {
          params: { path: { id } },
          body: draft,
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
  });

/** A long computation is asked about again as long as it goes on; the server waits with its answer. */
const askAgain = (answer: object | undefined) => (isGoing(answer) ? 100 : false);

/** The odds of the plan as it is; `plan` names it, so that odds of another one are never shown for it. */
export const oddsQuery = (id: string, plan: string) =>
  queryOptions({
    queryKey: ['odds', id, plan],
    queryFn: ({ signal }) =>
      unwrap(
        client.POST('/api/studios/{id}/season/odds', {
          params: { path: { id } },
          body: { pictures: [] },
          signal,
        }),
      ),
    // Sampling takes a second or more; an hour changes little.
    staleTime: 600_000,
    refetchInterval: (query) => askAgain(query.state.data),
  });

export const waysQuery = (id: string, picture: string) =>
  queryOptions({
    queryKey: ['ways', id, picture],
    queryFn: ({ signal }) =>
      unwrap(
        client.POST('/api/studios/{id}/season/ways', {
          params: { path: { id } },
          body: { picture },
          signal,
        }),
      ),
    staleTime: 600_000,
    refetchInterval: (query) => askAgain(query.state.data),
  });

export const searchQuery = (id: string) =>
  queryOptions({
    queryKey: ['search', id],
    queryFn: () =>
      unwrap(client.GET('/api/studios/{id}/season/search', { params: { path: { id } } })),
  });

export const weekQuery = (id: string, from?: string) =>
  queryOptions({
    queryKey: ['week', id, from],
    queryFn: () =>
      unwrap(client.GET('/api/studios/{id}/week', { params: { path: { id }, query: { from } } })),
    placeholderData: keepPreviousData,
  });

export const gatesQuery = (id: string) =>
  queryOptions({
    queryKey: ['gates', id],
    queryFn: () => unwrap(client.GET('/api/studios/{id}/gates', { params: { path: { id } } })),
    refetchInterval: FRESH_MS,
  });

export const gateQuery = (id: string) =>
  queryOptions({
    queryKey: ['gate', id],
    queryFn: () => unwrap(client.GET('/api/pictures/{id}/gate', { params: { path: { id } } })),
    refetchInterval: FRESH_MS,
  });

export const airQuery = (id: string) =>
  queryOptions({
    queryKey: ['air', id],
    queryFn: () => unwrap(client.GET('/api/studios/{id}/air', { params: { path: { id } } })),
    refetchInterval: FRESH_MS,
  });

/** The room as it was over the last `hours`. */
export const airPastQuery = (id: string, hours: number, now: number) =>
  queryOptions({
    queryKey: ['air', id, 'past', hours],
    queryFn: () =>
      unwrap(
        client.GET('/api/studios/{id}/air/past', {
          params: {
            path: { id },
            query: { from: new Date(now - hours * 3_600_000).toISOString() },
          },
        }),
      ),
    placeholderData: keepPreviousData,
    refetchInterval: FRESH_MS,
  });

/** Where what is new of the room is told. */
export const airLiveUrl = (id: string) => `/api/studios/${id}/air/live`;

export const instrumentsQuery = (id: string) =>
  queryOptions({
    queryKey: ['instruments', id],
    queryFn: () =>
      unwrap(client.GET('/api/studios/{id}/instruments', { params: { path: { id } } })),
    refetchInterval: FRESH_MS,
  });

/** What a choice of varnish comes to. Each choice has its own key: none overtakes another. */
export const varnishQuery = (id: string, version: number, choice: Schemas['ChoiceDoc']) =>
  queryOptions({
    queryKey: ['varnish', id, version, choice],
    queryFn: ({ signal }) =>
      unwrap(
        client.POST('/api/pictures/{id}/varnish/preview', {
          params: { path: { id } },
          body: { choice },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
    retry: false,
  });

export const photographsQuery = (id: string) =>
  queryOptions({
    queryKey: ['photographs', id],
    queryFn: () =>
      unwrap(client.GET('/api/pictures/{id}/photographs', { params: { path: { id } } })),
  });

export const recordQuery = (id: string) =>
  queryOptions({
    queryKey: ['record', id],
    queryFn: () => unwrap(client.GET('/api/pictures/{id}/record', { params: { path: { id } } })),
  });

/** Where the pixels of a photograph are, and the record sheet as a file. */
export const photographUrl = (id: string, size: 'whole' | 'small') =>
  `/api/photographs/${id}/${size}`;
export const recordUrl = (picture: string) => `/api/pictures/${picture}/record?file=true`;

/** Where the progress of a search is told. */
export const searchEventsUrl = (id: string) => `/api/studios/${id}/season/search/events`;

/** What a coat of a cup looks like, dry. */
export const colourQuery = (id: string, ask: Schemas['ColourAsk']) =>
  queryOptions({
    queryKey: ['colour', id, ask],
    queryFn: ({ signal }) =>
      unwrap(
        client.POST('/api/pictures/{id}/colour', { params: { path: { id } }, body: ask, signal }),
      ),
    placeholderData: keepPreviousData,
    staleTime: 60_000,
  });

/** The mixes of the shelf that come nearest to what is looked for. */
export const matchQuery = (id: string, ask: Schemas['MatchAsk']) =>
  queryOptions({
    queryKey: ['match', id, ask],
    queryFn: ({ signal }) =>
      unwrap(
        client.POST('/api/pictures/{id}/colour/match', {
          params: { path: { id } },
          body: ask,
          signal,
        }),
      ),
    staleTime: 60_000,
  });

/** The log of a studio, as it is narrowed. */
export const logQuery = (id: string, asked: NonNullable<LogAsked>) =>
  queryOptions({
    queryKey: ['log', id, asked],
    queryFn: ({ signal }) =>
      unwrap(
        client.GET('/api/studios/{id}/log', { params: { path: { id }, query: asked }, signal }),
      ),
    placeholderData: keepPreviousData,
  });

/** Everything that was entered of a picture, also what was put right or taken back. */
export const pictureLogQuery = (id: string) =>
  queryOptions({
    queryKey: ['picture', id, 'log'],
    queryFn: () => unwrap(client.GET('/api/pictures/{id}/log', { params: { path: { id } } })),
  });

/** Everything that was entered of a studio about no picture. */
export const daybookQuery = (id: string) =>
  queryOptions({
    queryKey: ['studio', id, 'daybook'],
    queryFn: () => unwrap(client.GET('/api/studios/{id}/daybook', { params: { path: { id } } })),
  });

type LogAsked = paths['/api/studios/{id}/log']['get']['parameters']['query'];

/** Where the same is had as a table. */
export const logTableUrl = (id: string, asked: NonNullable<LogAsked>) => {
  const given = Object.entries(asked).filter(
    (pair): pair is [string, string] => typeof pair[1] === 'string',
  );
  return `/api/studios/${id}/log.csv?${new URLSearchParams(given).toString()}`;
};

/** What the film says against a coat as it is about to be logged. */
export const laidPreviewQuery = (id: string, body: Schemas['Laid']) =>
  queryOptions({
    queryKey: ['laid preview', id, body],
    queryFn: ({ signal }) =>
      unwrap(
        client.POST('/api/pictures/{id}/laid/preview', {
          params: { path: { id } },
          body,
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
    retry: false,
  });

/** The colour of a place of a photograph that is kept. */
export const colourAt = (id: string, place: Place) =>
  unwrap(
    client.GET('/api/photographs/{id}/colour', {
      params: { path: { id }, query: { at: placeText(place) } },
    }),
  );

/** A paint read from a photograph of its swatch. */
export const readSwatch = (file: File, at: Record<SwatchPlace, Place>, tint?: Place) => {
  const { white, black, over_white, over_black } = at;
  return unwrap(
    client.POST('/api/swatches/read', {
      params: {
        query: {
          white: placeText(white),
          black: placeText(black),
          over_white: placeText(over_white),
          over_black: placeText(over_black),
          tint: tint && placeText(tint),
        },
      },
      body: file as unknown as string,
      bodySerializer: () => file,
      headers: { 'content-type': 'application/octet-stream' },
    }),
  );
};

type SwatchPlace = 'white' | 'black' | 'over_white' | 'over_black';

/** A place on a photograph: shares of its width and of its height. */
export interface Place {
  x: number;
  y: number;
}

/** The place as the server reads it. */
const placeText = ({ x, y }: Place) => `${x.toFixed(4)},${y.toFixed(4)}`;

/** Mixes from a dark to a light one, as many as a picture has values. */
export const valuesQuery = (id: string, ask: Schemas['ValuesAsk']) =>
  queryOptions({
    queryKey: ['values', id, ask],
    queryFn: ({ signal }) =>
      unwrap(
        client.POST('/api/pictures/{id}/colour/values', {
          params: { path: { id } },
          body: ask,
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
    staleTime: 60_000,
  });
