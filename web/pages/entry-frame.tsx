import type { ReactNode } from 'react';
import { Wordmark } from '../ui/wordmark.tsx';

/** The frame of the screens before the workbench: a track plan that runs past the words. */
export function EntryFrame({
  title,
  lead,
  children,
}: {
  readonly title: string;
  readonly lead: string;
  readonly children: ReactNode;
}) {
  return (
    <div className="grid min-h-full md:h-full md:grid-cols-[minmax(24rem,1fr)_1.2fr]">
      <main className="flex flex-col justify-center gap-6 px-6 py-10 md:px-16">
        <Wordmark size={30} />
        <div className="max-w-sm">
          <h1 className="font-display text-display leading-tight font-semibold tracking-tight">{title}</h1>
          <p className="mt-2 text-large text-quiet">{lead}</p>
        </div>
        <div className="w-full max-w-sm">{children}</div>
      </main>
      <TrackPlan />
    </div>
  );
}

function TrackPlan() {
  return (
    <div aria-hidden className="hidden overflow-hidden border-l border-rule bg-sunken md:block">
      <svg
        viewBox="0 0 600 800"
        preserveAspectRatio="xMinYMid slice"
        className="h-full w-full text-accent"
        fill="none"
        stroke="currentColor"
        strokeWidth="5"
        strokeLinecap="round"
      >
        <path d="M90 -20V820" />
        <path d="M90 130c0 70 90 30 90 100v20" />
        <path d="M180 255v100" />
        <path d="M180 345c0 60 90 30 90 90v20" strokeDasharray="2 14" />
        <path d="M90 450c0 70 100 30 100 100v290" />
        <g fill="var(--paper)">
          <circle cx="90" cy="110" r="12" />
          <circle cx="180" cy="245" r="10" />
          <circle cx="180" cy="345" r="10" />
          <circle cx="90" cy="430" r="12" />
          <circle cx="190" cy="560" r="10" />
          <circle cx="190" cy="645" r="10" />
          <circle cx="270" cy="462" r="9" />
        </g>
        <g stroke="none" fill="var(--ink)" className="font-display" fontSize="23" fontWeight="560">
          <text x="120" y="118">
            Home
          </text>
          <text x="208" y="253">
            Courses
          </text>
          <text x="208" y="353">
            Evening classes
          </text>
          <text x="298" y="470" fill="var(--quiet)">
            Winter covers, a draft
          </text>
          <text x="120" y="438">
            Visit
          </text>
          <text x="218" y="568">
            Workshops
          </text>
          <text x="218" y="653">
            Boats built
          </text>
        </g>
      </svg>
    </div>
  );
}
