/** The studio's words for the names of the API. */
import type { Schemas } from '../api/client';

export type FilmState = Schemas['FilmOut']['state'][number];

/** Each state: what it is called, and what it means at the easel. */
export const STATES: Record<FilmState, { word: string; means: string }> = {
  workable: { word: 'workable', means: 'blend, wipe, keep a wet edge' },
  setting: { word: 'setting', means: 'leave it alone' },
  touch_dry: { word: 'touch-dry', means: 'a fingertip takes nothing; not to be painted over yet' },
  paintable: { word: 'paintable', means: 'the next coat is safe' },
  dry_through: { word: 'dry through', means: 'sand, stencil, tape' },
  ready_to_seal: { word: 'ready to seal', means: 'cured enough for varnish' },
  ready_to_wrap: { word: 'ready to wrap', means: 'the face may be touched' },
};

/** A state and what it allows. Wet varnish is left alone, whatever paint would allow. */
export const allows = (state: FilmState, seals: boolean) =>
  seals && state === 'workable' ? 'wet: leave it' : `${STATES[state].word}: ${STATES[state].means}`;

/** What the marks beside rules and numbers say. */
const MARKS = [
  ['[memory]', '(typical, not measured)'],
  ['[practice]', '(common practice)'],
  ['[source]', '(source)'],
] as const;

/** A sentence with its marks in words. */
export const marked = (text: string) =>
  MARKS.reduce((said, [mark, words]) => said.replaceAll(mark, words), text);

/** First letter large. */
export const start = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

/** A number as it is said at the bench. */
export const plain = (n: number, digits = 1) => String(Number(n.toFixed(digits)));

/** A mix as parts: `90 Glazing liquid : 10 Phthalo blue`. */
export function mixWords(mix: Schemas['PartDoc'][], materials: Schemas['MaterialDoc'][]): string {
  if (mix.length === 0) return '';
  return mix
    .map((part) => {
      const name = materials.find((m) => m.id === part.material)?.name ?? part.material;
      return mix.length === 1 ? name : `${plain(part.parts)} ${name}`;
    })
    .join(' : ');
}
