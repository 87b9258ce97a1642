import { Choice } from '../../ui/field.tsx';
import { type SettingsProps, editorPart } from './editor-part.ts';

export const NOTE_PART = editorPart('note', Tone);

function Tone({ attributes, set }: SettingsProps<{ readonly tone: 'note' | 'warning' }>) {
  return (
    <Choice
      label="What it is"
      value={attributes.tone}
      onChange={(event) => set({ tone: event.target.value as 'note' | 'warning' })}
    >
      <option value="note">To know</option>
      <option value="warning">A warning</option>
    </Choice>
  );
}
