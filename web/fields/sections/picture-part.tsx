import type { PictureSetting } from '#core/sections/picture.ts';
import { useLibrary } from '../../api/files.ts';
import { Choice, Tick } from '../../ui/field.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { DraftField } from '../draft-field.tsx';
import { type SettingsProps, editorPart } from './editor-part.ts';
import { AnotherFile } from './file-ways.tsx';

export const PICTURE_PART = editorPart('picture', HowItStands);

function HowItStands({ attributes: { file, place, alternative, credit }, set }: SettingsProps<PictureSetting>) {
  const { site } = useWorkbench();
  const known = useLibrary(site.key)?.find((one) => one.id === file);
  if (!known) return null;
  const ofLibrary = known.isDecoration ? 'decoration' : known.alternative;
  return (
    <div className="grid w-full gap-2 @md:grid-cols-2 @4xl:grid-cols-4">
      <Choice label="Place" value={place} onChange={(event) => set({ place: event.target.value as typeof place })}>
        <option value="text">As wide as the text</option>
        <option value="wide">Wider than the text</option>
        <option value="left">Left of the text</option>
        <option value="right">Right of the text</option>
      </Choice>
      <DraftField label="Credit" saved={credit} longest={200} onSave={(words) => set({ credit: words.trim() })} />
      <div className="@md:col-span-2">
        <Tick
          label="Other words here for those who do not see it"
          hint={`The library says: ${ofLibrary === '' ? 'nothing yet' : ofLibrary}.`}
          checked={alternative !== null}
          onChange={() => set({ alternative: alternative === null ? known.alternative : null })}
        />
        {alternative !== null && (
          <DraftField
            label="What it shows here"
            saved={alternative}
            longest={500}
            hint="Leave it empty where the picture only decorates this page."
            onSave={(words) => set({ alternative: words.trim() })}
          />
        )}
      </div>
      <AnotherFile file={known} onNone={() => set({ file: null })} />
    </div>
  );
}
