import { Trash2 } from 'lucide-react';
import type { ReactNode } from 'react';
import { DraftField } from './draft-field.tsx';
import { Button, IconButton } from '../ui/button.tsx';
import { Dialog } from '../ui/dialog.tsx';
import { TextField } from '../ui/field.tsx';
import { useKept } from './use-kept.ts';
import { useWorkbench } from '../workbench/workbench-context.tsx';

interface NamedThingsProps {
  readonly title: string;
  readonly description: string;
  /** What one of them is, as in "Add the label". */
  readonly one: string;
  readonly placeholder: string;
  readonly longest: number;
  readonly isEmpty: boolean;
  /** Adds one of that name. Gives whether it could be added. */
  readonly onAdd: (name: string) => boolean;
  readonly onClose: () => void;
  readonly children: ReactNode;
}

/** A dialog about things of the site that have a name each, with a field for another one. */
export function NamedThings({
  title,
  description,
  one,
  placeholder,
  longest,
  isEmpty,
  onAdd,
  onClose,
  children,
}: NamedThingsProps) {
  const { mayEdit, site } = useWorkbench();
  const [typed, setTyped] = useKept(`${one} ${site.key}`);
  return (
    <Dialog
      title={title}
      description={description}
      isOpen
      isWide
      onClose={onClose}
      actions={<Button onClick={onClose}>Close</Button>}
    >
      <fieldset disabled={!mayEdit} className="flex flex-col gap-3 pb-2">
        {children}
        {mayEdit && (
          <form
            className="flex items-end gap-2 border-t border-rule pt-4 first:border-0 first:pt-0"
            onSubmit={(event) => {
              event.preventDefault();
              if (typed.trim() !== '' && onAdd(typed)) setTyped('');
            }}
          >
            <div className="flex-1">
              <TextField
                label={isEmpty ? `The first ${one}` : `Another ${one}`}
                placeholder={placeholder}
                value={typed}
                maxLength={longest}
                onChange={(event) => setTyped(event.target.value)}
              />
            </div>
            <Button type="submit" look="main" disabled={typed.trim() === ''}>
              Add the {one}
            </Button>
          </form>
        )}
      </fieldset>
    </Dialog>
  );
}

interface NamedThingProps {
  readonly name: string;
  /** What it is, as in "Remove the label". */
  readonly one: string;
  readonly longest: number;
  readonly hint?: string;
  readonly onRename: (name: string) => void;
  readonly onRemove: () => void;
  readonly children: ReactNode;
}

/** One of them: its name, the way to take it away, and what there is to say of it. */
export function NamedThing({ name, one, longest, hint, onRename, onRemove, children }: NamedThingProps) {
  return (
    <section aria-label={name} className="flex flex-col gap-3 rounded-md border border-rule px-4 py-3">
      <div className="flex items-start gap-3">
        <div className="flex-1">
          <DraftField
            label="Name"
            saved={name}
            longest={longest}
            hint={hint}
            onSave={(title) => title.trim() !== '' && onRename(title)}
          />
        </div>
        <IconButton name={`Remove the ${one} ‘${name}’`} className="mt-6" onClick={onRemove}>
          <Trash2 size={16} aria-hidden />
        </IconButton>
      </div>
      {children}
    </section>
  );
}
