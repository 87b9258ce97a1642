import type { ReactNode } from 'react';

/** One of the things that somebody sets for themselves. */
export function Part({
  title,
  lead,
  children,
}: {
  readonly title: string;
  readonly lead?: string;
  readonly children: ReactNode;
}) {
  return (
    <section aria-label={title} className="flex flex-col gap-3">
      <div>
        <h2 className="font-display text-title leading-tight font-semibold">{title}</h2>
        {lead !== undefined && <p className="mt-0.5 text-quiet">{lead}</p>}
      </div>
      {children}
    </section>
  );
}
