import type { Schemas } from '../../api/client';

/** How a condition stands, as a shape: filled square, half, hand's open square, barred, empty. */
export function Mark({ standing }: { standing: Schemas['ConditionOut']['standing'] }) {
  const edge = { fill: 'none', stroke: 'currentColor', strokeWidth: 2 } as const;
  return (
    <svg width={20} height={20} aria-hidden style={{ alignSelf: 'center' }}>
      <rect x={2} y={2} width={16} height={16} {...edge} />
      {standing === 'holds' && <rect x={2} y={2} width={16} height={16} fill="currentColor" />}
      {standing === 'waits' && <rect x={2} y={10} width={16} height={8} fill="currentColor" />}
      {standing === 'against' && <path d="M2 2 L18 18 M18 2 L2 18" {...edge} />}
      {standing === 'missed' && <path d="M2 10 H18" {...edge} />}
    </svg>
  );
}
