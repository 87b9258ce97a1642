import { type ComponentProps, type ReactNode, useId } from 'react';
import { useFieldsInUse } from './being-changed.tsx';

export const BOX =
  'w-full rounded-md border border-edge bg-raised px-2.5 py-1.5 placeholder:text-quiet disabled:opacity-60 aria-invalid:border-danger';

interface FieldProps {
  readonly label: string;
  /** What helps to fill it in. */
  readonly hint?: ReactNode;
  /** What is wrong with it. */
  readonly fault?: string | undefined;
}

/** A field of one line with its label, a hint, and what is wrong with it. */
export function TextField({ label, hint, fault, className = '', ...rest }: FieldProps & ComponentProps<'input'>) {
  const id = useId();
  return (
    <Labelled id={id} label={label} hint={hint} fault={fault}>
      <input
        id={id}
        aria-invalid={fault ? true : undefined}
        aria-describedby={hint || fault ? `${id}-more` : undefined}
        className={`${BOX} ${className}`}
        {...rest}
      />
    </Labelled>
  );
}

/** A field of several lines. */
export function TextArea({ label, hint, fault, className = '', ...rest }: FieldProps & ComponentProps<'textarea'>) {
  const id = useId();
  return (
    <Labelled id={id} label={label} hint={hint} fault={fault}>
      <textarea
        id={id}
        aria-invalid={fault ? true : undefined}
        aria-describedby={hint || fault ? `${id}-more` : undefined}
        className={`${BOX} resize-y ${className}`}
        {...rest}
      />
    </Labelled>
  );
}

/** A choice of a few. */
export function Choice({ label, hint, fault, children, ...rest }: FieldProps & ComponentProps<'select'>) {
  const id = useId();
  return (
    <Labelled id={id} label={label} hint={hint} fault={fault}>
      <select id={id} aria-describedby={hint || fault ? `${id}-more` : undefined} className={BOX} {...rest}>
        {children}
      </select>
    </Labelled>
  );
}

/** A field with its label, a hint, and what is wrong with it. */
export function Labelled({
  id,
  label,
  hint,
  fault,
  isBare = false,
  children,
}: FieldProps & { readonly id: string; readonly isBare?: boolean; readonly children: ReactNode }) {
  const { others, tell } = useFieldsInUse();
  const by = others.get(label);
  return (
    // A label that is not seen stands in its field's place, so that it makes nothing around it longer.
    <div className="relative flex flex-col gap-1" onInput={() => tell(label)} onBlur={() => tell(null)}>
      <label htmlFor={id} className={isBare ? 'sr-only' : 'text-small font-medium'}>
        {label}
      </label>
      {by !== undefined && (
        <p
          role="status"
          className="pointer-events-none absolute top-0 right-0 max-w-[70%] truncate rounded-sm bg-attention-soft px-1.5 text-small text-attention"
        >
          {by} is changing this
        </p>
      )}
      {children}
      {(hint || fault) && (
        <p id={`${id}-more`} className={`text-small ${fault ? 'text-danger' : 'text-quiet'}`}>
          {fault ?? hint}
        </p>
      )}
    </div>
  );
}

/** A statement that is on or off, with the words for it beside. */
export function Tick({ label, hint, ...rest }: FieldProps & Omit<ComponentProps<'input'>, 'type'>) {
  const id = useId();
  return (
    <div className="flex items-start gap-2">
      <input
        id={id}
        type="checkbox"
        className="mt-0.5 size-4 accent-accent"
        aria-describedby={hint ? `${id}-more` : undefined}
        {...rest}
      />
      <div>
        <label htmlFor={id} className="inline-block min-h-6">
          {label}
        </label>
        {hint && (
          <p id={`${id}-more`} className="text-small text-quiet">
            {hint}
          </p>
        )}
      </div>
    </div>
  );
}

/** One of a few, all of which show. */
export function Radios<Value extends string>({
  legend,
  choices,
  value,
  onChoose,
}: {
  readonly legend: string;
  readonly choices: readonly { readonly value: Value; readonly words: string }[];
  readonly value: Value;
  readonly onChoose: (value: Value) => void;
}) {
  const name = useId();
  return (
    <fieldset className="flex flex-wrap gap-x-5 gap-y-1">
      <legend className="mb-1 text-small font-medium">{legend}</legend>
      {choices.map((one) => (
        <label key={one.value} className="inline-flex items-center gap-1.5">
          <input
            type="radio"
            name={name}
            className="accent-accent"
            checked={one.value === value}
            onChange={() => onChoose(one.value)}
          />
          {one.words}
        </label>
      ))}
    </fieldset>
  );
}
