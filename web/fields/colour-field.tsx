import { useEffect, useId, useRef, useState } from 'react';
import { Labelled } from '../ui/field.tsx';
import { useLatest } from '../ui/use-latest.ts';

const HEX = /^#?([0-9a-f]{6}|[0-9a-f]{3})$/i;

/** A colour: picked, or typed as the six signs in which it is handed on. It is set when the choice is made, and tried until then. */
export function ColourField({
  label,
  value,
  onTry,
  onSet,
}: {
  readonly label: string;
  readonly value: string;
  readonly onTry: (colour: string) => void;
  readonly onSet: (colour: string) => void;
}) {
  const id = useId();
  const picker = useRef<HTMLInputElement>(null);
  const set = useLatest(onSet);
  const [typed, setTyped] = useState<string | null>(null);
  useEffect(() => {
    // React takes each step on the way for a change: the browser tells when the choice is made.
    const field = picker.current!;
    const choose = () => set()(field.value);
    field.addEventListener('change', choose);
    return () => field.removeEventListener('change', choose);
  }, [set]);
  const isWrong = typed !== null && !HEX.test(typed.trim());
  const leave = () => {
    if (typed === null || isWrong) return;
    setTyped(null);
    const colour = wholeHex(typed);
    if (colour !== value) onSet(colour);
  };
  return (
    <Labelled
      id={id}
      label={label}
      fault={isWrong ? 'A colour is six signs of 0–9 and a–f, such as #0e6470.' : undefined}
    >
      <span className="flex gap-2">
        <input
          ref={picker}
          type="color"
          aria-label={`Pick: ${label}`}
          value={value}
          onChange={(event) => onTry(event.target.value)}
          className="h-9 w-12 shrink-0 cursor-pointer rounded-md border border-edge bg-raised p-1"
        />
        <input
          id={id}
          aria-invalid={isWrong}
          aria-describedby={isWrong ? `${id}-more` : undefined}
          value={typed ?? value}
          spellCheck={false}
          onChange={(event) => setTyped(event.target.value)}
          onBlur={leave}
          onKeyDown={(event) => {
            if (event.key === 'Enter') leave();
            if (event.key === 'Escape') setTyped(null);
          }}
          className="h-9 w-full min-w-0 rounded-md border border-edge bg-raised px-2.5 font-mono"
        />
      </span>
    </Labelled>
  );
}

/** "abc" and "#AABBCC" as "#aabbcc". */
function wholeHex(typed: string): string {
  const signs = typed.trim().replace('#', '').toLowerCase();
  return `#${signs.length === 3 ? [...signs].map((sign) => sign + sign).join('') : signs}`;
}
