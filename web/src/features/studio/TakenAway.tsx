import { useQuery } from '@tanstack/react-query';
import { useRestoreStudio } from '../../api/edits';
import { takenAwayQuery } from '../../api/queries';
import { TakenAwayList } from '../../components/TakenAwayList';
import { exact } from '../../format/time';

/** Where no studio is open, the time zone is that of this machine. */
const HERE = Intl.DateTimeFormat().resolvedOptions().timeZone;

/** Studios that were taken away, each with its way back. */
export function TakenAway({
  onBack,
  zone = HERE,
}: {
  onBack?: (id: string) => void;
  zone?: string;
}) {
  const away = useQuery(takenAwayQuery);
  const back = useRestoreStudio();
  if (!away.data || away.data.length === 0) return null;
  return (
    <TakenAwayList
      label="Studios that were taken away"
      away={away.data.map(({ id, name, created_at: at }) => ({
        id,
        name,
        said: `${name}, begun ${exact(Date.parse(at), zone)}`,
      }))}
      pending={back.isPending}
      error={back.error}
      onBack={(id) => back.mutate(id, { onSuccess: (made) => onBack?.(made.id) })}
    />
  );
}
