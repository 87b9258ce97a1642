import { useState } from 'react';
import { useNavigate } from 'react-router';
import { suggestLooks } from '#core/look/suggest.ts';
import { schemesOf } from '#core/look/schemes.ts';
import { TYPE_PAIRS, pairName, stackOf } from '#core/look/type-pairs.ts';
import { isSameJson } from '#core/model/canonical-json.ts';
import { type Look, withOwnOf } from '#core/model/look.ts';
import { type LibraryFile, fileAddress } from '#contract/files.ts';
import { useLibrary } from '../../../api/files.ts';
import { coloursIn } from '../../../files/colours-in.ts';
import { ChooseFile } from '../../../files/choose-file.tsx';
import type { CarriedLooks } from '../../../looks/looks-to-compare.ts';
import { Button } from '../../../ui/button.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { RADII } from './scheme-samples.tsx';
import { toast } from '../../../ui/toast.ts';

/** Looks to try, made from the colour of the organisation or from those of a picture. What is tried changes nothing until it is taken. */
export function Suggestions({
  tried,
  onTry,
  onTake,
}: {
  /** The one that is tried, perhaps changed since; null where none is. */
  readonly tried: Look | null;
  readonly onTry: (look: Look | null) => void;
  readonly onTake: (look: Look) => void;
}) {
  const { site } = useWorkbench();
  const { look } = site.settings;
  const navigate = useNavigate();
  const [colours, setColours] = useState<readonly string[] | null>(null);
  const [round, setRound] = useState<number | null>(null);
  const [isChoosing, setChoosing] = useState(false);
  const suggested =
    round === null ? [] : suggestLooks(colours ?? [look.colour], round).map((one) => withOwnOf(one, look));
  const logo = useLibrary(site.key)?.find(({ id }) => id === look.logo);
  const fromPicture = async (file: LibraryFile) => {
    setChoosing(false);
    const found = await coloursIn(fileAddress(site.key, file, 320)).catch(() => []);
    if (found.length === 0) return void toast.error('No colours could be found in this picture. Choose another one.');
    setColours(found);
    setRound(0);
  };
  return (
    <section aria-labelledby="suggestions" className="flex flex-col gap-2 border-t border-rule pt-4">
      <h3 id="suggestions" className="font-display text-large font-semibold">
        Suggestions
      </h3>
      <div className="flex flex-wrap gap-2">
        <Button onClick={() => setRound((now) => (now ?? -1) + 1)}>
          {round === null ? 'Suggest three looks' : 'Three others'}
        </Button>
        {suggested.length > 0 && (
          <Button
            onClick={() =>
              void navigate(`/sites/${site.key}/looks`, { state: { looks: suggested } satisfies CarriedLooks })
            }
          >
            Side by side
          </Button>
        )}
        <Button aria-expanded={isChoosing} onClick={() => setChoosing(!isChoosing)}>
          From a picture…
        </Button>
        {logo && <Button onClick={() => void fromPicture(logo)}>From the logo</Button>}
        {colours && (
          <Button look="quiet" onClick={() => setColours(null)}>
            From the colour again
          </Button>
        )}
      </div>
      {isChoosing && (
        <ChooseFile site={site.key} kind="picture" onChosen={([file]) => file && void fromPicture(file)} />
      )}
      {colours && (
        <ul aria-label="Colours of the picture" className="flex gap-1">
          {colours.map((colour) => (
            <li
              key={colour}
              title={colour}
              className="size-6 rounded-sm border border-rule"
              style={{ background: colour }}
            >
              <span className="sr-only">{colour}</span>
            </li>
          ))}
        </ul>
      )}
      {suggested.length > 0 && (
        <div role="group" aria-label="Suggested looks" className="grid gap-2">
          {suggested.map((one, at) => (
            <LookCard
              key={at}
              name={`Suggestion ${at + 1}`}
              look={one}
              isTried={isSameJson(one, tried)}
              onTry={() => onTry(isSameJson(one, tried) ? null : one)}
            />
          ))}
        </div>
      )}
      {tried && (
        <div className="flex flex-wrap items-center gap-2">
          <Button look="main" onClick={() => onTake(tried)}>
            Take this look
          </Button>
          <Button onClick={() => onTry(null)}>Back to the site’s own</Button>
        </div>
      )}
    </section>
  );
}

/** A look in small: its header, a heading, a line with a link, and a button. */
function LookCard({
  name,
  look,
  isTried,
  onTry,
}: {
  readonly name: string;
  readonly look: Look;
  readonly isTried: boolean;
  readonly onTry: () => void;
}) {
  const schemes = schemesOf(look);
  const pair = TYPE_PAIRS.find(({ id }) => id === look.pair)!;
  const [head, page] = [schemes[look.header].light, schemes.plain.light];
  const display = stackOf(pair.headings);
  return (
    <button
      type="button"
      aria-pressed={isTried}
      aria-label={`Try ${name}: ${pairName(pair)}`}
      onClick={onTry}
      className={`overflow-hidden rounded-md border text-left ${isTried ? 'border-accent outline-2 outline-accent' : 'border-edge'}`}
    >
      <span
        className="block px-3 py-1.5 font-semibold"
        style={{ background: head.paper, color: head.ink, fontFamily: display }}
      >
        {name}
      </span>
      <span
        className="flex flex-wrap items-baseline gap-x-3 px-3 py-2"
        style={{ background: page.paper, color: page.ink, fontFamily: stackOf(pair.text) }}
      >
        <span className="text-large" style={{ fontFamily: display }}>
          {pairName(pair)}
        </span>
        <span className="underline" style={{ color: page.accent }}>
          a link
        </span>
        <span
          className="px-2 font-semibold"
          style={{
            background: page.accent,
            color: page.onAccent,
            borderRadius: RADII[look.corners],
          }}
        >
          Button
        </span>
      </span>
    </button>
  );
}
