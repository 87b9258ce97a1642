import { DndContext, pointerWithin, useDraggable } from '@dnd-kit/core';
import { GripVertical } from 'lucide-react';
import { type ReactNode, useMemo } from 'react';
import type { Layout, MenuSlot } from '#core/model/layout.ts';
import type { Menu, MenuId } from '#core/model/menu.ts';
import { dragWords } from '../../drag/drag-words.ts';
import { useDragSensors } from '../../drag/use-drag-sensors.ts';
import { menuName } from '../../tree/words.ts';
import { usePreview } from '../../workbench/use-preview.ts';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { PutMenuProvider } from './menu-place.ts';

/** The menus of the site below the drawing of a layout: each is dragged into one of its places. */
export function PlaceMenus({
  layout,
  onSet,
  children,
}: {
  readonly layout: Layout;
  readonly onSet: (slots: Layout['menus']) => void;
  /** The drawing. */
  readonly children: ReactNode;
}) {
  const { site, mayEdit } = useWorkbench();
  const { menus } = site.settings;
  const consider = usePreview();
  const sensors = useDragSensors();
  const withMenu = (slot: MenuSlot, menu: MenuId | null) => ({ ...layout.menus, [slot]: menu });
  const accessibility = useMemo(
    () =>
      dragWords((id) => {
        const menu = menus.find((one) => one.id === id);
        return menu ? `‘${menuName(menu)}’` : 'The menu';
      }, 'By keys, each place in the drawing is a choice of the menus.'),
    [menus],
  );
  return (
    <PutMenuProvider value={(slot, menu) => onSet(withMenu(slot, menu))}>
      <DndContext
        sensors={sensors}
        collisionDetection={pointerWithin}
        autoScroll={false}
        accessibility={accessibility}
        onDragOver={({ active, over }) =>
          consider(
            over && [
              {
                name: 'layout.set',
                layout: layout.id,
                fields: { menus: withMenu(over.id as MenuSlot, active.id as MenuId) },
              },
            ],
          )
        }
        onDragEnd={({ active, over }) => {
          consider(null);
          if (over) onSet(withMenu(over.id as MenuSlot, active.id as MenuId));
        }}
        onDragCancel={() => consider(null)}
      >
        {children}
        {mayEdit && menus.length > 0 && (
          <ul aria-label="Menus to drag into the drawing" className="-mt-1 flex flex-wrap gap-1.5">
            {menus.map((menu) => (
              <MenuBlock key={menu.id} menu={menu} />
            ))}
          </ul>
        )}
      </DndContext>
    </PutMenuProvider>
  );
}

function MenuBlock({ menu }: { readonly menu: Menu }) {
  const { setNodeRef, listeners, transform } = useDraggable({ id: menu.id });
  return (
    // For the pointer: by keys each place of the drawing is a choice of the menus.
    // eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions
    <li
      ref={setNodeRef}
      onMouseDown={listeners?.onMouseDown as undefined}
      onTouchStart={listeners?.onTouchStart as undefined}
      style={transform ? { transform: `translate(${transform.x}px, ${transform.y}px)` } : undefined}
      className={`inline-flex h-7 cursor-grab touch-none items-center gap-1 rounded-md border bg-raised pr-2 pl-1 text-small ${transform ? 'pointer-events-none relative z-10 border-accent shadow-sheet' : 'border-edge'}`}
    >
      <GripVertical size={13} aria-hidden className="text-quiet" />
      {menuName(menu)}
    </li>
  );
}
