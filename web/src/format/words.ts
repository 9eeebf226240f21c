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

export const STATE_ORDER = Object.keys(STATES) as FilmState[];

export const NEEDS: Record<NonNullable<Schemas['StepDoc']['needs']>, string> = {
  nothing: 'nothing: it may follow at once',
  touch_dry: 'touch-dry below',
  paintable: 'paintable below',
  dry_through: 'dry through below',
  ready_to_seal: 'ready to seal',
  ready_to_wrap: 'ready to wrap',
};

export const GROUNDS = [
  { um: 0, word: 'Sealed panel' },
  { um: 10, word: 'Primed panel' },
  { um: 20, word: 'Primed canvas' },
  { um: 60, word: 'Paper' },
  { um: 100, word: 'Raw canvas' },
] as const;

/** The ground's usual word for what it absorbs [um]. */
export const groundWord = (um: number) =>
  GROUNDS.find((g) => g.um === um)?.word ?? `Ground that absorbs ${um} µm`;

export const SPEEDS = [
  { m_s: 0.05, word: 'Still room' },
  { m_s: 0.15, word: 'Ordinary room' },
  { m_s: 0.5, word: 'Breezy' },
  { m_s: 1.0, word: 'Fan' },
] as const;

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

/** Containers of mixed colour, and how long it usually keeps in them. [practice] */
export const TIGHTNESS: Record<Schemas['TubDoc']['tightness'], string> = {
  airtight: 'Airtight tub: three weeks',
  leaky: 'Lid that leaks: five days',
  palette: 'Stay-wet palette: three days',
};

/** What a look into a tub can find. */
export const TROUBLES: Record<NonNullable<Schemas['TubCheckDoc']['found']>[number], string> = {
  skin: 'a skin or lumps',
  mould: 'mould',
  contamination: 'dirt that does not belong in it',
};

/** The two schools of thinning. */
export const SCHOOLS: Record<Schemas['ThinningDoc']['school'], string> = {
  medium_only: 'medium only',
  water_allowed: 'water allowed',
};
