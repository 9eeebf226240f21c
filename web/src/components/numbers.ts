/** Number fields of a form. One table says of each what it is called and which field of the formats it
 * is; its unit, its factor and where it may lie come from the catalogue. Field, check and message are
 * made from it. */
import { useState } from 'react';
import type { Schemas } from '../api/client';
import { typed } from '../format/number';
import { plain, start } from '../format/words';
import { useCatalogue, type Catalogue } from './catalogue';

type Range = Schemas['FieldOut'];

export interface NumberRow {
  /** Its name in the open formats. */
  field: string;
  /** What painters call it, without its unit. */
  label: string;
  /** Whether it may be left open. */
  open?: boolean;
  help?: string;
  /** Digits after the point that are shown of what is stored. */
  digits?: number;
}

export type NumberTable<K extends string> = Readonly<Record<K, NumberRow>>;
type Stored<K extends string> = Partial<Record<K, number | null>>;

export function rangeOf(catalogue: Catalogue, field: string): Range {
  const found = catalogue.fields.find((f) => f.field === field);
  if (!found) throw new Error(`the catalogue has no field "${field}"`);
  return found;
}

/** What is wrong with a text as a number of its range, in the words of the server; undefined when
 * nothing is. */
export function faultOf(row: NumberRow, range: Range, text: string): string | undefined {
  if (text.trim() === '' && row.open) return undefined;
  const value = typed(text);
  const name = start(range.name);
  const unit = range.unit === '' ? '' : ` ${range.unit}`;
  if (!Number.isFinite(value)) return `${name} must be a number.`;
  const [low, high] = [range.min * range.spoken, range.max * range.spoken];
  if (value >= low && value <= high) return undefined;
  return `${name} must be from ${plain(low, 6)} to ${plain(high, 6)}${unit}, not ${plain(value, 6)}${unit}.`;
}

/** The fields of a table while they are edited: texts as typed. */
export function useNumbers<K extends string>(table: NumberTable<K>, stored: NoInfer<Stored<K>>) {
  const catalogue = useCatalogue();
  const keys = Object.keys(table) as K[];
  const range = (key: K) => rangeOf(catalogue, table[key].field);
  const said = (of: Stored<K>) =>
    Object.fromEntries(
      keys.map((key) => {
        const value = of[key];
        const shown = value == null ? '' : plain(value * range(key).spoken, table[key].digits ?? 2);
        return [key, shown];
      }),
    ) as Record<K, string>;
  const [texts, setTexts] = useState(() => said(stored));
  const wrong: Partial<Record<K, string>> = {};
  for (const key of keys) {
    const fault = faultOf(table[key], range(key), texts[key]);
    if (fault) wrong[key] = fault;
  }
  /** The number as it is stored; undefined when it is left open. */
  const open = (key: K) => {
    if (texts[key].trim() === '') return undefined;
    // Untouched, it stays as it is stored, also where fewer digits are shown.
    const kept = stored[key];
    if (kept != null && texts[key] === said(stored)[key]) return kept;
    return typed(texts[key]) / range(key).spoken;
  };
  const unit = (key: K) => range(key).unit;
  return {
    texts,
    wrong,
    open,
    /** The number as it is stored, of a field that is not left open. */
    value: (key: K) => open(key) ?? NaN,
    set: (key: K, text: string) => setTexts((was) => ({ ...was, [key]: text })),
    /** Fills some fields anew. */
    fill: (of: Stored<K>) =>
      setTexts((was) => {
        const next = said(of);
        return { ...was, ...Object.fromEntries(Object.keys(of).map((k) => [k, next[k as K]])) };
      }),
    /** Whether any is other than what is stored. */
    changed: (of: Stored<K>, among: K[] = keys) => {
      const was = said(of);
      return among.some((key) => texts[key] !== was[key]);
    },
    row: (key: K) => table[key],
    label: (key: K) => (unit(key) === '' ? table[key].label : `${table[key].label}, ${unit(key)}`),
  };
}

export type Numbers<K extends string> = ReturnType<typeof useNumbers<K>>;
