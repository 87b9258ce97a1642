import type { Editor } from '@tiptap/core';
import { Command } from 'cmdk';
import { Plus } from 'lucide-react';
import { INSERTABLE } from '#core/sections/all-sections.ts';
import { Popover } from '../../ui/popover.tsx';
import { insertSection, writeOn } from './insert-section.ts';

/** The list of all that can be put into a text, by typing part of its name. */
export function InsertList({
  editor,
  isOpen,
  onOpenChange,
}: {
  readonly editor: Editor;
  readonly isOpen: boolean;
  readonly onOpenChange: (isOpen: boolean) => void;
}) {
  return (
    <Popover
      label="Insert a section"
      className="w-80 p-1"
      isOpen={isOpen}
      onOpenChange={onOpenChange}
      focusAfter={() => writeOn(editor)}
      trigger={
        <button
          type="button"
          title="Insert a section (Ctrl+Enter)"
          className="inline-flex h-8 items-center gap-1 rounded-md px-2 font-medium hover:bg-sunken"
        >
          <Plus size={16} aria-hidden /> Insert
        </button>
      }
    >
      <Command label="Insert a section">
        <Command.Input
          placeholder="Find a section"
          className="mb-1 h-9 w-full rounded-md border border-edge bg-paper px-2.5"
        />
        <Command.List>
          <Command.Empty className="px-2 py-1.5 text-quiet">Nothing is called that.</Command.Empty>
          {INSERTABLE.map(({ type, name, says, also, make }) => (
            <Command.Item
              key={type}
              value={name}
              keywords={[...also, says]}
              onSelect={() => {
                insertSection(editor, make());
                onOpenChange(false);
              }}
              className="flex cursor-pointer flex-col rounded-md px-2 py-1 data-[selected=true]:bg-accent-soft"
            >
              <span className="font-medium">{name}</span>
              <span className="text-small text-quiet">{says}</span>
            </Command.Item>
          ))}
        </Command.List>
      </Command>
    </Popover>
  );
}
