/** What the season says, in the studio's words. */
import type { Schemas } from '../../api/client';
import { exact, span } from '../../format/time';

type Picture = Schemas['SeasonPicture'];

export const days = (n: number) => (n === 1 ? '1 day' : `${n} days`);

/** Whether every date is met, and if not which one is missed, by how much, and why it cannot be. */
export function verdictOf(pictures: Picture[], zone: string): string {
  const stuck = pictures.filter((p) => p.blocked.length > 0);
  const late = pictures
    .filter((p) => !p.done && (p.days_late ?? 0) > 0)
    .sort((a, b) => (b.days_late ?? 0) - (a.days_late ?? 0));
  const said: string[] = [];
  const [first] = late;
  if (first) {
    const others =
      late.length > 1 ? `, and ${late.length - 1} more ${late.length > 2 ? 'are' : 'is'} late` : '';
    const finish = first.finish ? ` on ${exact(Date.parse(first.finish), zone)}` : '';
    said.push(
      `${first.title} is not sure to make its date: ready ${days(first.days_late ?? 0)} late${finish}${others}.`,
    );
  }
  const [held] = stuck;
  if (held) said.push(`${held.title}: ${held.blocked[0]?.title} cannot be placed.`);
  if (said.length > 0) return said.join(' ');
  if (pictures.every((p) => p.done)) return 'Every picture is done.';
  return 'Every picture makes its date.';
}

/** What one picture's date hangs on. */
export function dateWords(picture: Picture, zone: string): string {
  if (picture.done) return 'Every step is done.';
  const [blocked] = picture.blocked;
  if (blocked) return `${blocked.title} cannot be placed: ${blocked.why}.`;
  if (!picture.finish) return 'There is nothing to do on it yet.';
  const finish = exact(Date.parse(picture.finish), zone);
  const off = picture.last_hours
    ? ` Its day has no hours of yours: the last before it end on ${exact(Date.parse(picture.last_hours.to), zone)}.`
    : '';
  const earliest = picture.earliest ? Date.parse(picture.earliest) : undefined;
  const late = picture.days_late ?? 0;
  if (late === 0) return `Ready on ${finish}.${off}`;
  const alone =
    earliest !== undefined && earliest < Date.parse(picture.finish) - 3_600_000
      ? ` Were it your only picture: ${exact(earliest, zone)}.`
      : ' No earlier plan is known, even were it your only picture.';
  return `Its date cannot be met as things are: ready on ${finish}, ${days(late)} late.${alone}${off}`;
}

/** `3 h later`, `2 days earlier` */
export function shiftWords(minutes: number): string {
  return minutes > 0 ? `${span(minutes)} later` : `${span(-minutes)} earlier`;
}

/** Odds in words: never as if they were certain. */
export const oddsWords = (share: number) => {
  if (share > 0.99) return 'more than 99 in 100';
  if (share < 0.01) return 'less than 1 in 100';
  return `${Math.round(share * 100)} %`;
};
