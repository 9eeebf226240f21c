/** Finding things on the shelf. */
import type { Schemas } from '../../api/client';

type Material = Schemas['MaterialDoc'];

/** The shelf's boards, from the paints to what belongs nowhere else. */
export const BOARDS = [
  { title: 'Paints', kinds: ['paint'] },
  { title: 'Mediums and helpers', kinds: ['medium', 'retarder', 'flow_aid', 'water'] },
  { title: 'Primers', kinds: ['primer'] },
  { title: 'Varnishes', kinds: ['varnish', 'solvent_varnish'] },
  { title: 'Other', kinds: [] },
] as const;

/** The board a material stands on. */
export const boardOf = (kind: string): string =>
  BOARDS.find((b) => (b.kinds as readonly string[]).includes(kind))?.title ?? 'Other';

/** Whether every word of `text` is somewhere in a material: name, line, pigment, finish, kind. */
export function matches(material: Material, text: string): boolean {
  const said = [
    material.name,
    material.kind.replace('_', ' '),
    material.line ?? '',
    material.finish ?? '',
    material.opacity?.replace('_', '-') ?? '',
    ...(material.pigments ?? []),
  ]
    .join(' ')
    .toLowerCase();
  return text
    .toLowerCase()
    .split(/\s+/)
    .every((word) => said.includes(word));
}
