/** The server's clock, heard with every answer: an answer itself may have been kept for a while. */

/** What every answer says the time with. */
const HEADER = 'x-ulvek-now';

let ahead: number | undefined;

/** Takes the time from an answer. */
export function hear(response: Response): void {
  const said = Date.parse(response.headers.get(HEADER) ?? '');
  if (Number.isFinite(said)) ahead = said - Date.now();
}

/** How far the server's clock is ahead of this machine's [ms]; not known before it answered. */
export const clockAhead = (): number | undefined => ahead;
