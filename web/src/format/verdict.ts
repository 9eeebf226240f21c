/** One sentence of verdict for any moment: looks up what the server computed, computes nothing. */
import type { Schemas } from '../api/client';
import { moment } from './time';
import { allows, start, type FilmState } from './words';

type Coat = Schemas['CoatOut'];

export interface Verdict {
  /** What it is and what to do: said in bold. */
  head: string;
  /** What comes when. */
  rest: string;
  state?: FilmState;
}

/** Times closer than this are one time to a painter. [practice] two minutes */
const TOLD_APART_MS = 120_000;

const at = (text: string | null) => (text === null ? undefined : Date.parse(text));

/** The last coat there is at `t` of those that lie at one place. */
export const topCoat = (coats: Coat[], t: number) =>
  coats.findLast((coat) => Date.parse(coat.laid_at) <= t);

/** The laid coat that a picture is judged by now: the last one, and of several sections the slowest. */
export const laidTop = (picture: Schemas['PictureOutlook']) =>
  picture.coats.find((coat) => !coat.planned && coat.step === picture.top);

/** The state of a coat's stack at `t`, while nothing more is laid. */
export function stateAt(coat: Coat, t: number): FilmState {
  const passed = (text: string | null) => text !== null && Date.parse(text) <= t;
  const s = coat.if_left;
  if (passed(s.ready_to_seal_at)) return 'ready_to_seal';
  if (passed(s.dry_through_at)) return 'dry_through';
  if (passed(s.paintable_at)) return 'paintable';
  if (passed(s.touch_dry_at)) return 'touch_dry';
  if (passed(s.setting_at)) return 'setting';
  return 'workable';
}

/** The verdict for the coats of one place at `t`, followed for `horizonDays`; `finished` when no step is left to
 * do. */
export function verdict(
  coats: Coat[],
  t: number,
  zone: string,
  horizonDays: number,
  finished = false,
): Verdict {
  const coat = topCoat(coats, t);
  if (!coat) {
    return { head: 'Nothing is laid yet.', rest: 'The ground is free to work on.' };
  }
  const state = stateAt(coat, t);
  // A coat deep in a very high stack is not followed on its own: what is not known is not said.
  const said = (text: string | null, words: (when: string) => string, never = '') => {
    const when = at(text);
    if (when !== undefined) return words(moment(when, t, zone));
    return coat.followed ? never : '';
  };
  const name = start(coat.title);
  const { if_left: s } = coat;
  // What is expected is said beside what is sure, where the two are told apart and it is still to come.
  const likely = at(coat.likely?.paintable_at ?? null);
  const sure = at(s.paintable_at);
  const apart = likely !== undefined && sure !== undefined && sure - likely >= TOLD_APART_MS;
  const paintable = said(
    s.paintable_at,
    (w) =>
      apart && likely > t
        ? `Paintable by ${w}, likely from ${moment(likely, t, zone)}.`
        : `Paintable from ${w}.`,
    `Not paintable within ${horizonDays} days.`,
  );
  const sand = coat.seals
    ? ''
    : said(
        s.dry_through_at,
        (w) => `Do not sand before ${w}.`,
        `Not to be sanded within ${horizonDays} days.`,
      );
  // With paint still to come it is not sealed as it is.
  const seal =
    coat.seals || coat.paint_to_come
      ? ''
      : said(
          coat.seal_from,
          (w) => `Seal from ${w}.`,
          `Not cured for varnish within ${horizonDays} days.`,
        );
  const sealFrom = coat.paint_to_come ? undefined : at(coat.seal_from);
  const mayseal = sealFrom !== undefined && sealFrom <= t;
  const next = sealFrom === undefined ? '' : `Next coat from ${moment(sealFrom, t, zone)}.`;
  const again = coat.seals ? next : paintable;
  switch (state) {
    case 'workable':
      return {
        head: coat.seals
          ? `${name} is ${allows(state, true)}.`
          : `${name} is workable: blend, keep a wet edge.`,
        rest: coat.seals
          ? again
          : `${said(s.setting_at, (w) => `Leave it from ${w}.`)} ${again}`.trim(),
        state,
      };
    case 'setting':
      return {
        head: `${name} is setting: leave it.`,
        rest: `${again} ${sand} ${seal}`.trim(),
        state,
      };
    case 'touch_dry':
      return {
        head: `${name} is touch-dry: do not ${coat.seals ? 'coat' : 'paint over'} it yet.`,
        rest: `${again} ${sand} ${seal}`.trim(),
        state,
      };
    case 'paintable':
      return {
        head: coat.seals ? `${name} is dry to the touch.` : `${name} is paintable.`,
        rest: coat.seals ? sealedRest(mayseal, next) : `${sand} ${seal}`.trim(),
        state,
      };
    default: {
      if (coat.seals) {
        return finished
          ? { head: 'Sealed and finished.', rest: `${name} is dry through.`, state }
          : { head: `${name} is dry through.`, rest: sealedRest(mayseal, next), state };
      }
      if (mayseal) {
        return { head: 'Ready to seal.', rest: `${name} and all below are cured.`, state };
      }
      return { head: `${name} is dry through: paint, sand or tape.`, rest: seal, state };
    }
  }
}

/** What is said after a sealing coat that is dry. */
const sealedRest = (mayNext: boolean, next: string) => (mayNext ? 'The next coat is safe.' : next);
