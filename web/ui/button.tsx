import type { ComponentProps, ReactNode } from 'react';
import { Tooltip } from './tooltip.tsx';

type Look = 'main' | 'plain' | 'quiet' | 'chosen' | 'danger';
const LOOKS: Readonly<Record<Look, string>> = {
  main: 'bg-accent text-on-accent hover:brightness-110 border-transparent',
  plain: 'bg-raised text-ink border-edge hover:border-ink',
  quiet: 'bg-transparent text-ink border-transparent hover:bg-sunken',
  chosen: 'bg-accent-soft text-accent border-transparent',
  danger: 'bg-danger text-paper border-transparent hover:brightness-110',
};

export interface ButtonProps extends ComponentProps<'button'> {
  readonly look?: Look;
  /** Less room at the sides, for bars of many. */
  readonly isTight?: boolean;
}

/** A button that says what happens. */
export function Button({ look = 'plain', isTight = false, className = '', type = 'button', ...rest }: ButtonProps) {
  return (
    <button
      type={type}
      className={`inline-flex h-8 items-center justify-center gap-1.5 rounded-md border font-medium whitespace-nowrap disabled:cursor-default disabled:opacity-45 ${isTight ? 'px-2' : 'px-3'} ${LOOKS[look]} ${className}`}
      {...rest}
    />
  );
}

/** A button with a sign alone; its name is shown beside the pointer and read aloud. */
export function IconButton({
  name,
  keys,
  className = '',
  children,
  ...rest
}: Omit<ComponentProps<'button'>, 'name'> & {
  readonly name: string;
  readonly keys?: string;
  readonly children: ReactNode;
}) {
  return (
    <Tooltip text={keys ? `${name} (${keys})` : name}>
      <button
        type="button"
        aria-label={name}
        className={`inline-flex size-8 items-center justify-center rounded-md text-ink hover:bg-sunken disabled:cursor-default disabled:opacity-35 disabled:hover:bg-transparent ${className}`}
        {...rest}
      >
        {children}
      </button>
    </Tooltip>
  );
}
