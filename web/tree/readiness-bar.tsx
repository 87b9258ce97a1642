import { READINESS } from '#core/model/plan.ts';

const LOOKS = ['fill-rule', 'fill-accent/35', 'fill-accent/65', 'fill-accent'] as const;

/** How many pages of a branch are how far, as one bar: ready ones first, those that wait for a start last. */
export function ReadinessBar({ counts, width }: { readonly counts: readonly number[]; readonly width: number }) {
  const total = counts.reduce((sum, count) => sum + count, 0);
  if (total === 0) return null;
  const scale = width / total;
  const before = (at: number) => counts.slice(at + 1).reduce((sum, count) => sum + count, 0);
  return (
    <svg width={width} height="8" aria-hidden className="shrink-0 rounded-sm">
      {READINESS.map((readiness, at) => (
        <rect key={readiness} x={before(at) * scale} width={counts[at]! * scale} height="8" className={LOOKS[at]} />
      ))}
    </svg>
  );
}
