import { useState } from 'react';
import type { FileId } from '#core/files/file.ts';
import type { Look } from '#core/model/look.ts';
import { type LibraryFile, fileAddress } from '#contract/files.ts';
import { useLibrary } from '../../../api/files.ts';
import { ChooseFile } from '../../../files/choose-file.tsx';
import { Button } from '../../../ui/button.tsx';
import { Tick } from '../../../ui/field.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';

type Place = 'logo' | 'logoOnDark';
const PLACES: readonly { readonly place: Place; readonly words: string; readonly ground: string }[] = [
  { place: 'logo', words: 'Logo', ground: '#ffffff' },
  { place: 'logoOnDark', words: 'Logo on dark grounds', ground: '#1d2b33' },
];

/** The sign of the organisation in the header of its pages, and the icons that are made from it. */
export function Logos({ look, onSet }: { readonly look: Look; readonly onSet: (change: Partial<Look>) => void }) {
  const { site, mayEdit } = useWorkbench();
  const library = useLibrary(site.key);
  const [choosing, setChoosing] = useState<Place | null>(null);
  const choose = (place: Place, file: LibraryFile) => {
    setChoosing(null);
    onSet({ [place]: file.id as FileId });
  };
  // The one for dark grounds is asked for once there is one at all.
  const places = PLACES.filter(({ place }) => place === 'logo' || look.logo !== null || look.logoOnDark !== null);
  return (
    <section aria-labelledby="logos" className="flex flex-col gap-2 border-t border-rule pt-4">
      <h3 id="logos" className="font-display text-large font-semibold">
        Logo
      </h3>
      <p className="text-small text-quiet">
        It stands in the header of each page, and browsers and telephones get icons made from it.
      </p>
      {look.logo !== null && (
        <Tick
          label="The name of the site stands beside it"
          checked={look.withName}
          onChange={(event) => onSet({ withName: event.target.checked })}
        />
      )}
      {places.map(({ place, words, ground }) => {
        const file = library?.find(({ id }) => id === look[place]);
        return (
          <div key={place} role="group" aria-label={words} className="flex flex-wrap items-center gap-2">
            <span
              className="flex h-14 w-36 items-center justify-center overflow-hidden rounded-md border border-edge p-1.5"
              style={{ background: ground, color: place === 'logo' ? '#4b5a62' : '#cfd8dc' }}
            >
              {file ? (
                <img
                  src={fileAddress(site.key, file, 320)}
                  alt={file.name}
                  className="max-h-full max-w-full object-contain"
                />
              ) : (
                <span className="text-small">{place === 'logo' ? 'None yet' : 'The same'}</span>
              )}
            </span>
            <span className="flex min-w-24 flex-1 flex-col items-start">
              {words}
              {mayEdit && look[place] !== null && (
                <Button
                  isTight
                  look="quiet"
                  className="-ml-2"
                  aria-label={`Remove: ${words}`}
                  onClick={() => onSet({ [place]: null })}
                >
                  Remove
                </Button>
              )}
            </span>
            {mayEdit && (
              <Button
                aria-expanded={choosing === place}
                aria-label={`Choose: ${words}`}
                onClick={() => setChoosing(choosing === place ? null : place)}
              >
                Choose…
              </Button>
            )}
            {choosing === place && (
              <div className="basis-full">
                <ChooseFile site={site.key} kind="picture" onChosen={([chosen]) => chosen && choose(place, chosen)} />
              </div>
            )}
          </div>
        );
      })}
    </section>
  );
}
