import { X } from 'lucide-react';
import { Dialog as Radix } from 'radix-ui';
import type { ReactNode } from 'react';

interface DialogProps {
  readonly title: string;
  readonly description?: ReactNode;
  readonly isOpen: boolean;
  readonly onClose: () => void;
  readonly children: ReactNode;
  /** The buttons, the one that does it last. */
  readonly actions?: ReactNode;
  /** What Enter does while the heading has the keyboard, as it has at first where there is no field. */
  readonly onEnter?: () => void;
  /** Whether the heading has the keyboard at first though there is a field: for what is there already and only has to be confirmed. */
  readonly startsAtHeading?: boolean;
  readonly isWide?: boolean;
  /** For what stands side by side. */
  readonly isWidest?: boolean;
}

const TEXT_FIELDS =
  'input:not([type=checkbox], [type=radio], [type=hidden], [type=file], :disabled), textarea:not(:disabled), [contenteditable=true]';

/**
 * Puts the keyboard into the first field for text, or on the heading where there is none: what somebody types before they look lands there or
 * nowhere, and presses no button.
 */
function focusFirstField(event: Event, startsAtHeading: boolean): void {
  event.preventDefault();
  const content = event.currentTarget as HTMLElement;
  // What asked for the keyboard itself keeps it.
  if (content !== document.activeElement && content.contains(document.activeElement)) return;
  const [field] = startsAtHeading ? [] : content.querySelectorAll<HTMLElement>(TEXT_FIELDS);
  // One that has to be scrolled to would take out of sight what the dialog is about.
  const isInSight = field && field.getBoundingClientRect().bottom <= content.getBoundingClientRect().bottom;
  (isInSight ? field : content.querySelector<HTMLElement>('h2'))?.focus();
}

/** A window over the workbench. Escape closes it and nothing has happened. */
export function Dialog({
  title,
  description,
  isOpen,
  onClose,
  children,
  actions,
  onEnter,
  startsAtHeading = false,
  isWide = false,
  isWidest = false,
}: DialogProps) {
  return (
    <Radix.Root open={isOpen} onOpenChange={(open) => !open && onClose()}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-ink/35 dark:bg-sunken/70" />
        <Radix.Content
          aria-describedby={description ? undefined : ''}
          onOpenAutoFocus={(event) => focusFirstField(event, startsAtHeading)}
          className={`fixed top-1/2 left-1/2 z-40 flex max-h-[88vh] short:block short:max-h-[calc(100dvh-1rem)] short:overflow-y-auto w-[calc(100vw-2rem)] -translate-x-1/2 -translate-y-1/2 flex-col rounded-lg border border-rule bg-raised shadow-sheet ${isWidest ? 'max-w-5xl' : isWide ? 'max-w-2xl' : 'max-w-md'}`}
        >
          <header className="flex items-start gap-3 px-5 pt-4 pb-2">
            <div className="min-w-0 flex-1">
              <Radix.Title
                tabIndex={-1}
                onKeyDown={(event) => {
                  if (event.key !== 'Enter' || !onEnter) return;
                  event.preventDefault();
                  onEnter();
                }}
                className="outline-none font-display text-title leading-tight font-semibold"
              >
                {title}
              </Radix.Title>
              {description && <Radix.Description className="mt-1 text-quiet">{description}</Radix.Description>}
            </div>
            <Radix.Close
              aria-label="Close"
              className="-mr-2 inline-flex size-8 items-center justify-center rounded-md hover:bg-sunken"
            >
              <X size={18} aria-hidden />
            </Radix.Close>
          </header>
          {/* It may scroll, so the keyboard must be able to reach it. */}
          {/* eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex */}
          <div tabIndex={0} className="min-h-0 flex-1 overflow-y-auto px-5 py-2 short:overflow-visible">
            {children}
          </div>
          {actions && (
            <footer className="flex flex-wrap justify-end gap-2 border-t border-rule px-5 py-3">{actions}</footer>
          )}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
