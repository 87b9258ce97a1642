import { Info, ListTree, PanelsTopLeft } from 'lucide-react';
import { Button } from '../../ui/button.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';

/** The menus of the site; it stands above the tree in the Menus lens. */
export function MenusBar() {
  const { site, setDialog } = useWorkbench();
  return (
    <div className="flex min-h-9 flex-wrap items-center gap-x-3 gap-y-1 border-b border-rule bg-paper px-4 py-1 text-small max-md:px-2">
      <p className="text-quiet max-md:hidden">In the tree you move pages. Move menu entries in the side sheet.</p>
      <div className="ml-auto flex flex-wrap items-center gap-0.5">
        <Button look="quiet" isTight onClick={() => setDialog('menus')}>
          <ListTree size={15} aria-hidden /> Menus ({site.settings.menus.length})
        </Button>
        <Button look="quiet" isTight onClick={() => setDialog('layouts')}>
          <PanelsTopLeft size={15} aria-hidden /> Layouts ({site.settings.layouts.length})
        </Button>
        <Button look="quiet" isTight onClick={() => setDialog('facts')}>
          <Info size={15} aria-hidden /> Facts
        </Button>
      </div>
    </div>
  );
}
