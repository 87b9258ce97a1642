import { DropdownMenu as Radix } from 'radix-ui';
import type { ReactNode } from 'react';

export interface Action {
  readonly words: string;
  readonly keys?: string;
  readonly isOff?: boolean;
  readonly isChosen?: boolean;
  readonly run: () => void;
  /** Is called when it comes under the pointer or the keyboard, before it is chosen. */
  readonly look?: () => void;
}

/** A button that opens a list of actions; `null` parts them. */
export function ActionMenu({
  trigger,
  actions,
  label,
  note,
  isOpenAtFirst = false,
  onClose,
  focusAfter,
}: {
  readonly trigger: ReactNode;
  readonly actions: readonly (Action | null)[];
  readonly label: string;
  /** A sentence above the actions. */
  readonly note?: string;
  /** For a menu that is made when it is asked for. */
  readonly isOpenAtFirst?: boolean;
  readonly onClose?: () => void;
  /** Where the keyboard goes when it is closed, where not back to its button. */
  readonly focusAfter?: () => void;
}) {
  return (
    <Radix.Root modal={false} defaultOpen={isOpenAtFirst} onOpenChange={(isOpen) => !isOpen && onClose?.()}>
      <Radix.Trigger asChild>{trigger}</Radix.Trigger>
      <Radix.Portal>
        <Radix.Content
          aria-label={label}
          align="start"
          sideOffset={4}
          collisionPadding={8}
          onCloseAutoFocus={(event) => {
            if (!focusAfter) return;
            event.preventDefault();
            focusAfter();
          }}
          className="z-50 max-h-96 min-w-48 overflow-y-auto rounded-md border border-rule bg-raised p-1 shadow-sheet"
        >
          {note !== undefined && (
            <Radix.Label className="max-w-72 border-b border-rule px-2.5 pt-1 pb-2 mb-1 text-small text-quiet">
              {note}
            </Radix.Label>
          )}
          {actions.map((action, index) =>
            action === null ? (
              <Radix.Separator key={index} className="my-1 h-px bg-rule" />
            ) : (
              <Radix.Item
                key={action.words}
                disabled={action.isOff}
                onSelect={action.run}
                onFocus={action.look}
                className="flex h-8 cursor-pointer items-center gap-4 rounded px-2.5 outline-none data-disabled:cursor-default data-disabled:opacity-45 data-highlighted:bg-accent-soft"
              >
                <span className={`flex-1 ${action.isChosen ? 'font-semibold text-accent' : ''}`}>
                  {action.words}
                  {action.isChosen && <span className="sr-only"> (chosen)</span>}
                </span>
                {action.keys && <kbd className="font-mono text-tiny text-quiet">{action.keys}</kbd>}
              </Radix.Item>
            ),
          )}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
