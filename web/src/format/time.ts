/** Times as a painter says them, in the studio's own time zone. */
import { tz } from '@date-fns/tz';

const LOCALE = 'en-GB';
const MINUTE = 60_000;
const DAY = 24 * 60 * MINUTE;

const parts = new Map<string, Intl.DateTimeFormat>();

function format(zone: string, options: Intl.DateTimeFormatOptions): Intl.DateTimeFormat {
  const key = zone + JSON.stringify(options);
  let found = parts.get(key);
  if (!found) {
    found = new Intl.DateTimeFormat(LOCALE, { timeZone: zone, ...options });
    parts.set(key, found);
  }
  return found;
}

/** Number of the day since the epoch, as it is in `zone`. */
function dayNumber(at: number, zone: string): number {
  const [y, m, d] = format(zone, { year: 'numeric', month: '2-digit', day: '2-digit' })
    .formatToParts(at)
    .reduce<[number, number, number]>(
      (ymd, part) => {
        if (part.type === 'year') ymd[0] = Number(part.value);
        if (part.type === 'month') ymd[1] = Number(part.value);
        if (part.type === 'day') ymd[2] = Number(part.value);
        return ymd;
      },
      [0, 0, 0],
    );
  return Date.UTC(y, m - 1, d) / DAY;
}

/** Rounded up to the full minute: nothing is called ready a moment early. */
export const upToMinute = (at: number) => Math.ceil(at / MINUTE) * MINUTE;

/** `20:10` */
export function clock(at: number, zone: string): string {
  return format(zone, { hour: '2-digit', minute: '2-digit', hourCycle: 'h23' }).format(at);
}

/** `Thursday` within the coming or the past week, `9 December` beyond, with the year if not this. */
export function day(at: number, now: number, zone: string, short = false): string {
  const apart = dayNumber(at, zone) - dayNumber(now, zone);
  if (apart === 0) return 'today';
  if (apart === 1) return 'tomorrow';
  if (apart === -1) return 'yesterday';
  if (apart > 1 && apart < 7) {
    return format(zone, { weekday: short ? 'short' : 'long' }).format(at);
  }
  const year = format(zone, { year: 'numeric' });
  const other = year.format(at) !== year.format(now);
  return format(zone, {
    day: 'numeric',
    month: short ? 'short' : 'long',
    ...(other ? { year: 'numeric' } : {}),
  }).format(at);
}

/** `20:10` today, `tomorrow 09:00`, `Thursday 20:10`, `9 December`. */
export function moment(at: number, now: number, zone: string): string {
  const ready = at > now ? upToMinute(at) : at;
  const said = day(ready, now, zone);
  if (said === 'today') return clock(ready, zone);
  const apart = Math.abs(dayNumber(ready, zone) - dayNumber(now, zone));
  return apart < 7 ? `${said} ${clock(ready, zone)}` : said;
}

/** With the hour on every day: `Wed 2 Dec, 16:10`. */
export function exact(at: number, zone: string): string {
  const said = format(zone, { weekday: 'short', day: 'numeric', month: 'short' }).format(at);
  return `${said.replace(',', '')}, ${clock(at, zone)}`;
}

/** With hour and year, for what is read years later: `Wed 2 Dec 2026, 16:10`. */
export function dated(at: number, zone: string): string {
  const options = { weekday: 'short', day: 'numeric', month: 'short', year: 'numeric' } as const;
  return `${format(zone, options).format(at).replace(',', '')}, ${clock(at, zone)}`;
}

/** `Wednesday 25 November` */
export function longDay(at: number, zone: string): string {
  return format(zone, { weekday: 'long', day: 'numeric', month: 'long' })
    .format(at)
    .replace(',', '');
}

/** A due day (`2027-02-12`) as it is said. */
export function dueDay(due: string, now: number): string {
  const at = Date.parse(`${due}T12:00:00Z`);
  const year = new Date(now).getUTCFullYear() !== new Date(at).getUTCFullYear();
  return format('UTC', {
    day: 'numeric',
    month: 'short',
    ...(year ? { year: 'numeric' } : {}),
  }).format(at);
}

/** `45 min`, `1 h 30 min`, `3 days` */
export function span(minutes: number): string {
  const whole = Math.round(minutes);
  if (whole < 60) return `${whole} min`;
  if (whole < 48 * 60) {
    const rest = whole % 60;
    return rest ? `${Math.floor(whole / 60)} h ${rest} min` : `${Math.floor(whole / 60)} h`;
  }
  return `${Math.round(whole / 60 / 24)} days`;
}

/** An instant as the value of a `datetime-local` field in `zone`. */
export function toField(at: number, zone: string): string {
  const get = format(zone, {
    year: 'numeric',
    month: '2-digit',
    day: '2-digit',
    hour: '2-digit',
    minute: '2-digit',
    hourCycle: 'h23',
  }).formatToParts(at);
  const of = (type: string) => get.find((p) => p.type === type)?.value ?? '';
  return `${of('year')}-${of('month')}-${of('day')}T${of('hour')}:${of('minute')}`;
}

/** The instant that a `datetime-local` value means in `zone`; undefined when it is none. */
export function fromField(value: string, zone: string): string | undefined {
  const match = /^(\d{4})-(\d{2})-(\d{2})T(\d{2}):(\d{2})/.exec(value);
  if (!match) return undefined;
  const [y, m, d, h, min] = match.slice(1).map(Number) as [number, number, number, number, number];
  const inZone = tz(zone)(new Date(Date.UTC(y, m - 1, d, h, min)));
  inZone.setFullYear(y, m - 1, d);
  inZone.setHours(h, min, 0, 0);
  return new Date(inZone.getTime()).toISOString();
}

/** The midnight that begins the day of `at` in `zone`. */
export function startOfDay(at: number, zone: string): number {
  const day = new Date(at + offset(at, zone)).toISOString().slice(0, 10);
  return Date.parse(fromField(`${day}T00:00`, zone) ?? new Date(at).toISOString());
}

/** What the clocks of `zone` are ahead of UTC at `at` [ms]. */
function offset(at: number, zone: string): number {
  return Date.parse(`${toField(at, zone)}:00Z`) - Math.floor(at / MINUTE) * MINUTE;
}

/** `2027-01-27`: the day of `at` in `zone`, as the API writes it. */
export const isoDay = (at: number, zone: string) => toField(at, zone).slice(0, 10);

/** `Wed 2 Dec`, where there is little room. */
export const shortDay = (at: number, zone: string) =>
  `${weekdayShort(at, zone)} ${dayOfMonth(at, zone)} ${monthWord(at, zone)}`;

export const dayOfMonth = (at: number, zone: string) => Number(toField(at, zone).slice(8, 10));

/** `Mon` */
export const weekdayShort = (at: number, zone: string) =>
  format(zone, { weekday: 'short' }).format(at);

export const isMonday = (at: number, zone: string) => weekdayShort(at, zone) === 'Mon';

/** `Feb` */
export const monthWord = (at: number, zone: string) => format(zone, { month: 'short' }).format(at);
