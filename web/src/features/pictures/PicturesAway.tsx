import { useQuery } from '@tanstack/react-query';
import { useRestorePicture } from '../../api/edits';
import { picturesAwayQuery } from '../../api/queries';
import { TakenAwayList } from '../../components/TakenAwayList';
import { dated } from '../../format/time';

interface Props {
  studio: string;
  zone: string;
  /** The one of which it is said already. */
  said?: string;
}

/** Pictures that were taken away, each with its way back. */
export function PicturesAway({ studio, zone, said }: Props) {
  const { data } = useQuery(picturesAwayQuery(studio));
  const back = useRestorePicture();
  const away = data?.filter(({ id }) => id !== said) ?? [];
  if (away.length === 0) return null;
  return (
    <TakenAwayList
      label="Pictures that were taken away"
      away={away.map(({ id, title, taken_away_at: at }) => ({
        id,
        name: title,
        said: `${title}, on ${dated(Date.parse(at), zone)}`,
      }))}
      pending={back.isPending}
      error={back.error}
      onBack={(id) => back.mutate(id)}
    />
  );
}
