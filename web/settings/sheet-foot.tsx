import type { ReactNode } from 'react';

/** What a sheet ends with: what is done, at the foot of what shows of it. */
export function SheetFoot({ children }: { readonly children: ReactNode }) {
  return (
    <div className="sticky -bottom-4 -mx-4 -mb-4 flex flex-wrap items-center justify-end gap-2 border-t border-rule bg-paper px-4 py-3">
      {children}
    </div>
  );
}
