/** What to do next, what not to touch, what becomes ready: read off the outlook. */
import { useQuery } from '@tanstack/react-query';
import type { Schemas } from '../../api/client';
import { outlookQuery } from '../../api/queries';
import { useCurrentStudio } from '../../components/currentStudio';
import { inDanger, useDates } from '../../components/useDates';
import { useNow } from '../../components/useNow';
import { stateAt, laidTop } from '../../format/verdict';

export interface Work {
  picture: Schemas['PictureOutlook'];
  step: Schemas['PlannedOut'];
  from: number;
  to: number;
}

interface Untouchable {
  picture: Schemas['PictureOutlook'];
  coat: Schemas['CoatOut'];
  state: ReturnType<typeof stateAt>;
  until?: number;
}

export interface Ready {
  picture: Schemas['PictureOutlook'];
  what: string;
  at: number;
}

const HOUR = 3_600_000;

export function useNowView() {
  const { id } = useCurrentStudio();
  const outlook = useQuery(outlookQuery(id));
  const now = useNow(outlook.data?.now, outlook.dataUpdatedAt);
  const data = outlook.data;
  const { dateOf } = useDates(id, data?.pictures);
  if (!data) return { outlook, now, zone: 'UTC' };

  const work: Work[] = data.pictures
    .flatMap((picture) =>
      picture.plan.flatMap((step) =>
        step.sittings.map((s) => ({
          picture,
          step,
          from: Date.parse(s.from),
          to: Date.parse(s.to),
        })),
      ),
    )
    .filter((w) => w.to > now)
    .sort((a, b) => a.from - b.from);

  const session = data.sessions
    .map((s) => ({ from: Date.parse(s.from), to: Date.parse(s.to) }))
    .find((s) => s.to > now);
  const end = session?.to ?? now + 24 * HOUR;

  const untouchable: Untouchable[] = data.pictures.flatMap((picture) => {
    const coat = laidTop(picture);
    if (!coat) return [];
    const state = stateAt(coat, now);
    if (!['workable', 'setting', 'touch_dry'].includes(state)) return [];
    const until = coat.if_left.paintable_at;
    return [{ picture, coat, state, until: until === null ? undefined : Date.parse(until) }];
  });

  const ready: Ready[] = data.pictures
    .flatMap((picture) => {
      const coat = laidTop(picture);
      if (!coat) return [];
      const add = (text: string | null, what: string): Ready[] =>
        text === null ? [] : [{ picture, what, at: Date.parse(text) }];
      if (coat.seals) return add(coat.seal_from, `${coat.title} may be coated again`);
      return [
        ...add(coat.if_left.paintable_at, `${coat.title} is paintable`),
        ...add(coat.if_left.dry_through_at, `${coat.title} is dry through`),
        ...(coat.paint_to_come ? [] : add(coat.seal_from, 'ready to seal')),
      ];
    })
    .filter((r) => r.at > now && r.at <= Math.max(end, now + 24 * HOUR))
    .sort((a, b) => a.at - b.at);

  return {
    outlook,
    data,
    now,
    zone: data.time_zone,
    session,
    next: work.at(0),
    later: work.slice(1).filter((w) => w.from < end),
    untouchable,
    ready,
    danger: data.pictures
      .map((picture) => ({ picture, date: dateOf(picture) }))
      .filter(({ picture, date }) => picture.due !== null && inDanger(date.standing)),
  };
}
