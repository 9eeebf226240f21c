/** The season, the draft that is tried beside it, and what is shown. */
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import type { Schemas } from '../../api/client';
import { useAcceptDraft, useUndoDraft } from '../../api/edits';
import { pictureQuery, seasonQuery, studioQuery, whatIfQuery } from '../../api/queries';
import { useDates } from '../../components/useDates';
import type { Change } from '../../components/stepEdits';
import { useCurrentStudio } from '../../components/currentStudio';
import { useNow } from '../../components/useNow';
import { ZOOMS, type Zoom } from '../../figures/seasonAxis';
import { consequences, withPicture, withSettings, type Draft, type NamedDraft } from './draft';

const DAY = 86_400_000;
/** What of the past stays in sight [share of the window]. */
const PAST = 0.06;
const NOTHING: Draft = { pictures: [] };

interface KeptDraft {
  label: string;
  kept: Schemas['Kept'];
}

/** What was kept last, for as long as the tab is open: undo is still there after another view. */
function useKept(studio: string) {
  const place = `ulvek.kept.${studio}`;
  const [kept, setKept] = useState(() => {
    const text = sessionStorage.getItem(place);
    return text === null ? undefined : (JSON.parse(text) as KeptDraft);
  });
  const keep = (next: KeptDraft | undefined) => {
    if (next) sessionStorage.setItem(place, JSON.stringify(next));
    else sessionStorage.removeItem(place);
    setKept(next);
  };
  return [kept, keep] as const;
}

export function useSeason() {
  const { id } = useCurrentStudio();
  const cache = useQueryClient();
  const season = useQuery(seasonQuery(id));
  const now = useNow(season.data?.now, season.dataUpdatedAt);
  const [named, setNamed] = useState<NamedDraft>();
  const [trouble, setTrouble] = useState<Error>();
  const [kept, setKept] = useKept(id);
  const [zoom, setZoom] = useState<Zoom>('season');
  const [shift, setShift] = useState(0);
  const accept = useAcceptDraft(id);
  const undo = useUndoDraft(id);

  // A sitting that is dragged asks often: the question follows the hand.
  const asked = useDeferredValue(named);
  const tried = useQuery({ ...whatIfQuery(id, asked?.draft ?? NOTHING), enabled: !!asked });
  const { odds, dateOf } = useDates(id, season.data?.pictures);

  const zone = season.data?.time_zone ?? 'UTC';
  const shown = named && tried.data ? tried.data : season.data;
  const until = season.data ? Date.parse(season.data.until) : now + 31 * DAY;
  const days = ZOOMS.find((z) => z.value === zoom)?.days ?? 0;
  const span = days > 0 ? days * DAY : Math.max(14 * DAY, (until - now) / (1 - PAST));
  const from = now - span * PAST + shift;

  const attempt = (build: () => Promise<NamedDraft>) => {
    setTrouble(undefined);
    setKept(undefined);
    build().then(setNamed, (error: unknown) =>
      setTrouble(error instanceof Error ? error : new Error(String(error))),
    );
  };

  return {
    id,
    zone,
    now,
    season,
    shown,
    odds,
    /** What is said of a picture's date: of a draft by its plan alone. */
    dateOf: (picture: Schemas['SeasonPicture']) => (named ? picture.date : dateOf(picture)),
    tried,
    named,
    trouble,
    window: { from, to: from + span },
    zoom,
    setZoom: (next: Zoom) => {
      setZoom(next);
      setShift(0);
    },
    move: (by: number) => setShift((was) => was + by * span),
    toNow: () => setShift(0),
    shifted: shift !== 0,
    /** Tries a change of one picture, on top of what is tried already. */
    tryPicture: (label: string, picture: string, change: Change) =>
      attempt(async () => {
        const stored = await cache.fetchQuery(pictureQuery(picture));
        return { label, draft: await withPicture(named?.draft, stored, change) };
      }),
    /** Tries other settings of the studio, on top of what is tried already. */
    trySettings: (label: string, change: (studio: Schemas['StudioDoc']) => Schemas['StudioDoc']) =>
      attempt(async () => {
        const stored = await cache.fetchQuery(studioQuery(id));
        return { label, draft: withSettings(named?.draft, stored, change) };
      }),
    /** Opens a draft that was made elsewhere. */
    open: (next: NamedDraft) => attempt(() => Promise.resolve(next)),
    drop: () => {
      setNamed(undefined);
      setTrouble(undefined);
      accept.reset();
    },
    keep: () => {
      if (!named) return;
      accept.mutate(
        { label: named.label, draft: named.draft },
        {
          onSuccess: (made) => {
            setKept({ label: named.label, kept: made });
            setNamed(undefined);
          },
        },
      );
    },
    keeping: accept.isPending,
    keepError: accept.error,
    kept,
    takeBack: () => {
      if (kept) undo.mutate(kept.kept, { onSuccess: () => setKept(undefined) });
    },
    forgetKept: () => setKept(undefined),
    takingBack: undo.isPending,
    takeBackError: undo.error,
    /** What is odd about times that the draft pins steps to, in words. */
    pins: named
      ? (tried.data?.pictures ?? []).flatMap((p) =>
          p.work.flatMap((w) =>
            w.pin && w.sitting === 1 ? [`${p.title}, ${w.title}: ${w.pin}`] : [],
          ),
        )
      : [],
    /** What the draft changes, once it is known. */
    effects:
      named && tried.data && season.data && !tried.isPlaceholderData
        ? consequences(season.data, tried.data)
        : undefined,
  };
}

export type SeasonState = ReturnType<typeof useSeason>;
