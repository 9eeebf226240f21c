/** Cups in words: what one does, and what it does beside another. */
import type { Schemas } from '../../../api/client';
import { moment, span } from '../../../format/time';

/** What a cup would do, laid as soon as that is safe. */
export function cupVerdict(
  cup: Schemas['CupOut'],
  now: number,
  zone: string,
  horizonDays: number,
): string {
  const never = `not within ${horizonDays} days`;
  if (cup.laid_at === null) return `The film below is not paintable within ${horizonDays} days.`;
  const at = (text: string | null) => (text === null ? never : moment(Date.parse(text), now, zone));
  const why = cup.because ?? 'Waits for the coat below to be paintable';
  const when = cup.waits ? `${why}. Laid ${at(cup.laid_at)}` : 'Laid now';
  const works = cup.working_min === null ? 'very long' : span(cup.working_min);
  return `${when} it works ${works}, is touch-dry ${at(cup.touch_dry_at)} and paintable ${at(cup.paintable_at)}.`;
}

/** What a cup does beside the one that was kept. */
export function compared(
  cup: Schemas['CupOut'],
  beside: Schemas['CupOut'],
  now: number,
  zone: string,
): string {
  const said: string[] = [];
  if (cup.working_min !== null && beside.working_min !== null) {
    const more = cup.working_min - beside.working_min;
    if (Math.abs(more) < 0.5) said.push('works as long');
    else said.push(`${more > 0 ? '+' : '−'}${span(Math.abs(more))} working`);
  }
  if (cup.paintable_at !== null && beside.paintable_at !== null) {
    const here = moment(Date.parse(cup.paintable_at), now, zone);
    const there = moment(Date.parse(beside.paintable_at), now, zone);
    said.push(here === there ? `paintable ${here} too` : `paintable ${here} instead of ${there}`);
  }
  const ml = cup.total_ml - beside.total_ml;
  if (Math.abs(ml) >= 0.05)
    said.push(`${Math.abs(ml).toFixed(1)} ml ${ml > 0 ? 'more' : 'less'} to mix`);
  return `${said.join(', ')}.`;
}
