/** Everything that changes something. Each edit names the version it was made on. */
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { v7 } from 'uuid';
import { client, unwrap, type Schemas } from './client';
import { clockAhead } from './clock';
import { deliver } from './sender';
import type { Kind, send } from './waiting';

type UndoOrRedo = 'undo' | 'redo';

/** Drops what was computed or read before an edit, so that every view reads it again. */
function useFresh() {
  const cache = useQueryClient();
  return () => cache.invalidateQueries({ predicate: (q) => q.queryKey[0] !== 'catalogue' });
}

function useEdit<In, Out>(run: (input: In) => Promise<Out>) {
  const fresh = useFresh();
  return useMutation({ mutationFn: run, onSuccess: fresh });
}

export const useCreatePicture = (studio: string) =>
  useEdit((body: Schemas['PictureDoc']) =>
    unwrap(client.POST('/api/studios/{id}/pictures', { params: { path: { id: studio } }, body })),
  );

export const useSavePicture = (id: string) =>
  useEdit((body: Schemas['PictureEdit']) =>
    unwrap(client.PUT('/api/pictures/{id}', { params: { path: { id } }, body })),
  );

type Entry<Body> = Body & { id: string; said: string };

/** An entry of the log: it is kept in this browser first. Without an answer it waits there and is sent later; then
 * there is nothing to say of what it moves. */
function useEntry<K extends Kind>(kind: K) {
  type Body = Parameters<typeof send<K>>[3];
  const fresh = useFresh();
  return useMutation({
    networkMode: 'always',
    onSuccess: fresh,
    mutationFn: ({ id, said, ...rest }: Entry<Body>) => {
      const body = rest as unknown as Body;
      const now = Date.now() + (clockAhead() ?? 0);
      const at = body.at ?? new Date(now).toISOString();
      return deliver({ key: v7(), kind, of: id, said, since: now, body: { ...body, at } });
    },
  });
}

export const useLogLaid = () => useEntry('laid');

export const useTouched = () => useEntry('touched');

export const useHappened = () => useEntry('happened');

/** What is about no picture: into the day book of the studio. */
export const useDaybook = () => useEntry('daybook');

export const useRetoldThere = (studio: string) =>
  useEdit((body: Schemas['RetoldThere']) =>
    unwrap(
      client.POST('/api/studios/{id}/daybook/retold', { params: { path: { id: studio } }, body }),
    ),
  );

export const useRetold = () =>
  useEdit(({ id, ...body }: Schemas['Retold'] & { id: string }) =>
    unwrap(client.POST('/api/pictures/{id}/retold', { params: { path: { id } }, body })),
  );

/** Looks at a table of entries, or keeps what is good of it. */
export const useBringTable = (studio: string) =>
  useEdit(({ file, keep }: { file: File; keep: boolean }) =>
    unwrap(
      client.POST('/api/studios/{id}/log.csv', {
        params: { path: { id: studio }, query: { keep } },
        body: file as unknown as string,
        bodySerializer: () => file,
        headers: { 'content-type': 'application/octet-stream' },
      }),
    ),
  );

export const useRetouched = () =>
  useEdit(({ id, ...body }: Schemas['Retouched'] & { id: string }) =>
    unwrap(client.POST('/api/pictures/{id}/retouched', { params: { path: { id } }, body })),
  );

export const useUndoPicture = (id: string) =>
  useEdit(({ version, way }: { version: number; way: UndoOrRedo }) => {
    const init = { params: { path: { id } }, body: { version } };
    return unwrap(
      way === 'undo'
        ? client.POST('/api/pictures/{id}/undo', init)
        : client.POST('/api/pictures/{id}/redo', init),
    );
  });

export const useDeletePicture = () =>
  useEdit(({ id, version }: { id: string; version: number }) =>
    unwrap(client.DELETE('/api/pictures/{id}', { params: { path: { id }, query: { version } } })),
  );

export const useRestorePicture = () =>
  useEdit((id: string) =>
    unwrap(client.POST('/api/pictures/{id}/restore', { params: { path: { id } } })),
  );

export const useSaveStudio = (id: string) =>
  useEdit((body: Schemas['StudioEdit']) =>
    unwrap(client.PUT('/api/studios/{id}', { params: { path: { id } }, body })),
  );

export const useUndoStudio = (id: string) =>
  useEdit(({ version, way }: { version: number; way: UndoOrRedo }) => {
    const init = { params: { path: { id } }, body: { version } };
    return unwrap(
      way === 'undo'
        ? client.POST('/api/studios/{id}/undo', init)
        : client.POST('/api/studios/{id}/redo', init),
    );
  });

export const useSaveShelf = (id: string) =>
  useEdit((body: Schemas['ShelfEdit']) =>
    unwrap(client.PUT('/api/studios/{id}/shelf', { params: { path: { id } }, body })),
  );

export const useUndoAir = (id: string) =>
  useEdit(({ version, way }: { version: number; way: UndoOrRedo }) => {
    const init = { params: { path: { id } }, body: { version } };
    return unwrap(
      way === 'undo'
        ? client.POST('/api/studios/{id}/air/undo', init)
        : client.POST('/api/studios/{id}/air/redo', init),
    );
  });

export const useUndoShelf = (id: string) =>
  useEdit(({ version, way }: { version: number; way: UndoOrRedo }) => {
    const init = { params: { path: { id } }, body: { version } };
    return unwrap(
      way === 'undo'
        ? client.POST('/api/studios/{id}/shelf/undo', init)
        : client.POST('/api/studios/{id}/shelf/redo', init),
    );
  });

/** Steps without one of them; what stood on it stands on what it stood on. */
export const stepsWithout = (steps: Schemas['StepDoc'][], id: string) =>
  unwrap(client.POST('/api/steps/without', { body: { steps, take_out: id } }));

/** Steps with one of them repeated until there are so many coats of it. */
export const stepsRepeated = (steps: Schemas['StepDoc'][], id: string, coats: number) =>
  unwrap(client.POST('/api/steps/repeated', { body: { steps, repeat: id, coats } }));

/** What lies on the simulated scale, and setting it to zero. */
export const useScale = (id: string) => {
  const cache = useQueryClient();
  return useMutation({
    mutationFn: (act: { load_g: number } | 'tare') =>
      unwrap(
        act === 'tare'
          ? client.POST('/api/studios/{id}/scale/tare', { params: { path: { id } } })
          : client.PUT('/api/studios/{id}/scale', {
              params: { path: { id } },
              body: { load_g: act.load_g },
            }),
      ),
    onSuccess: (shows) => cache.setQueryData(['scale', id], shows),
  });
};

/** Takes a studio away; it can be brought back. */
export const useTakeStudioAway = () =>
  useEdit(({ id, version }: { id: string; version: number }) =>
    unwrap(client.DELETE('/api/studios/{id}', { params: { path: { id }, query: { version } } })),
  );

export const useRestoreStudio = () =>
  useEdit((id: string) =>
    unwrap(client.POST('/api/studios/{id}/restore', { params: { path: { id } } })),
  );

export const useCreateStudio = () =>
  useEdit((body: Schemas['NewStudio']) => unwrap(client.POST('/api/studios', { body })));

export const useDemoStudio = () =>
  useEdit<undefined, Schemas['StudioOut']>(() => unwrap(client.POST('/api/studios/demo')));

/** Takes in a studio document as it stands in the file; the server checks it. */
export const useImportStudio = () =>
  useEdit((file: File) =>
    unwrap(
      client.POST('/api/studios/import', {
        body: file as unknown as Schemas['Document'],
        bodySerializer: () => file,
        headers: { 'content-type': 'application/json' },
      }),
    ),
  );

export const documentUrl = (studio: string) => `/api/studios/${studio}/document`;
export const calendarUrl = (studio: string, picture?: string) =>
  `/api/studios/${studio}/plan.ics${picture ? `?picture=${picture}` : ''}`;

/** Keeps a draft as one change. */
export const useAcceptDraft = (id: string) =>
  useEdit((body: Schemas['Accept']) =>
    unwrap(client.POST('/api/studios/{id}/season/accept', { params: { path: { id } }, body })),
  );

/** Takes back what was kept together. */
export const useUndoDraft = (id: string) =>
  useEdit((body: Schemas['Kept']) =>
    unwrap(client.POST('/api/studios/{id}/season/undo', { params: { path: { id } }, body })),
  );

/** Begins a search for a better order of work, stops it, or lets go of what it found. */
export const useSearch = (id: string) => {
  const cache = useQueryClient();
  const reread = () => cache.invalidateQueries({ queryKey: ['search', id] });
  const path = { params: { path: { id } } };
  return {
    begin: useMutation({
      mutationFn: (seconds: number) =>
        unwrap(client.POST('/api/studios/{id}/season/search', { ...path, body: { seconds } })),
      onSuccess: (begun) => cache.setQueryData(['search', id], begun),
    }),
    stop: useMutation({
      mutationFn: () => unwrap(client.DELETE('/api/studios/{id}/season/search', path)),
      onSuccess: reread,
    }),
  };
};

/** Settles on a varnish. */
export const useSaveVarnish = (id: string) =>
  useEdit((body: Schemas['VarnishEdit']) =>
    unwrap(client.PUT('/api/pictures/{id}/varnish', { params: { path: { id } }, body })),
  );

/** Says that the surface was looked over. */
export const useInspected = (id: string) =>
  useEdit((version: number) =>
    unwrap(
      client.POST('/api/pictures/{id}/inspected', { params: { path: { id } }, body: { version } }),
    ),
  );

/** Keeps trouble found on a sealing coat. */
export const useTroubleFound = (id: string) =>
  useEdit((body: Schemas['TroubleFoundIn']) =>
    unwrap(client.POST('/api/pictures/{id}/troubles', { params: { path: { id } }, body })),
  );

/** Takes in the air to come. */
export const useSaveAir = (id: string) =>
  useEdit((body: Schemas['AirEdit']) =>
    unwrap(client.PUT('/api/studios/{id}/air', { params: { path: { id } }, body })),
  );

export const useTypeReading = (id: string) =>
  useEdit((body: Schemas['TypedReading']) =>
    unwrap(client.POST('/api/studios/{id}/air/typed', { params: { path: { id } }, body })),
  );

/** Takes readings of a stretch back, or gives back what an instrument measured. */
export const useTakeBack = (id: string) =>
  useEdit((body: Schemas['TakenBack']) =>
    unwrap(client.POST('/api/studios/{id}/air/taken-back', { params: { path: { id } }, body })),
  );

export const useAddInstrument = (id: string) =>
  useEdit((body: Schemas['NewInstrument']) =>
    unwrap(client.POST('/api/studios/{id}/instruments', { params: { path: { id } }, body })),
  );

export const useRemoveInstrument = (id: string) =>
  useEdit((instrument: string) =>
    unwrap(
      client.DELETE('/api/studios/{id}/instruments/{instrument}', {
        params: { path: { id, instrument } },
      }),
    ),
  );

/** Lets a simulated instrument behave otherwise. */
export const useBehave = (id: string) =>
  useEdit(({ instrument, ...body }: Schemas['Behave'] & { instrument: string }) =>
    unwrap(
      client.PUT('/api/studios/{id}/instruments/{instrument}', {
        params: { path: { id, instrument } },
        body,
      }),
    ),
  );

/** Brings a photograph as it stands in the file; the server judges it by its content. */
export const useAddPhotograph = (id: string) =>
  useEdit(({ file, step, caption }: { file: File; step?: string; caption?: string }) =>
    unwrap(
      client.POST('/api/pictures/{id}/photographs', {
        params: { path: { id }, query: { step, caption } },
        body: file as unknown as string,
        bodySerializer: () => file,
        headers: { 'content-type': 'application/octet-stream' },
      }),
    ),
  );

export const useSavePhotograph = () =>
  useEdit(({ photograph, ...body }: Schemas['PhotographEdit'] & { photograph: string }) =>
    unwrap(client.PUT('/api/photographs/{id}', { params: { path: { id: photograph } }, body })),
  );

export const useDropPhotograph = () =>
  useEdit(({ id, version }: { id: string; version: number }) =>
    unwrap(
      client.DELETE('/api/photographs/{id}', { params: { path: { id }, query: { version } } }),
    ),
  );

export const useRestorePhotograph = () =>
  useEdit((id: string) =>
    unwrap(client.POST('/api/photographs/{id}/restore', { params: { path: { id } } })),
  );
