/** Sends the entries that wait in this browser, in order and in one go. An entry is stored before it is sent
 * first, so that it outlives a request that hangs and a tab that is closed. */
import { ApiError } from './client';
import { alone } from './lock';
import {
  ask,
  letGo,
  next,
  send,
  sent,
  stir,
  wait,
  waiting,
  type Answers,
  type Kind,
  type Waiting,
} from './waiting';

const KEPT_ALREADY = 'urn:ulvek:problem:kept-already';
/** Statuses after which the very same entry may be taken later: no answer, too much at once, away. */
const LATER = [0, 429, 503];

/** What became of an entry: the server's answer, nothing when it waits, or why it was not taken. */
type Outcome = { answer?: unknown } | { refused: ApiError };

/** Entries whose form is still open in this window: a refusal goes there and leaves nothing behind. */
const open = new Map<string, (outcome: Outcome) => void>();

/** Whether an entry is sent for the first time just now: nobody needs to hear that it waits. */
export const isNew = ({ key }: Waiting) => open.has(key);

function tell(entry: Waiting, outcome: Outcome): boolean {
  const heard = open.get(entry.key);
  open.delete(entry.key);
  heard?.(outcome);
  return heard !== undefined;
}

/** Sends one entry; whether the next one may follow. */
async function sendOne(entry: Waiting): Promise<boolean> {
  try {
    const answer = await send(entry.kind, entry.of, entry.key, entry.body as never);
    sent(entry);
    tell(entry, { answer });
    return true;
  } catch (error) {
    if (!(error instanceof ApiError)) throw error;
    const { status, type } = error.problem;
    if (type === KEPT_ALREADY) {
      sent(entry);
      tell(entry, {});
      return true;
    }
    if (LATER.includes(status)) return false;
    if (status < 500 && tell(entry, { refused: error })) letGo(entry);
    else ask(entry, error.message);
    return true;
  }
}

let draining: Promise<void> | undefined;

/** Sends everything that can be sent now. Asked for while it goes on, it goes on. */
export function drain(): Promise<void> {
  let through = false;
  draining ??= alone('ulvek.waiting', async (hold) => {
    for (let one = next(waiting()); one && hold(); one = next(waiting())) {
      if (!(await sendOne(one))) return;
    }
    through = true;
  }).finally(() => {
    draining = undefined;
    const one = next(waiting());
    if (through && one && isNew(one)) {
      // It came in while the last window was being let go.
      void drain().catch(() => undefined);
      return;
    }
    // Whoever still listens for an answer is told that it waits.
    for (const [key, heard] of [...open]) {
      open.delete(key);
      heard({});
    }
    stir();
  });
  return draining;
}

/** Keeps an entry in this browser and sends it: its answer, or nothing when it waits. */
export async function deliver<K extends Kind>(
  entry: Waiting & { kind: K },
): Promise<Answers[K] | undefined> {
  wait(entry);
  const outcome = new Promise<Outcome>((heard) => open.set(entry.key, heard));
  void drain().catch(() => undefined);
  const known = await outcome;
  if ('refused' in known) throw known.refused;
  return known.answer as Answers[K] | undefined;
}
