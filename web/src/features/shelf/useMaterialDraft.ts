/** A material while it is edited: texts as typed. */
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { typed } from '../../format/number';
import { plain } from '../../format/words';
import { v4 as newId } from 'uuid';

type Material = Schemas['MaterialDoc'];

/** Numbers that may be left open, with the factor from what is stored to what is said. */
const OPEN = {
  binder: 100,
  density_g_ml: 1,
  pace: 1,
  most_retarder: 100,
  most_water: 100,
} as const;
const SHARES = ['solids', 'water', 'glycol'] as const;

type OpenField = keyof typeof OPEN;
type ShareField = (typeof SHARES)[number];

export interface MaterialDraft {
  name: string;
  kind: string;
  line: NonNullable<Material['line']> | '';
  opacity: NonNullable<Material['opacity']> | '';
  finish: NonNullable<Material['finish']> | '';
  numbers: Record<OpenField | ShareField, string>;
  pigments: string;
  hazards: string;
  source: string;
  swatch: string;
  stock: string;
}

const said = (value: number | null | undefined, factor: number) =>
  value == null ? '' : plain(value * factor, 2);

export function useMaterialDraft(
  material: Material | undefined,
  leftMl: number | null,
  now: number,
) {
  const [draft, setDraft] = useState<MaterialDraft>(() => ({
    name: material?.name ?? '',
    kind: material?.kind ?? 'paint',
    line: material?.line ?? '',
    opacity: material?.opacity ?? '',
    finish: material?.finish ?? '',
    numbers: {
      // A new paint starts as an ordinary heavy one.
      solids: said(material?.solids ?? 0.42, 100),
      water: said(material?.water ?? 0.53, 100),
      glycol: said(material?.glycol ?? 0.05, 100),
      binder: said(material?.binder, 100),
      density_g_ml: said(material?.density_g_ml, 1),
      pace: said(material?.pace, 1),
      most_retarder: said(material?.most_retarder, 100),
      most_water: said(material?.most_water, 100),
    },
    pigments: (material?.pigments ?? []).join(', '),
    hazards: material?.hazards ?? '',
    source: material?.source ?? '',
    swatch: material?.swatch ?? '#8d8d8d',
    stock: leftMl === null ? '' : plain(leftMl),
  }));
  const wrong: Partial<Record<OpenField | ShareField | 'name' | 'stock' | 'sum', string>> = {};
  if (draft.name.trim() === '') wrong.name = 'Give it a name.';
  for (const field of SHARES) {
    if (!(typed(draft.numbers[field]) >= 0)) wrong[field] = 'Give per cent.';
  }
  const sum = SHARES.reduce((all, field) => all + typed(draft.numbers[field]), 0);
  if (Number.isFinite(sum) && Math.abs(sum - 100) > 1.1)
    wrong.sum = `Solids, water and slow volatile must sum to 100 %, not ${plain(sum)} %.`;
  for (const field of Object.keys(OPEN) as OpenField[]) {
    const text = draft.numbers[field];
    if (text !== '' && !(typed(text) >= 0)) wrong[field] = 'Give a number, or leave it open.';
  }
  if (draft.stock !== '' && !(typed(draft.stock) >= 0)) wrong.stock = 'Give millilitres.';

  const open = (field: OpenField) =>
    draft.numbers[field] === '' ? undefined : typed(draft.numbers[field]) / OPEN[field];
  const share = (field: ShareField) => typed(draft.numbers[field]) / 100;
  /** The material as it would be kept. */
  const made = (): Material => ({
    ...material,
    id: material?.id ?? newId(),
    name: draft.name.trim(),
    kind: draft.kind,
    solids: share('solids'),
    water: share('water'),
    glycol: share('glycol'),
    binder: open('binder'),
    density_g_ml: open('density_g_ml'),
    pace: open('pace'),
    most_retarder: open('most_retarder'),
    most_water: open('most_water'),
    line: draft.line || undefined,
    opacity: draft.opacity || undefined,
    finish: draft.finish || undefined,
    pigments: draft.pigments
      .split(/[,;\s]+/)
      .map((p) => p.trim())
      .filter(Boolean),
    hazards: draft.hazards.trim() || undefined,
    source: draft.source.trim() || undefined,
    swatch: draft.swatch,
    // A count that was not touched goes on from when it was made.
    stock:
      draft.stock === ''
        ? undefined
        : leftMl !== null && draft.stock === plain(leftMl)
          ? material?.stock
          : { ml: typed(draft.stock), at: new Date(now).toISOString() },
  });
  return {
    draft,
    change: (part: Partial<MaterialDraft>) => setDraft((was) => ({ ...was, ...part })),
    setNumber: (field: OpenField | ShareField, text: string) =>
      setDraft((was) => ({ ...was, numbers: { ...was.numbers, [field]: text } })),
    wrong,
    made,
  };
}
