import { useEffect, useRef, useState } from 'react';

interface TitleInputProps {
  readonly label: string;
  readonly start: string;
  readonly placeholder?: string;
  /** Enter. Gives whether typing goes on with a new, empty field. */
  readonly onEnter: (text: string) => void;
  /** The field is left by the pointer or Tab. */
  readonly onLeave: (text: string) => void;
  readonly onCancel: () => void;
}

/** A title being typed in the tree. Enter takes it, Escape leaves things as they were. */
export function TitleInput({ label, start, placeholder, onEnter, onLeave, onCancel }: TitleInputProps) {
  const [text, setText] = useState(start);
  const ref = useRef<HTMLInputElement>(null);
  const isOver = useRef(false);
  useEffect(() => {
    ref.current?.focus();
    ref.current?.select();
  }, []);
  return (
    <input
      ref={ref}
      aria-label={label}
      value={text}
      maxLength={300}
      placeholder={placeholder}
      onChange={(event) => setText(event.target.value)}
      onClick={(event) => event.stopPropagation()}
      onDoubleClick={(event) => event.stopPropagation()}
      onBlur={() => {
        if (!isOver.current) onLeave(text);
      }}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === 'Enter') {
          event.preventDefault();
          isOver.current = true;
          onEnter(text);
        } else if (event.key === 'Escape') {
          event.preventDefault();
          isOver.current = true;
          onCancel();
        }
      }}
      className="h-6 min-w-0 flex-1 rounded border border-accent bg-raised px-1.5"
    />
  );
}
