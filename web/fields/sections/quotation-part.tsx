import { DraftField } from '../draft-field.tsx';
import { type SettingsProps, editorPart } from './editor-part.ts';

export const QUOTATION_PART = editorPart('quotation', Source);

function Source({ attributes, set }: SettingsProps<{ readonly source: string }>) {
  return (
    <DraftField
      label="Who said it"
      saved={attributes.source}
      longest={300}
      placeholder="A student of last year"
      onSave={(source) => set({ source: source.trim() })}
    />
  );
}
