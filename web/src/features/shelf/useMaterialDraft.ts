/** A material while it is edited: texts as typed. */
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { useCatalogue } from '../../components/catalogue';
import { useNumbers } from '../../components/numbers';
import { plain } from '../../format/words';
import { v4 as newId } from 'uuid';

type Material = Schemas['MaterialDoc'];

/** The numbers of a material. */
const NUMBERS = {
  solids: { field: 'solids', label: 'Solids by volume' },
  water: { field: 'water', label: 'Water' },
  glycol: { field: 'glycol', label: 'Slow volatile' },
  spirit: { field: 'spirit', label: 'Spirit', help: 'Of a spirit-borne varnish; then no water.' },
  binder: { field: 'binder', label: 'Binder', open: true, help: 'A part of the solids.' },
  density_g_ml: { field: 'density_g_ml', label: 'Density', open: true },
  pace: { field: 'pace', label: 'Pace', open: true, help: '2 dries twice as slowly as computed.' },
  most_retarder: {
    field: 'most_retarder',
    label: 'Retarder at most',
    open: true,
    help: 'When its label says less than usual.',
  },
  most_water: {
    field: 'most_water',
    label: 'Water at most',
    open: true,
    help: 'When its label says less than usual.',
  },
  slow_volatility: {
    field: 'slow_volatility',
    label: 'Volatility',
    open: true,
    help: 'Of its slow volatile, beside propylene glycol: 0.4 leaves at 0.4 of its speed.',
  },
  swatch_dry_um: {
    field: 'swatch_dry_um',
    label: 'Swatch, dry',
    open: true,
    help: 'How thick the film over the two cards is.',
  },
  white_parts: {
    field: 'white_parts',
    label: 'White to one part of it',
    help: 'By volume, as they come from the tube.',
  },
  stock: {
    field: 'ml',
    label: 'There is now',
    open: true,
    help: 'Left open, it is not counted.',
    digits: 1,
  },
} as const;
const SHARES = ['solids', 'water', 'glycol', 'spirit'] as const;

export interface MaterialDraft {
  name: string;
  kind: string;
  line: NonNullable<Material['line']> | '';
  opacity: NonNullable<Material['opacity']> | '';
  finish: NonNullable<Material['finish']> | '';
  pigments: string;
  hazards: string;
  source: string;
  swatch: string;
  /** Whether it was read over a white and a black card. */
  read: boolean;
  overWhite: string;
  overBlack: string;
  /** Whether its tint was made. */
  tinted: boolean;
  tint: string;
  /** The white in it, by its name on the shelf. */
  white: string;
  /** Where these colours come from. */
  colourSource: string;
  /** The cards they were read over. */
  cards: Material['cards'];
}

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
    pigments: (material?.pigments ?? []).join(', '),
    hazards: material?.hazards ?? '',
    source: material?.source ?? '',
    swatch: material?.swatch ?? '#8d8d8d',
    read: !!material?.over_white,
    overWhite: material?.over_white ?? '#8d8d8d',
    overBlack: material?.over_black ?? '#4a4a4a',
    tinted: !!material?.tint,
    tint: material?.tint?.colour ?? '#b4b4b4',
    white: material?.tint?.white ?? '',
    colourSource: material?.colour_source ?? '',
    cards: material?.cards,
  }));
  const { new_material: fresh } = useCatalogue();
  const numbers = useNumbers(NUMBERS, {
    // A new paint starts as an ordinary one.
    solids: material?.solids ?? fresh.solids,
    water: material?.water ?? fresh.water,
    glycol: material?.glycol ?? fresh.glycol,
    spirit: material?.spirit ?? 0,
    binder: material?.binder,
    density_g_ml: material?.density_g_ml,
    pace: material?.pace,
    most_retarder: material?.most_retarder,
    most_water: material?.most_water,
    slow_volatility: material?.slow_volatility,
    swatch_dry_um: material?.swatch_dry_um,
    white_parts: material?.tint?.white_parts ?? fresh.white_parts,
    stock: leftMl,
  });
  const wrong: Partial<Record<keyof typeof NUMBERS | 'name' | 'sum' | 'white', string>> = {
    ...numbers.wrong,
  };
  if (draft.name.trim() === '') wrong.name = 'Give it a name.';
  if (draft.read && draft.tinted && draft.white === '') wrong.white = 'Say which white is in it.';
  const sum = SHARES.reduce((all, field) => all + numbers.value(field), 0);
  if (Number.isFinite(sum) && Math.abs(sum - 1) > fresh.sum_tolerance)
    wrong.sum = `Solids, water, slow volatile and spirit must sum to 100 %, not ${plain(sum * 100)} %.`;
  const stock = numbers.open('stock');
  /** The material as it would be kept. */
  const made = (): Material => ({
    ...material,
    id: material?.id ?? newId(),
    name: draft.name.trim(),
    kind: draft.kind,
    solids: numbers.value('solids'),
    water: numbers.value('water'),
    glycol: numbers.value('glycol'),
    spirit: numbers.value('spirit'),
    binder: numbers.open('binder'),
    density_g_ml: numbers.open('density_g_ml'),
    pace: numbers.open('pace'),
    most_retarder: numbers.open('most_retarder'),
    most_water: numbers.open('most_water'),
    slow_volatility: numbers.open('slow_volatility'),
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
    over_white: draft.read ? draft.overWhite : undefined,
    over_black: draft.read ? draft.overBlack : undefined,
    swatch_dry_um: draft.read ? numbers.open('swatch_dry_um') : undefined,
    cards: draft.read ? draft.cards : undefined,
    tint:
      draft.read && draft.tinted
        ? { colour: draft.tint, white: draft.white, white_parts: numbers.value('white_parts') }
        : undefined,
    colour_source: draft.read ? draft.colourSource.trim() || undefined : undefined,
    // A count that was not touched goes on from when it was made.
    stock:
      stock === undefined
        ? undefined
        : leftMl !== null && plain(stock) === plain(leftMl)
          ? material?.stock
          : { ml: stock, at: new Date(now).toISOString() },
  });
  return {
    draft,
    change: (part: Partial<MaterialDraft>) => setDraft((was) => ({ ...was, ...part })),
    numbers,
    wrong,
    made,
  };
}
