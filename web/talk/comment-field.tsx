import { type KeyboardEvent, type Ref, useId, useImperativeHandle, useLayoutEffect, useRef, useState } from 'react';
import type { SiteKey } from '#core/model/ids.ts';
import { MAX_COMMENT_LENGTH } from '#core/model/feedback.ts';
import type { Mentionable } from '#core/talk/mentions.ts';
import { BOX } from '../ui/field.tsx';
import { useMentionable } from './use-mentionable.ts';

/** So many names are offered. */
const MAX_OFFERED = 6;

/** The name that is being typed behind an `@`, up to where the writing is. */
interface Typed {
  readonly from: number;
  readonly name: string;
}

/** A field for what somebody says: an `@` offers the names of colleagues, and Ctrl+Enter sends it. */
export function CommentField({
  site,
  label,
  value,
  onType,
  onSend,
  onLeave,
  field,
}: {
  readonly site: SiteKey;
  readonly label: string;
  readonly value: string;
  readonly onType: (text: string) => void;
  readonly onSend: () => void;
  /** Escape, where there is nothing to close. */
  readonly onLeave?: () => void;
  readonly field?: Ref<HTMLTextAreaElement>;
}) {
  const id = useId();
  const area = useRef<HTMLTextAreaElement>(null);
  useImperativeHandle(field, () => area.current!);
  const people = useMentionable(site);
  const [typed, setTyped] = useState<Typed | null>(null);
  const [at, setAt] = useState(0);
  const offered = typed === null ? [] : offeredFor(typed.name, people);
  const isOpen = offered.length > 0;
  const chosen = Math.min(at, offered.length - 1);
  // The writing goes on behind a name that was taken.
  const caret = useRef<number | null>(null);
  useLayoutEffect(() => {
    if (caret.current === null) return;
    area.current!.setSelectionRange(caret.current, caret.current);
    caret.current = null;
  }, [value]);
  const look = () => {
    const next = typedAt(area.current!);
    if (next?.name !== typed?.name) setAt(0);
    setTyped(next);
  };
  const take = ({ name }: Mentionable) => {
    const { from } = typed!;
    const rest = value.slice(area.current!.selectionStart);
    const next = `${value.slice(0, from)}@${name} ${rest.replace(/^ /, '')}`;
    onType(next);
    setTyped(null);
    caret.current = from + name.length + 2;
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) onSend();
    else if (isOpen && (event.key === 'ArrowDown' || event.key === 'ArrowUp'))
      setAt((chosen + (event.key === 'ArrowDown' ? 1 : offered.length - 1)) % offered.length);
    else if (isOpen && (event.key === 'Enter' || event.key === 'Tab') && !event.shiftKey) take(offered[chosen]!);
    else if (isOpen && event.key === 'Escape') setTyped(null);
    else if (event.key === 'Escape' && onLeave) onLeave();
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <div className="relative">
      <label htmlFor={id} className="sr-only">
        {label}
      </label>
      <textarea
        ref={area}
        id={id}
        aria-autocomplete="list"
        aria-haspopup="listbox"
        aria-controls={isOpen ? `${id}-names` : undefined}
        aria-activedescendant={isOpen ? `${id}-${chosen}` : undefined}
        rows={value === '' ? 1 : Math.min(8, Math.max(3, value.split('\n').length))}
        maxLength={MAX_COMMENT_LENGTH}
        placeholder={label}
        value={value}
        onChange={(event) => {
          onType(event.target.value);
          look();
        }}
        onSelect={look}
        onBlur={() => setTyped(null)}
        onKeyDown={onKeyDown}
        className={`${BOX} resize-y`}
      />
      {isOpen && (
        <ul
          id={`${id}-names`}
          role="listbox"
          aria-label="Colleagues"
          className="absolute inset-x-0 top-full z-20 mt-1 rounded-md border border-rule bg-raised py-1 shadow-sheet"
        >
          {offered.map((one, nth) => (
            // The field keeps the keyboard; its keys choose.
            // eslint-disable-next-line jsx-a11y/click-events-have-key-events
            <li
              key={one.id}
              id={`${id}-${nth}`}
              role="option"
              aria-selected={nth === chosen}
              onMouseDown={(event) => event.preventDefault()}
              onClick={() => take(one)}
              className={`cursor-pointer px-3 py-1.5 ${nth === chosen ? 'bg-accent-soft text-accent' : 'hover:bg-sunken'}`}
            >
              {one.name}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

/** The name that is typed where the writing is; null where none is. */
function typedAt({ value, selectionStart, selectionEnd }: HTMLTextAreaElement): Typed | null {
  if (selectionStart !== selectionEnd) return null;
  const line = value.slice(value.lastIndexOf('\n', selectionStart - 1) + 1, selectionStart);
  const sign = line.lastIndexOf('@');
  if (sign === -1 || /[\p{L}\p{N}]/u.test(line[sign - 1] ?? '')) return null;
  return { from: selectionStart - line.length + sign, name: line.slice(sign + 1).toLowerCase() };
}

/** Those whose name begins as typed, then those of whose name a later part does; nobody where the name is typed in full. */
function offeredFor(typed: string, people: readonly Mentionable[]): readonly Mentionable[] {
  const named = people
    .map((one) => ({ one, name: one.name.toLowerCase() }))
    .filter(({ name }) => name !== typed.trim());
  const fits = [
    ...named.filter(({ name }) => name.startsWith(typed)),
    ...named.filter(({ name }) => typed !== '' && !name.startsWith(typed) && name.includes(` ${typed}`)),
  ];
  return fits.slice(0, MAX_OFFERED).map(({ one }) => one);
}
