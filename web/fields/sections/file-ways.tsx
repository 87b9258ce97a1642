import type { LibraryFile } from '#contract/files.ts';
import { Button } from '../../ui/button.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';

/** The ways from a section to its file: to choose another one here, and to the file itself, with all pages that show it. */
export function AnotherFile({ file, onNone }: { readonly file: LibraryFile; readonly onNone: () => void }) {
  const { setBeside } = useWorkbench();
  return (
    <p className="flex flex-wrap items-center gap-2 @md:col-span-2">
      <Button isTight onClick={onNone}>
        Choose another…
      </Button>
      <Button isTight look="quiet" onClick={() => setBeside({ kind: 'files', id: file.id })}>
        ‘{file.name}’ in the library
      </Button>
    </p>
  );
}
