import { CircleAlert } from 'lucide-react';
import type { ReactNode } from 'react';

/** What is wrong, where it happened. Read aloud when it appears. */
export function Notice({ children }: { readonly children: ReactNode }) {
  return (
    <div role="alert" className="flex items-start gap-2 rounded-md bg-danger-soft px-3 py-2 text-danger">
      <CircleAlert size={18} aria-hidden className="mt-0.5 shrink-0" />
      <div>{children}</div>
    </div>
  );
}
