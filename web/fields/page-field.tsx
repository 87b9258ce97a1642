import { type ReactNode, useState } from 'react';
import type { PageId } from '#core/model/ids.ts';
import { type Site, maybeNodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { ChoiceField } from './choice-field.tsx';
import { type OtherChoice, PageTreeList } from './page-tree-list.tsx';
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
  readonly isOffered?: ((row: number, page: PageId) => boolean) | undefined;
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
  const [isOpen, setOpen] = useState(false);
  const choice = usePageChoice(value === '' ? null : value, others, isOffered, { isOpen, of });
  const { site } = choice;
  const node = maybeNodeAt(site, value as PageId);
  const said =
    others?.find((one) => one.value === value)?.words ??
    (node ? wordsOf(textIn(node.title, site.settings.language)) : value === '' ? '' : 'A page that was removed');
  const take = (next: string) => {
    setOpen(false);
    choice.type('');
    if (next !== value) onChoose(next);
  };
  return (
    <ChoiceField
      label={label}
      isBare={isBare}
      hint={hint}
      said={said}
      placeholder={placeholder}
      popup="tree"
      choosing={choice}
      isOpen={isOpen}
      setOpen={setOpen}
      onTake={take}
    >
      {(listId) => (
        <PageTreeList
          id={listId}
          label={label}
          others={choice.others}
          site={site}
          choices={choice.choices}
          active={choice.active}
          onChoose={take}
          className="p-1 max-h-[min(18rem,calc(var(--radix-popover-content-available-height)-3rem))]"
        />
      )}
    </ChoiceField>
  );
}
