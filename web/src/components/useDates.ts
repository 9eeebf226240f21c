/** What is said of dates: by their odds once they are sampled, until then by the plan. */
import type { Schemas } from '../api/client';
import { oddsQuery } from '../api/queries';
import { useLong } from './useLong';

type DateOut = Schemas['DateOut'];
type Standing = DateOut['standing'];

interface Dated {
  id: string;
  date: DateOut;
}

/** `pictures` are those of the plan, as soon as they are there. */
export function useDates(studio: string, pictures?: Dated[]) {
  const plan = (pictures ?? []).map((p) => `${p.id} ${p.date.said}`).join(' ');
  const odds = useLong(oddsQuery(studio, plan), !!pictures);
  const dateOf = (picture: Dated) =>
    odds.data?.pictures.find((o) => o.id === picture.id)?.date ?? picture.date;
  return { odds, dateOf };
}

/** Whether a picture may miss its date. */
export const inDanger = (standing: Standing) =>
  standing === 'late' || standing === 'not_sure' || standing === 'stuck';

/** How a date is written: what is late or stuck is seen from afar. */
export const dateStyle = (standing: Standing) => ({
  fontWeight: inDanger(standing) ? 700 : 400,
  color: standing === 'late' || standing === 'stuck' ? 'error.main' : 'text.primary',
});
