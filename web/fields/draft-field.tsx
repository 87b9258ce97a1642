import type { ReactNode } from 'react';
import { TextArea, TextField } from '../ui/field.tsx';
import { useDraft } from './use-draft.ts';

interface DraftFieldProps {
  readonly label: string;
  readonly saved: string;
  readonly onSave: (text: string) => void;
  readonly hint?: ReactNode;
  readonly placeholder?: string;
  readonly longest: number;
  readonly isLong?: boolean;
}

/** A field that saves when it is left or by Enter; Escape gives back what is saved. */
export function DraftField({ label, saved, onSave, hint, placeholder, longest, isLong = false }: DraftFieldProps) {
  const draft = useDraft(saved, onSave);
  const shared = {
    label,
    hint,
    placeholder,
    maxLength: longest,
    value: draft.value,
    onBlur: draft.commit,
  };
  if (isLong) {
    return (
      <TextArea
        {...shared}
        rows={3}
        onChange={(event) => draft.type(event.target.value)}
        onKeyDown={(event) => event.key === 'Escape' && draft.cancel()}
      />
    );
  }
  return (
    <TextField
      {...shared}
      onChange={(event) => draft.type(event.target.value)}
      onKeyDown={(event) => {
        if (event.key === 'Enter') draft.commit();
        else if (event.key === 'Escape') draft.cancel();
      }}
    />
  );
}
