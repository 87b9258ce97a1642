import { useEffect, useRef, useState } from 'react';

export interface TitleInputProps {
  readonly label: string;
  readonly start: string;
  readonly placeholder?: string;
  /** While it is typed. */
  readonly onTyping?: (text: string) => void;
  /** Enter. Gives whether typing goes on with a new, empty field. */
  readonly onEnter: (text: string) => void;
  /** Tab, or Shift+Tab (`isBack`), where these mean something. Gives whether typing goes on in another field. */
  readonly onTab?: (text: string, isBack: boolean) => boolean;
  /** The field is left by the pointer or Tab. */
  readonly onLeave: (text: string) => void;
  readonly onCancel: () => void;
}

/** A title being typed in the tree. Enter takes it, Escape leaves things as they were. */
export function TitleInput({
  label,
  start,
  placeholder,
  onTyping,
  onTab,
  onEnter,
  onLeave,
  onCancel,
}: TitleInputProps) {
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
      onChange={(event) => {
        setText(event.target.value);
        onTyping?.(event.target.value);
      }}
      onPointerDown={(event) => event.stopPropagation()}
      onMouseDown={(event) => event.stopPropagation()}
      onClick={(event) => event.stopPropagation()}
      onDoubleClick={(event) => event.stopPropagation()}
      onBlur={() => {
        if (!isOver.current) onLeave(text);
      }}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === 'Tab' && onTab) {
          event.preventDefault();
          isOver.current = true;
          isOver.current = onTab(text, event.shiftKey);
        } else if (event.key === 'Enter') {
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
