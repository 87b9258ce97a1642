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
  /** Is told what is typed, and null when the typing is over. */
  readonly onTyping?: (text: string | null) => void;
}

/**
 * A field that saves when it is left, by Enter and by Escape: what is not wanted is undone. Where what is typed is only considered, since
 * its consequences are shown meanwhile, Escape gives back what is saved.
 */
export function DraftField({
  label,
  saved,
  onSave,
  hint,
  placeholder,
  longest,
  isLong = false,
  onTyping,
}: DraftFieldProps) {
  const draft = useDraft(saved, onSave);
  const type = (text: string) => {
    draft.type(text);
    onTyping?.(text);
  };
  const end = (how: () => void) => {
    how();
    onTyping?.(null);
  };
  const leave = () => end(onTyping ? draft.cancel : draft.commit);
  const shared = {
    label,
    hint,
    placeholder,
    maxLength: longest,
    value: draft.value,
    onBlur: () => end(draft.commit),
  };
  if (isLong) {
    return (
      <TextArea
        {...shared}
        rows={3}
        onChange={(event) => type(event.target.value)}
        onKeyDown={(event) => event.key === 'Escape' && leave()}
      />
    );
  }
  return (
    <TextField
      {...shared}
      onChange={(event) => type(event.target.value)}
      onKeyDown={(event) => {
        if (event.key === 'Enter') end(draft.commit);
        else if (event.key === 'Escape') leave();
      }}
    />
  );
}
