import { railX, railsWidth } from './rails.tsx';
import { TitleInput } from './title-input.tsx';
import { type Adding, placeKey, useNewPage } from './use-new-page.ts';

/** The row in which a new page is typed. */
export function NewRow({ adding, depth }: { readonly adding: Adding; readonly depth: number }) {
  const input = useNewPage(adding);
  const x = railX(depth);
  return (
    <div role="row" className="flex h-row items-center bg-accent-soft pr-2 pl-1">
      <div role="gridcell" className="flex min-w-0 flex-1 items-center">
        <svg width={railsWidth(depth)} height="32" fill="none" aria-hidden className="shrink-0 text-accent">
          <path d={`M${x} 0V16`} stroke="currentColor" strokeWidth="2" strokeDasharray="3.5 3" />
          <circle cx={x} cy="16" r="4.5" fill="var(--raised)" stroke="currentColor" strokeWidth="2" />
        </svg>
        <span className="mr-0.5 size-5 shrink-0" />
        <TitleInput key={placeKey(adding)} {...input} />
      </div>
    </div>
  );
}
