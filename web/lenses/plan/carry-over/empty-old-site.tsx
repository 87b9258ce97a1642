import { Globe } from 'lucide-react';
import { Button } from '../../../ui/button.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';

/** What stands where no old site is known yet. */
export function EmptyOldSite() {
  const { setBeside, mayEdit } = useWorkbench();
  return (
    <div className="flex flex-1 flex-col items-center justify-center gap-1 bg-raised p-8 text-center">
      <p className="font-display text-large font-semibold">Which old page becomes which new one?</p>
      <p className="max-w-md text-quiet">
        Import the addresses of the old site, and Spur proposes which planned page takes over each one. What you accept
        becomes a redirect when the site goes live.
      </p>
      {mayEdit && (
        <Button look="main" className="mt-3" onClick={() => setBeside({ kind: 'old-site', id: null })}>
          <Globe size={16} aria-hidden /> Import the old site…
        </Button>
      )}
    </div>
  );
}
