import { ChevronsUpDown } from 'lucide-react';
import { Popover as Radix } from 'radix-ui';
import { type KeyboardEvent, type ReactNode, useId } from 'react';
import { BOX, Labelled } from '../ui/field.tsx';
import { choiceId } from './choice-id.ts';

/** What a field of choices needs of what is chosen among: what is typed, and what is lit. */
export interface Choosing {
  readonly query: string;
  readonly type: (query: string) => void;
  /** What is lit, and taken on Enter; null for nothing. */
  readonly active: string | null;
  /** Goes to the next or the one before by the arrow keys. Gives whether it was such a key. */
  readonly walk: (event: KeyboardEvent) => boolean;
}

interface ChoiceFieldProps {
  readonly label: string;
  /** Where what stands around it says what it is. */
  readonly isBare?: boolean;
  readonly hint?: ReactNode;
  /** What it says of what is chosen; empty where nothing is. */
  readonly said: string;
  readonly placeholder: string;
  readonly popup: 'tree' | 'listbox';
  readonly choosing: Choosing;
  readonly isOpen: boolean;
  readonly setOpen: (isOpen: boolean) => void;
  readonly onTake: (value: string) => void;
  /** What can be chosen: a tree or list with this id. */
  readonly children: (listId: string) => ReactNode;
}

/** A field in which something is chosen from many: part of its name is typed, Enter takes what is lit. */
export function ChoiceField({
  label,
  isBare = false,
  hint,
  said,
  placeholder,
  popup,
  choosing,
  isOpen,
  setOpen,
  onTake,
  children,
}: ChoiceFieldProps) {
  const id = useId();
  const listId = `${id}-list`;
  const { active } = choosing;
  const close = () => {
    setOpen(false);
    choosing.type('');
  };
  const onKey = (event: KeyboardEvent) => {
    if (event.key === 'ArrowDown' && !isOpen) {
      event.preventDefault();
      setOpen(true);
    } else if (isOpen && choosing.walk(event)) return;
    else if (event.key === 'Enter' && isOpen) {
      event.preventDefault();
      if (active !== null) onTake(active);
    } else if (event.key === 'Tab') close();
  };
  return (
    <Radix.Root open={isOpen} onOpenChange={(next) => (next ? setOpen(true) : close())}>
      <Labelled id={id} label={label} hint={hint} isBare={isBare}>
        <Radix.Anchor className="relative">
          <input
            id={id}
            role="combobox"
            aria-haspopup={popup}
            aria-expanded={isOpen}
            aria-controls={listId}
            aria-autocomplete="list"
            aria-activedescendant={isOpen && active !== null ? choiceId(listId, active) : undefined}
            aria-describedby={hint ? `${id}-more` : undefined}
            autoComplete="off"
            placeholder={isOpen && said !== '' ? said : placeholder}
            value={isOpen ? choosing.query : said}
            onChange={(event) => {
              setOpen(true);
              choosing.type(event.target.value);
            }}
            onClick={() => setOpen(true)}
            onBlur={close}
            onKeyDown={onKey}
            className={`${BOX} truncate pr-7`}
          />
          <ChevronsUpDown
            size={14}
            aria-hidden
            className="pointer-events-none absolute top-1/2 right-2 -translate-y-1/2 text-quiet"
          />
        </Radix.Anchor>
      </Labelled>
      <Radix.Portal>
        <Radix.Content
          role="presentation"
          align="start"
          sideOffset={4}
          collisionPadding={8}
          onOpenAutoFocus={(event) => event.preventDefault()}
          onCloseAutoFocus={(event) => event.preventDefault()}
          // The field itself is no place outside.
          onInteractOutside={(event) => {
            if ((event.target as Element).id === id) event.preventDefault();
          }}
          // A dialog below keeps the wheel to itself otherwise.
          onWheel={(event) => event.stopPropagation()}
          onMouseDown={(event) => event.preventDefault()}
          className="z-50 w-[max(var(--radix-popover-trigger-width),16rem)] max-w-[calc(100vw-1rem)] rounded-lg border border-rule bg-raised shadow-sheet"
        >
          {children(listId)}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
