/** What the season says, in the studio's words. */
import type { Schemas } from '../../api/client';
import { inDanger } from '../../components/useDates';
import { exact, span } from '../../format/time';

type Picture = Schemas['SeasonPicture'];
type DateOut = Schemas['DateOut'];

export const days = (n: number) => (n === 1 ? '1 day' : `${n} days`);

/** Whether every date is met, and if not which one is in most danger, and what is said of it. */
export function verdictOf(pictures: Picture[], dateOf: (picture: Picture) => DateOut): string {
  const ranks = ['stuck', 'late', 'not_sure'];
  const rank = (picture: Picture) => ranks.indexOf(dateOf(picture).standing);
  const danger = pictures.filter((p) => rank(p) >= 0).sort((a, b) => rank(a) - rank(b));
  const [first] = danger;
  if (first) {
    const more = danger.length - 1;
    const others = more > 0 ? ` ${more} more ${more > 1 ? 'are' : 'is'} not sure either.` : '';
    const [blocked] = first.blocked;
    if (blocked) return `${first.title}: ${blocked.title} cannot be placed.${others}`;
    const word =
      dateOf(first).standing === 'late'
        ? 'will more likely be late than in time'
        : 'is not sure to make its date';
    return `${first.title} ${word}. ${dateOf(first).said}${others}`;
  }
  if (pictures.every((p) => p.done)) return 'Every picture is done.';
  return 'Every picture makes its date.';
}

/** What one picture's date hangs on beside what is said of it. */
export function beyondDate(picture: Picture, standing: DateOut['standing'], zone: string): string {
  if (picture.done) return '';
  const [blocked] = picture.blocked;
  if (blocked) return `${blocked.title} cannot be placed: ${blocked.why}.`;
  if (!picture.finish) return '';
  const off = picture.last_hours
    ? `Its day has no hours of yours: the last before it end on ${exact(Date.parse(picture.last_hours.to), zone)}.`
    : '';
  if (!inDanger(standing)) return off;
  const earliest = picture.earliest ? Date.parse(picture.earliest) : undefined;
  const alone =
    earliest !== undefined && earliest < Date.parse(picture.finish) - 3_600_000
      ? `Were it your only picture: ${exact(earliest, zone)}.`
      : 'No earlier plan is known, even were it your only picture.';
  return [alone, off].filter(Boolean).join(' ');
}

/** `3 h later`, `2 days earlier` */
export function shiftWords(minutes: number): string {
  return minutes > 0 ? `${span(minutes)} later` : `${span(-minutes)} earlier`;
}
