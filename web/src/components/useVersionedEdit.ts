/** Edits of something that has a version. Each is a function of what is stored, so that one which
 * met another edit can be made again on what is stored now. */
import { useState } from 'react';
import { ApiError, type Schemas } from '../api/client';

/** An edit as a function of what is stored. */
type Change<Doc> = (doc: Doc) => Doc | Promise<Doc>;

interface Versioned {
  version: number;
  history: Schemas['HistoryOut'];
}

interface Callbacks {
  onSuccess?: () => void;
  onError?: (error: Error) => void;
}

interface Options<Stored extends Versioned, Doc> {
  stored: Stored | undefined;
  /** What an edit works on. */
  docOf: (stored: Stored) => Doc;
  save: (edit: { version: number; label: string; doc: Doc }, callbacks: Callbacks) => void;
  /** Undoes or redoes the last edit. */
  undo: (to: { version: number; way: 'undo' | 'redo' }) => void;
  pending: boolean;
  undoError: Error | null;
  /** Reads what is stored now. */
  reread: () => Promise<Stored>;
  /** Forgets what was shown. */
  refresh: () => void;
  reset: () => void;
}

export type Edits = ReturnType<typeof useVersionedEdit<Versioned, unknown>>;

export function useVersionedEdit<Stored extends Versioned, Doc>(options: Options<Stored, Doc>) {
  const { stored, docOf, save, undo, reread, refresh, reset } = options;
  const [asking, setAsking] = useState(false);
  const [refused, setRefused] = useState<{
    label: string;
    change: Change<Doc>;
    error: Error;
  }>();

  const send = (on: Stored, label: string, change: Change<Doc>, done?: () => void) => {
    const onError = (error: Error) => {
      setAsking(false);
      setRefused({ label, change, error });
    };
    const keep = (doc: Doc) =>
      save(
        { version: on.version, label, doc },
        {
          onSuccess: () => {
            setAsking(false);
            setRefused(undefined);
            done?.();
          },
          onError,
        },
      );
    // What an edit makes may be the server's to say.
    const made = change(docOf(on));
    if (!(made instanceof Promise)) {
      keep(made);
      return;
    }
    setAsking(true);
    void made.then(keep, onError);
  };

  const conflict =
    refused?.error instanceof ApiError && refused.error.problem.type.endsWith(':conflict')
      ? { label: refused.label, problem: refused.error.problem }
      : undefined;

  return {
    /** Whether an edit is under way, also while it is still being made: a second tap must not make
     * another one on the same version. */
    pending: options.pending || asking,
    edit: (label: string, change: Change<Doc>, done?: () => void) => {
      if (stored) send(stored, label, change, done);
    },
    goTo: (way: 'undo' | 'redo') => {
      if (stored && stored.history[way] !== null) undo({ version: stored.version, way });
    },
    /** An edit that met another one; it is kept until the painter decides. */
    conflict,
    /** Why the last edit was refused, when that was no conflict. */
    refusal: conflict ? undefined : refused?.error,
    undoError: options.undoError,
    /** Makes the refused edit again on what is stored now. */
    again: async (done?: () => void) => {
      if (refused) send(await reread(), refused.label, refused.change, done);
    },
    /** Lets go of the refused edit. */
    drop: () => {
      setRefused(undefined);
      reset();
      refresh();
    },
    forget: () => {
      setRefused(undefined);
      reset();
    },
  };
}
