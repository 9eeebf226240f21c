/** Entries that could not be sent: they wait in this browser, each with an id of its own, and are sent
 * once, in order. */
import { useSyncExternalStore } from 'react';
import { client, unwrap, type Schemas } from './client';

const KEPT = 'ulvek.waiting';

interface Bodies {
  laid: Schemas['Laid'];
  touched: Schemas['Touched'];
  happened: Schemas['Told'];
  daybook: Schemas['ToldThere'];
}

export type Kind = keyof Bodies;

export interface Answers {
  laid: Schemas['PictureOut'];
  touched: Schemas['TouchedOut'];
  happened: Schemas['HappenedOut'];
  daybook: Schemas['HappeningDoc'];
}

export interface Waiting {
  /** Its own id: sent twice it changes nothing the second time. */
  key: string;
  kind: Kind;
  /** The picture it is about, or the studio for its day book. */
  of: string;
  /** What it is, in the painter's words. */
  said: string;
  /** When it was entered [ms]. */
  since: number;
  body: Bodies[Kind];
  /** Why it was not taken: a question to the painter. */
  against?: string;
}

const listeners = new Set<() => void>();
let read: { text: string | null; list: Waiting[] } = { text: null, list: [] };

/** What waits, the first entered first. */
export function waiting(): Waiting[] {
  const text = localStorage.getItem(KEPT);
  if (text !== read.text) read = { text, list: text ? (JSON.parse(text) as Waiting[]) : [] };
  return read.list;
}

function keep(list: Waiting[]) {
  localStorage.setItem(KEPT, JSON.stringify(list));
  for (const listener of listeners) listener();
}

/** Lets every view look at the list again: something beside it has changed. */
export function stir() {
  read = { text: null, list: [] };
  for (const listener of listeners) listener();
}

function subscribe(listener: () => void) {
  listeners.add(listener);
  // Another window of the same browser sends too.
  window.addEventListener('storage', listener);
  return () => {
    listeners.delete(listener);
    window.removeEventListener('storage', listener);
  };
}

export const useWaiting = () => useSyncExternalStore(subscribe, waiting);

/** The version of the picture that an entry is made on; one of the day book stands by itself. */
const versionOf = ({ body }: Waiting) => ('version' in body ? body.version : undefined);

/** The entries of a picture, each made on the version that the one before it leaves. */
function numbered(list: Waiting[], of: string, first: number): Waiting[] {
  let version = first;
  return list.map((w) =>
    w.of === of && versionOf(w) !== undefined
      ? { ...w, body: { ...w.body, version: version++ } }
      : w,
  );
}

/** Without `entry`; those behind it follow on the version that is `on` by its own. */
function without(entry: Waiting, on: number): void {
  // Another window was faster: what it left is numbered already.
  if (!waiting().some((w) => w.key === entry.key)) return;
  const rest = waiting().filter((w) => w.key !== entry.key);
  const version = versionOf(entry);
  keep(version === undefined ? rest : numbered(rest, entry.of, version + on));
}

/** Lets an entry wait behind the others of its picture. */
export function wait(entry: Waiting): void {
  const list = waiting();
  const own = versionOf(entry);
  if (own === undefined) {
    keep([...list, entry]);
    return;
  }
  const before = list.findLast((w) => w.of === entry.of);
  const version = Math.max(own, ((before && versionOf(before)) ?? -1) + 1);
  keep([...list, { ...entry, body: { ...entry.body, version } }]);
}

/** An entry is kept by the server: those behind it follow on the next version. */
export function sent(entry: Waiting): void {
  without(entry, 1);
}

/** The painter lets an entry go. */
export function letGo(entry: Waiting): void {
  without(entry, 0);
}

/** An entry was not taken: it becomes a question. */
export function ask(entry: Waiting, against: string): void {
  keep(waiting().map((w) => (w.key === entry.key ? { ...w, against } : w)));
}

/** The painter wants an entry all the same, over what is stored at `version`. */
export function insist(entry: Waiting, version: number): void {
  const list = waiting().map((w) => (w.key === entry.key ? { ...w, against: undefined } : w));
  keep(numbered(list, entry.of, version));
}

/** The first entry that can be sent now: one that is a question holds up those of its picture. */
export function next(list: Waiting[]): Waiting | undefined {
  const held = new Set<string>();
  for (const w of list) {
    if (w.against) held.add(versionOf(w) === undefined ? w.key : w.of);
    if (!held.has(w.of) && !held.has(w.key)) return w;
  }
  return undefined;
}

/** What is said of an entry about a picture or a studio that has no answer yet: why. */
export function whyWaits(of: string): string {
  const mine = waiting().filter((w) => w.of === of);
  if (mine.length === 0) return 'It is kept. The plan follows.';
  return mine.some((w) => w.against && versionOf(w) !== undefined)
    ? 'It waits in this browser behind the question that is open above. The plan follows then.'
    : 'Ulvek does not answer: it waits in this browser and is sent by itself. The plan follows then.';
}

/** How long an answer is waited for before the entry counts as not sent [ms]. [practice] */
const DEADLINE_MS = 8_000;

const PATHS = {
  laid: '/api/pictures/{id}/laid',
  touched: '/api/pictures/{id}/touched',
  happened: '/api/pictures/{id}/happened',
  daybook: '/api/studios/{id}/daybook',
} as const;

/** Holds that an answer is the entry's own: something in between may answer too, with nothing or a page. */
function own<T extends { response: Response }>(answer: T, key: string): T {
  if (answer.response.headers.get('idempotency-key') !== key) throw new Error('not its own answer');
  return answer;
}

/** Sends an entry with its own id. */
export function send<K extends Kind>(
  kind: K,
  id: string,
  key: string,
  body: Bodies[K],
): Promise<Answers[K]> {
  const params = { path: { id }, header: { 'idempotency-key': key } };
  // One of the four: which body and answer go with which path is said by `Bodies` and `Answers`.
  const path = PATHS[kind] as typeof PATHS.laid;
  const signal = AbortSignal.timeout(DEADLINE_MS);
  const asked = client.POST(path, { params, body: body as Bodies['laid'], signal });
  return unwrap(asked.then((answer) => own(answer, key))) as Promise<Answers[Kind]> as Promise<
    Answers[K]
  >;
}
