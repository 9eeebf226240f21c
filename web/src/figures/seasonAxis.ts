/** The time axis of the season: how much is shown, and where its ticks stand. */
import { clock, dayOfMonth, isMonday, monthWord, startOfDay, weekdayShort } from '../format/time';

const DAY = 86_400_000;

export const ZOOMS = [
  { value: 'day', word: 'Day', days: 1 },
  { value: 'week', word: 'Week', days: 7 },
  { value: 'month', word: 'Month', days: 31 },
  { value: 'season', word: 'Season', days: 0 },
  { value: 'half', word: 'Half a year', days: 183 },
] as const;

export type Zoom = (typeof ZOOMS)[number]['value'];

export interface Tick {
  at: number;
  word: string;
  /** Whether it begins a day, a week or a month: drawn stronger. */
  strong: boolean;
}

/** Ticks between `from` and `to`, so many that their words have room in `width` px. */
export function ticks(from: number, to: number, width: number, zone: string): Tick[] {
  const found: Tick[] = [];
  const days = (to - from) / DAY;
  let at = startOfDay(from, zone);
  if (days <= 2) {
    for (; at <= to; at += 3 * 3_600_000) {
      if (at >= from) {
        const word = clock(at, zone);
        found.push({ at, word, strong: word === '00:00' });
      }
    }
    return found;
  }
  const perDay = width / days;
  for (; at <= to; at = startOfDay(at + 1.5 * DAY, zone)) {
    if (at < from) continue;
    const first = dayOfMonth(at, zone) === 1;
    const monday = isMonday(at, zone);
    const dayWord = `${weekdayShort(at, zone)} ${dayOfMonth(at, zone)}`;
    if (perDay >= 58) found.push({ at, word: dayWord, strong: monday });
    else if (perDay >= 9) {
      if (monday) {
        found.push({
          at,
          word: `${dayOfMonth(at, zone)} ${monthWord(at, zone)}`,
          strong: true,
        });
      }
    } else if (first) found.push({ at, word: monthWord(at, zone), strong: true });
  }
  return found;
}
