/** The studio's settings while they are edited. */
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { typed } from '../../format/number';
import { plain } from '../../format/words';

export interface StudioForm {
  name: string;
  time_zone: string;
  hours: Schemas['HourDoc'][];
  closed: Schemas['ClosedDoc'][];
  flat_places: string;
  setup_min: string;
  by_daylight: boolean;
  latitude: string;
  longitude: string;
  thinning: NonNullable<Schemas['SchoolsDoc']['thinning']>;
  waiting: NonNullable<Schemas['SchoolsDoc']['waiting']>;
  fresh_eyes: boolean;
  isolation_coat: boolean;
  temperature_c: string;
  humidity: string;
  speed: number;
}

function fromStudio({ studio, air }: Pick<Schemas['StudioOut'], 'studio' | 'air'>): StudioForm {
  return {
    name: studio.name,
    time_zone: studio.time_zone,
    hours: studio.hours ?? [],
    closed: studio.closed ?? [],
    flat_places: String(studio.flat_places ?? 1),
    setup_min: plain(studio.setup_min ?? 10),
    by_daylight: !!studio.daylight,
    latitude: studio.daylight ? plain(studio.daylight.latitude_deg, 3) : '',
    longitude: studio.daylight ? plain(studio.daylight.longitude_deg, 3) : '',
    thinning: studio.schools?.thinning ?? 'medium_only',
    waiting: studio.schools?.waiting ?? 'standard',
    fresh_eyes: studio.schools?.fresh_eyes ?? true,
    isolation_coat: studio.schools?.isolation_coat ?? false,
    temperature_c: plain(air.temperature_c),
    humidity: plain(air.relative_humidity * 100),
    speed: air.air_speed_m_s ?? 0.15,
  };
}

export function useStudioForm(given: Pick<Schemas['StudioOut'], 'studio' | 'air'>) {
  const [form, setForm] = useState(() => fromStudio(given));
  const start = JSON.stringify(fromStudio(given));
  const wrong: Record<string, string> = {};
  if (!form.name.trim()) wrong['studio.name'] = 'Give the studio a name.';
  if (!Number.isInteger(typed(form.flat_places)) || typed(form.flat_places) < 0)
    wrong['studio.flat_places'] = 'Give a whole number of places.';
  if (Number.isNaN(typed(form.setup_min))) wrong['studio.setup_min'] = 'Give minutes.';
  if (form.by_daylight && Number.isNaN(typed(form.latitude)))
    wrong['studio.daylight.latitude_deg'] = 'Give degrees, north positive.';
  if (form.by_daylight && Number.isNaN(typed(form.longitude)))
    wrong['studio.daylight.longitude_deg'] = 'Give degrees, east positive.';
  if (Number.isNaN(typed(form.temperature_c))) wrong['air.temperature_c'] = 'Give degrees Celsius.';
  if (Number.isNaN(typed(form.humidity))) wrong['air.relative_humidity'] = 'Give per cent.';

  /** As the API wants it. Readings of the air stay as they are. */
  const made = (): Pick<Schemas['StudioEdit'], 'studio' | 'air'> => ({
    studio: {
      ...given.studio,
      name: form.name,
      time_zone: form.time_zone,
      hours: form.hours,
      closed: form.closed,
      flat_places: typed(form.flat_places),
      setup_min: typed(form.setup_min),
      daylight: form.by_daylight
        ? { latitude_deg: typed(form.latitude), longitude_deg: typed(form.longitude) }
        : undefined,
      schools: {
        thinning: form.thinning,
        waiting: form.waiting,
        fresh_eyes: form.fresh_eyes,
        isolation_coat: form.isolation_coat,
      },
    },
    air: {
      ...given.air,
      temperature_c: typed(form.temperature_c),
      relative_humidity: typed(form.humidity) / 100,
      air_speed_m_s: form.speed,
    },
  });
  return {
    form,
    change: (part: Partial<StudioForm>) => setForm((was) => ({ ...was, ...part })),
    wrong,
    made,
    changed: JSON.stringify(form) !== start,
    reset: () => setForm(fromStudio(given)),
    /** Fills the fields anew, after an undo or another person's edit. */
    load: (next: typeof given) => setForm(fromStudio(next)),
  };
}
