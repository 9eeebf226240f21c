/** The studio's settings while they are edited. */
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { useNumbers } from '../../components/numbers';
import { typed } from '../../format/number';

export interface StudioForm {
  name: string;
  time_zone: string;
  hours: Schemas['HourDoc'][];
  closed: Schemas['ClosedDoc'][];
  flat_places: string;
  by_daylight: boolean;
  thinning: NonNullable<Schemas['SchoolsDoc']['thinning']>;
  waiting: NonNullable<Schemas['SchoolsDoc']['waiting']>;
  fresh_eyes: boolean;
  isolation_coat: boolean;
  /** Share of the futures in which a time that is said must hold. */
  sure: number;
  speed: number;
}

/** What the form is filled from: the settings, and the room as it is usually kept. */
export interface Given {
  studio: Schemas['StudioDoc'];
  air: { version: number; usual: Schemas['UsualAirDoc'] };
}

/** The numbers of the settings. */
const NUMBERS = {
  setup: { field: 'setup_min', label: 'Set up or mix', digits: 1 },
  missed: {
    field: 'missed_sessions',
    label: 'Evenings you usually miss',
    digits: 1,
    open: true,
    help: 'The odds of a date count with it. Open: one in twenty.',
  },
  latitude: { field: 'latitude_deg', label: 'Latitude', digits: 3, help: 'North is positive.' },
  longitude: { field: 'longitude_deg', label: 'Longitude', digits: 3, help: 'East is positive.' },
  temperature: { field: 'temperature_c', label: 'Temperature', digits: 1 },
  humidity: { field: 'relative_humidity', label: 'Humidity', digits: 1 },
} as const;

const numbersOf = ({ studio, air }: Given) => ({
  setup: studio.setup_min,
  missed: studio.missed_sessions,
  latitude: studio.daylight?.latitude_deg,
  longitude: studio.daylight?.longitude_deg,
  temperature: air.usual.temperature_c,
  humidity: air.usual.relative_humidity,
});

/** How sure times are said where nothing else is asked [share of the futures]; docs/formats/studio.md. */
const USUALLY_SURE = 0.9;

function fromStudio({ studio, air }: Given): StudioForm {
  return {
    name: studio.name,
    time_zone: studio.time_zone,
    hours: studio.hours ?? [],
    closed: studio.closed ?? [],
    flat_places: String(studio.flat_places ?? 1),
    by_daylight: !!studio.daylight,
    thinning: studio.schools?.thinning ?? 'medium_only',
    waiting: studio.schools?.waiting ?? 'standard',
    fresh_eyes: studio.schools?.fresh_eyes ?? true,
    isolation_coat: studio.schools?.isolation_coat ?? false,
    sure: studio.sure ?? USUALLY_SURE,
    speed: air.usual.air_speed_m_s ?? NaN,
  };
}

export function useStudioForm(given: Given) {
  const numbers = useNumbers(NUMBERS, numbersOf(given));
  const [form, setForm] = useState(() => fromStudio(given));
  const start = JSON.stringify(fromStudio(given));
  const load = (next: Given) => {
    setForm(fromStudio(next));
    numbers.fill(numbersOf(next));
  };
  const wrong: Record<string, string> = {};
  if (!form.name.trim()) wrong['studio.name'] = 'Give the studio a name.';
  if (!Number.isInteger(typed(form.flat_places)) || typed(form.flat_places) < 0)
    wrong['studio.flat_places'] = 'Give a whole number of places.';
  for (const [key, fault] of Object.entries(numbers.wrong)) {
    if (form.by_daylight || (key !== 'latitude' && key !== 'longitude')) wrong[key] = fault;
  }

  /** As the API wants it. */
  const made = (): Given => ({
    studio: {
      ...given.studio,
      name: form.name,
      time_zone: form.time_zone,
      hours: form.hours,
      closed: form.closed,
      flat_places: typed(form.flat_places),
      setup_min: numbers.value('setup'),
      missed_sessions: numbers.open('missed'),
      daylight: form.by_daylight
        ? { latitude_deg: numbers.value('latitude'), longitude_deg: numbers.value('longitude') }
        : undefined,
      sure: form.sure,
      schools: {
        thinning: form.thinning,
        waiting: form.waiting,
        fresh_eyes: form.fresh_eyes,
        isolation_coat: form.isolation_coat,
      },
    },
    air: {
      version: given.air.version,
      usual: {
        temperature_c: numbers.value('temperature'),
        relative_humidity: numbers.value('humidity'),
        air_speed_m_s: form.speed,
      },
    },
  });
  return {
    form,
    /** Whether the room as it is usually kept was edited. */
    roomChanged:
      numbers.changed(numbersOf(given), ['temperature', 'humidity']) ||
      form.speed !== given.air.usual.air_speed_m_s,
    change: (part: Partial<StudioForm>) => setForm((was) => ({ ...was, ...part })),
    wrong,
    made,
    numbers,
    changed: JSON.stringify(form) !== start || numbers.changed(numbersOf(given)),
    reset: () => load(given),
    /** Fills the fields anew, after an undo or another person's edit. */
    load,
  };
}
