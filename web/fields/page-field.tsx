import { ChevronsUpDown } from 'lucide-react';
import { Popover as Radix } from 'radix-ui';
import { type KeyboardEvent, type ReactNode, useId, useState } from 'react';
import type { PageId } from '#core/model/ids.ts';
import { type Site, maybeNodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { BOX, Labelled } from '../ui/field.tsx';
import { type OtherChoice, PageTreeList, choiceId } from './page-tree-list.tsx';
import { usePageChoice } from './use-page-choice.ts';

interface PageFieldProps {
  readonly label: string;
  /** Where what stands around it says what it is. */
  readonly isBare?: boolean;
  readonly hint?: ReactNode;
  /** The page, or one of the other choices; empty for none. */
  readonly value: string;
  /** What can be chosen besides pages. */
  readonly others?: readonly OtherChoice[];
  readonly isOffered?: (row: number, page: PageId) => boolean;
  readonly onChoose: (value: string) => void;
  /** What it says while nothing is chosen. */
  readonly placeholder?: string;
  /** What it says of the page that is chosen; at first its title. */
  readonly wordsOf?: (title: string) => string;
  /** Another tree than the one at hand. */
  readonly of?: Site;
}

/** A field in which a page of the tree is chosen: part of its title is typed, Enter takes the best match. */
export function PageField({
  label,
  isBare = false,
  hint,
  value,
  others,
  isOffered,
  onChoose,
  placeholder = 'Choose a page',
  wordsOf = (title) => title,
  of,
}: PageFieldProps) {
  const id = useId();
  const [isOpen, setOpen] = useState(false);
  const choice = usePageChoice(value === '' ? null : value, others, isOffered, { isOpen, of });
  const { site } = choice;
  const node = maybeNodeAt(site, value as PageId);
  const said =
    others?.find((one) => one.value === value)?.words ??
    (node ? wordsOf(textIn(node.title, site.settings.language)) : value === '' ? '' : 'A page that was removed');
  const close = () => {
    setOpen(false);
    choice.type('');
  };
  const take = (next: string) => {
    close();
    if (next !== value) onChoose(next);
  };
  const onKey = (event: KeyboardEvent) => {
    if (event.key === 'ArrowDown' && !isOpen) {
      event.preventDefault();
      setOpen(true);
    } else if (isOpen && choice.walk(event)) return;
    else if (event.key === 'Enter' && isOpen) {
      event.preventDefault();
      if (choice.active !== null) take(choice.active);
    } else if (event.key === 'Tab') close();
  };
  return (
    <Radix.Root open={isOpen} onOpenChange={(next) => (next ? setOpen(true) : close())}>
      <Labelled id={id} label={label} hint={hint} isBare={isBare}>
        <Radix.Anchor className="relative">
          <input
            id={id}
            role="combobox"
            aria-haspopup="tree"
            aria-expanded={isOpen}
            aria-controls={`${id}-tree`}
            aria-autocomplete="list"
            aria-activedescendant={isOpen && choice.active !== null ? choiceId(`${id}-tree`, choice.active) : undefined}
            aria-describedby={hint ? `${id}-more` : undefined}
            autoComplete="off"
            placeholder={isOpen && said !== '' ? said : placeholder}
            value={isOpen ? choice.query : said}
            onChange={(event) => {
              setOpen(true);
              choice.type(event.target.value);
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
          <PageTreeList
            id={`${id}-tree`}
            label={label}
            others={choice.others}
            site={site}
            choices={choice.choices}
            active={choice.active}
            onChoose={take}
            className="p-1 max-h-[min(18rem,calc(var(--radix-popover-content-available-height)-3rem))]"
          />
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
