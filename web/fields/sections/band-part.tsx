import { SCHEME_NAMES, type SchemeName } from '#core/model/look.ts';
import { BAND, type BAND_WIDTHS } from '#core/sections/band.ts';
import { Choice } from '../../ui/field.tsx';
import { SCHEME_WORDS } from '../scheme-words.ts';
import { type SettingsProps, editorPart } from './editor-part.ts';

type Width = (typeof BAND_WIDTHS)[number];

export const BAND_PART = editorPart(BAND.type, BandSettings);

function BandSettings({ attributes, set }: SettingsProps<{ readonly scheme: SchemeName; readonly width: Width }>) {
  return (
    <div className="flex flex-wrap items-end gap-2">
      <Choice
        label="Colours"
        value={attributes.scheme}
        onChange={(event) => set({ scheme: event.target.value as SchemeName })}
      >
        {SCHEME_NAMES.map((scheme) => (
          <option key={scheme} value={scheme}>
            {SCHEME_WORDS[scheme]}
          </option>
        ))}
      </Choice>
      <Choice
        label="As wide as"
        value={attributes.width}
        onChange={(event) => set({ width: event.target.value as Width })}
      >
        <option value="text">The text</option>
        <option value="page">The page</option>
      </Choice>
    </div>
  );
}
