/** The picture's main figure: moment, scale, verdict. */
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { ApiError } from '../../api/client';
import { strataQuery } from '../../api/queries';
import { useCurrentStudio } from '../../components/currentStudio';
import { useCatalogue } from '../../components/catalogue';
import { useNow } from '../../components/useNow';
import { layers, type Sample, sampleAt } from '../../figures/geometry';
import { verdict } from '../../format/verdict';
import { outlookQuery } from '../../api/queries';

export function usePictureView(id: string) {
  const { horizon_days: horizonDays } = useCatalogue();
  const { id: studio } = useCurrentStudio();
  const [section, setSection] = useState<string>();
  const strata = useQuery({ ...strataQuery(id, section), placeholderData: keepPreviousData });
  // Nothing lies there any more: the slowest place is shown again.
  const gone = strata.error instanceof ApiError && strata.error.problem.path === 'section';
  if (gone && section !== undefined) setSection(undefined);
  const studioNow = useQuery(outlookQuery(studio)).data;
  const zone = studioNow?.time_zone;
  const now = useNow(strata.data?.now, strata.dataUpdatedAt);
  const [held, setHeld] = useState<number>();
  const [mode, setMode] = useState<'elastic' | 'even'>('elastic');
  const data = strata.data;
  const all = useMemo(() => (data ? layers(data) : undefined), [data]);
  const cursor = held ?? now;
  /** The coats of the place that is shown. */
  const coats = useMemo(
    () => (data ? data.shown.flatMap((n) => data.outlook.coats[n] ?? []) : []),
    [data],
  );
  const top = coats.findLastIndex((coat) => Date.parse(coat.laid_at) <= cursor);
  const finished = data !== undefined && data.outlook.plan.length === 0 && data.outlook.steps > 0;
  const said = verdict(coats, cursor, zone ?? 'UTC', horizonDays, finished);
  // Frames are some minutes apart: the coat on top is in the state that the verdict says, to the second.
  const exact = (s: Sample) => (s.coat === top && said.state ? { ...s, state: said.state } : s);
  return {
    strata,
    data,
    coats,
    setSection,
    all,
    zone,
    /** All pictures of the plan. */
    pictures: studioNow?.pictures,
    now,
    cursor,
    /** Whether the cursor follows the time. */
    atNow: held === undefined,
    setCursor: (t: number) => setHeld(t),
    toNow: () => setHeld(undefined),
    mode,
    toggleMode: () => setMode((m) => (m === 'elastic' ? 'even' : 'elastic')),
    said,
    sample: all ? sampleAt(all, cursor).map(exact) : [],
  };
}
