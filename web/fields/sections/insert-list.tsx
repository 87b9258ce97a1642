import type { Editor } from '@tiptap/core';
import { Command } from 'cmdk';
import { Plus } from 'lucide-react';
import { INSERTABLE } from '#core/sections/all-sections.ts';
import type { TextPart } from '#core/model/content.ts';
import { SHARED } from '#core/sections/shared.ts';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { Popover } from '../../ui/popover.tsx';
import { insertSection, writeOn } from './insert-section.ts';

/** The list of all that can be put into a text, by typing part of its name. */
export function InsertList({
  editor,
  hasShared,
  isOpen,
  onOpenChange,
}: {
  readonly editor: Editor;
  /** Whether shared sections can stand in the text. */
  readonly hasShared: boolean;
  readonly isOpen: boolean;
  readonly onOpenChange: (isOpen: boolean) => void;
}) {
  const { site } = useWorkbench();
  const insert = (part: TextPart) => {
    insertSection(editor, part);
    onOpenChange(false);
  };
  const kept = hasShared ? site.settings.shared : [];
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
          {INSERTABLE.filter(({ type }) => hasShared || type !== SHARED.type).map(
            ({ type, name, says, also, make }) => (
              <Entry key={type} name={name} says={says} also={also} insert={() => insert(make())} />
            ),
          )}
          {kept.map(({ id, name }) => (
            <Entry
              key={id}
              value={`shared ${id}`}
              name={name}
              says="Shared section"
              also={[name, 'reuse']}
              insert={() => insert({ type: SHARED.type, attrs: { of: id } })}
            />
          ))}
        </Command.List>
      </Command>
    </Popover>
  );
}

function Entry({
  name,
  value = name,
  says,
  also,
  insert,
}: {
  readonly name: string;
  /** By which it is told from others of its name. */
  readonly value?: string;
  readonly says: string;
  readonly also: readonly string[];
  readonly insert: () => void;
}) {
  return (
    <Command.Item
      value={value}
      keywords={[...also, says]}
      onSelect={insert}
      className="flex cursor-pointer flex-col rounded-md px-2 py-1 data-[selected=true]:bg-accent-soft"
    >
      <span className="font-medium">{name}</span>
      <span className="text-small text-quiet">{says}</span>
    </Command.Item>
  );
}
