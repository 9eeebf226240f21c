/** What is said of dates: by their odds once they are sampled, until then by the plan. */
import type { Schemas } from '../api/client';
import { oddsQuery } from '../api/queries';
import { useLong } from './useLong';

type DateOut = Schemas['DateOut'];
type Standing = DateOut['standing'];

const NOTHING: Schemas['Draft'] = { pictures: [] };

export function useDates(studio: string, wanted: boolean) {
  const odds = useLong(oddsQuery(studio, NOTHING), wanted);
  const dateOf = (picture: { id: string; date: DateOut }) =>
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
