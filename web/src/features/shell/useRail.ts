/** What stands on the rail: a mark for every coat at the moment it changes state, and the work. */
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { Schemas } from '../../api/client';
import { outlookQuery } from '../../api/queries';
import { useNow } from '../../components/useNow';
import type { Mark } from '../../figures/Rail';
import { exact, upToMinute } from '../../format/time';
import { laidTop } from '../../format/verdict';

const HOUR = 3_600_000;
/** Share of the rail that lies before now. */
const PAST = 0.13;

export const SPANS = [
  { value: '24', word: 'Day' },
  { value: '72', word: '3 days' },
  { value: '168', word: 'Week' },
] as const;

type Span = (typeof SPANS)[number]['value'];

/** What each change allows, and how much it matters when there is no room for all labels. */
const CHANGES: {
  key: keyof Schemas['StatesOut'];
  short: string;
  allows: string;
  weight: number;
}[] = [
  { key: 'setting_at', short: 'setting', allows: 'leave it alone', weight: 3 },
  { key: 'touch_dry_at', short: 'touch-dry', allows: 'it may be moved', weight: 2 },
  { key: 'paintable_at', short: 'paintable', allows: 'the next coat is safe', weight: 5 },
  { key: 'dry_through_at', short: 'dry through', allows: 'sand, stencil, tape', weight: 4 },
];

/** The part of a title before its first comma: enough to know the picture by. */
const brief = (title: string) => {
  const head = title.split(',')[0] ?? title;
  return head.length > 18 ? `${head.slice(0, 17)}…` : head;
};

function marksOf(
  picture: Schemas['PictureOutlook'],
  zone: string,
  go: () => void,
  touch: (coat: Schemas['CoatOut']) => void,
): Mark[] {
  const marks: Mark[] = [];
  // What a rule says of a step stands at its mark, unless it was set aside or is a note.
  const warning = (step: string) =>
    picture.findings.find((f) => f.step === step && f.severity !== 'note' && f.set_aside === null)
      ?.what;
  const laid = picture.coats.filter((coat) => !coat.planned);
  const top = laidTop(picture);
  laid.forEach((coat) => {
    for (const { key, short, allows, weight } of CHANGES) {
      const said = coat.states[key];
      if (said === null) continue;
      const at = Date.parse(said);
      marks.push({
        id: `${picture.id}-${coat.step}-${key}`,
        at,
        shape: 'film',
        short: `${brief(picture.title)}: ${short}`,
        full: `${exact(upToMinute(at), zone)}: ${picture.title}, ${coat.title} is ${short}: ${allows}`,
        warns: warning(coat.step),
        weight,
        // What lies on top can be touched.
        here: coat === top,
        open: coat === top ? () => touch(coat) : go,
      });
    }
  });
  for (const step of picture.plan) {
    const sitting = step.sittings[0];
    if (!sitting) continue;
    const at = Date.parse(sitting.from);
    marks.push({
      id: `${picture.id}-${step.step}-work`,
      at,
      shape: 'work',
      short: `${brief(picture.title)}: ${step.title}`,
      full: `${exact(at, zone)}: work on ${picture.title}, ${step.title}`,
      warns: warning(step.step),
      weight: warning(step.step) ? 4 : 1,
      open: go,
    });
  }
  return marks;
}

export function useRail(studio: string) {
  const { data, dataUpdatedAt, error, refetch } = useQuery(outlookQuery(studio));
  const now = useNow(data?.now, dataUpdatedAt);
  const [span, setSpan] = useState<Span>('24');
  const [shift, setShift] = useState(0);
  const [touched, setTouched] = useState<{ picture: string; step: string }>();
  const navigate = useNavigate();
  const wide = Number(span) * HOUR;
  const from = now - wide * PAST + shift * wide * 0.5;
  const zone = data?.time_zone ?? 'UTC';
  const air = data?.air.findLast((a) => Date.parse(a.at) <= now);
  const go = (id: string) => {
    setTouched(undefined);
    void navigate(`/pictures/${id}`);
  };
  const marks =
    data?.pictures.flatMap((p) =>
      marksOf(
        p,
        zone,
        () => go(p.id),
        (coat) => setTouched({ picture: p.id, step: coat.step }),
      ),
    ) ?? [];
  const picture = data?.pictures.find((p) => p.id === touched?.picture);
  const coat = picture?.coats.find((c) => c.step === touched?.step && !c.planned);
  return {
    data,
    error,
    refetch,
    now,
    zone,
    air,
    marks: marks.sort((a, b) => a.at - b.at),
    from,
    to: from + wide,
    span,
    setSpan: (next: Span) => {
      setSpan(next);
      setShift(0);
    },
    earlier: () => setShift((s) => Math.max(s - 1, -1)),
    later: () => setShift((s) => Math.min(s + 1, Math.floor((168 * 2) / Number(span)))),
    toNow: () => setShift(0),
    shifted: shift !== 0,
    /** The coat that was chosen on the rail. */
    chosen: picture && coat ? { picture, coat } : undefined,
    leave: () => setTouched(undefined),
    go,
  };
}
