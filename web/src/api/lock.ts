/** One window of this browser at a time: with the browser's own locks, or, on plain http where it has none, with
 * a lease that is kept beside the entries. */

const LEASE = 'ulvek.lease';
/** How long a window that was closed in the middle holds up the others [ms]. [practice] longer than one sending */
const LEASE_MS = 12_000;
/** How often a window that waits looks again [ms]. */
const LOOK_MS = 250;

interface Lease {
  by: string;
  until: number;
}

const me = `${Date.now()}-${Math.random()}`;

function lease(): Lease | undefined {
  const text = localStorage.getItem(LEASE);
  try {
    return text ? (JSON.parse(text) as Lease) : undefined;
  } catch {
    return undefined;
  }
}

/** Takes or renews the lease; whether it is ours. */
export function holdLease(now = Date.now()): boolean {
  const held = lease();
  if (held && held.by !== me && held.until > now) return false;
  localStorage.setItem(LEASE, JSON.stringify({ by: me, until: now + LEASE_MS }));
  // Of two windows that wrote at once the last one has it.
  return lease()?.by === me;
}

function giveBack() {
  if (lease()?.by === me) localStorage.removeItem(LEASE);
}

/** Does `work` when no other window is at it. `hold` renews the claim before each step. */
export async function alone(name: string, work: (hold: () => boolean) => Promise<void>) {
  // Missing where the page is not in a secure context.
  const locks = (navigator as { locks?: LockManager }).locks;
  if (locks) {
    await locks.request(name, () => work(() => true));
    return;
  }
  while (!holdLease()) await new Promise((done) => setTimeout(done, LOOK_MS));
  try {
    await work(holdLease);
  } finally {
    giveBack();
  }
}
