import { type KeyboardEvent, useEffect, useMemo, useRef, useState } from 'react';
import { pathOfOldAddress } from '#core/carryover/old-address.ts';
import { folded } from '#core/derive/folded.ts';
import { typedWords } from '#core/derive/visible-rows.ts';
import { ChoiceField } from '../../../fields/choice-field.tsx';
import { choiceId } from '../../../fields/choice-id.ts';
import type { OldPageWire } from './carry-over-context.ts';
import { titleOfOld } from './old-words.ts';

/** How many old pages are listed at most; typing narrows them. */
const MAX_LISTED = 50;

interface OldPageFieldProps {
  readonly label: string;
  readonly pages: readonly OldPageWire[];
  /** Whether addresses may be typed that are none of known pages, with spaces between several. */
  readonly mayBeTyped?: boolean;
  readonly onChoose: (address: string) => void;
}

/** A field in which an old page is chosen by part of its title or its address; Enter takes the first that matches. */
export function OldPageField({ label, pages, mayBeTyped = false, onChoose }: OldPageFieldProps) {
  const [isOpen, setOpen] = useState(false);
  const [query, setQuery] = useState('');
  const [walkedTo, setWalkedTo] = useState(0);
  const searched = useMemo(
    () => (isOpen ? pages.map((page) => folded(`${titleOfOld(page)} ${page.address}`)) : []),
    [isOpen, pages],
  );
  const found = useMemo(() => {
    const words = typedWords(query);
    return pages.filter((_, at) => words.every((word) => searched[at]?.includes(word)));
  }, [pages, searched, query]);
  const listed = found.slice(0, MAX_LISTED);
  const typed = query.trim();
  const isTyped =
    mayBeTyped &&
    typed !== '' &&
    typed.split(/\s+/).every((one) => /^(?:https?:\/)?\//i.test(one)) &&
    !pages.some(({ address }) => address === typed);
  const count = listed.length + (isTyped ? 1 : 0);
  const active = count === 0 ? null : String(Math.min(walkedTo, count - 1));
  const type = (next: string) => {
    setQuery(next);
    setWalkedTo(0);
  };
  const take = (at: string) => {
    const address = listed[Number(at)]?.address ?? typed;
    setOpen(false);
    type('');
    onChoose(address);
  };
  const walk = (event: KeyboardEvent): boolean => {
    if (event.key !== 'ArrowDown' && event.key !== 'ArrowUp') return false;
    event.preventDefault();
    setWalkedTo((at) => Math.max(0, Math.min(count - 1, at + (event.key === 'ArrowDown' ? 1 : -1))));
    return true;
  };
  return (
    <ChoiceField
      label={label}
      said=""
      placeholder={mayBeTyped ? 'Find an old page, or type an address' : 'Find an old page'}
      popup="listbox"
      choosing={{ query, type, active, walk }}
      isOpen={isOpen}
      setOpen={setOpen}
      onTake={take}
    >
      {(listId) => (
        <OldPageList
          id={listId}
          label={label}
          pages={listed}
          more={found.length - listed.length}
          typed={isTyped ? typed : null}
          active={active}
          onChoose={take}
        />
      )}
    </ChoiceField>
  );
}

function OldPageList({
  id,
  label,
  pages,
  more,
  typed,
  active,
  onChoose,
}: {
  readonly id: string;
  readonly label: string;
  readonly pages: readonly OldPageWire[];
  readonly more: number;
  readonly typed: string | null;
  readonly active: string | null;
  readonly onChoose: (at: string) => void;
}) {
  const list = useRef<HTMLUListElement>(null);
  useEffect(() => {
    list.current?.querySelector('[aria-selected="true"]')?.scrollIntoView({ block: 'nearest' });
  }, [active]);
  const choices = [
    ...pages.map((page) => ({ key: page.address, words: titleOfOld(page), more: pathOfOldAddress(page.address) })),
    ...(typed === null ? [] : [{ key: 'typed', words: typed, more: 'an address that is not in the inventory' }]),
  ];
  return (
    <div>
      <ul
        ref={list}
        id={id}
        role="listbox"
        aria-label={label}
        className="max-h-[min(18rem,calc(var(--radix-popover-content-available-height)-3rem))] overflow-y-auto p-1"
      >
        {choices.map((one, at) => (
          // eslint-disable-next-line jsx-a11y/click-events-have-key-events -- the field above walks the list by its arrow keys
          <li
            key={one.key}
            id={choiceId(id, String(at))}
            role="option"
            aria-selected={String(at) === active}
            // The keyboard stays in the field.
            onMouseDown={(event) => event.preventDefault()}
            onClick={() => onChoose(String(at))}
            className={`cursor-pointer rounded px-2 py-1 leading-tight ${String(at) === active ? 'bg-accent text-on-accent' : 'hover:bg-accent-soft'}`}
          >
            <span className="block truncate">{one.words}</span>
            <span className={`block truncate font-mono text-tiny ${String(at) === active ? '' : 'text-quiet'}`}>
              {one.more}
            </span>
          </li>
        ))}
      </ul>
      {more > 0 && (
        <p className="px-2 py-1 text-small text-quiet">And {more} more. Type part of a title or an address.</p>
      )}
      {choices.length === 0 && <p className="px-2 py-1 text-quiet">No old page matches.</p>}
    </div>
  );
}
