import { useId } from 'react';
import { useDraft } from '../../fields/use-draft.ts';
import { ownersOf } from './plan-columns.tsx';
import { TextField } from '../../ui/field.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';

/** Who writes the page: any name, those that other pages have are offered. */
export function OwnerField({
  saved,
  longest,
  onSave,
}: {
  readonly saved: string;
  readonly longest: number;
  readonly onSave: (owner: string) => void;
}) {
  const { site } = useWorkbench();
  const draft = useDraft(saved, onSave);
  const list = useId();
  return (
    <div>
      <TextField
        label="Owner"
        list={list}
        maxLength={longest}
        value={draft.value}
        onChange={(event) => draft.type(event.target.value)}
        onBlur={draft.commit}
        onKeyDown={(event) => {
          if (event.key === 'Enter') draft.commit();
          else if (event.key === 'Escape') draft.cancel();
        }}
      />
      <datalist id={list}>
        {draft.isTyping && ownersOf(site).map((owner) => <option key={owner} value={owner} />)}
      </datalist>
    </div>
  );
}
