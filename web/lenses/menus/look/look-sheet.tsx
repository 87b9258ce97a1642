import { Palette } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { useLocation, useNavigate } from 'react-router';
import { isSameJson } from '#core/model/canonical-json.ts';
import { FIRST_LOOK, type Look, SCHEME_NAMES, lookSchema, withOwnOf } from '#core/model/look.ts';
import { tryLook, useShownLook } from '../../../fields/shown-look.ts';
import type { CarriedLooks } from '../../../looks/looks-to-compare.ts';
import type { WholeKind } from '../../../settings/settings-kind.ts';
import { Button } from '../../../ui/button.tsx';
import { Choice, Tick } from '../../../ui/field.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { ColourField } from '../../../fields/colour-field.tsx';
import { SCHEME_WORDS } from '../../../fields/scheme-words.ts';
import { CssOfOnesOwn } from './own-css-field.tsx';
import { Logos } from './logos.tsx';
import { PairChoice } from '../../../fields/pair-choice.tsx';
import { SchemeSamples } from './scheme-samples.tsx';
import { ShiftedShades } from './shifted-shades.tsx';
import { Suggestions } from './suggestions.tsx';

/** How the site appears to its visitors. */
export const LOOK: WholeKind = {
  edits: 'look',
  title: 'Look',
  Sign: Palette,
  description:
    'A few decisions for the whole site. All other colours and sizes follow from them, so that everything can be read. Visitors get the look with the next release.',
  Whole: LookFields,
};

type Step = 'size' | 'width' | 'scale' | 'weight' | 'room' | 'corners' | 'lines';
const STEPS: {
  readonly [Name in Step]: { readonly label: string; readonly words: Readonly<Record<Look[Name], string>> };
} = {
  size: { label: 'Size of text', words: { small: 'Small', usual: 'Usual', large: 'Large' } },
  width: { label: 'Length of lines', words: { narrow: 'Short', usual: 'Usual', wide: 'Long' } },
  scale: { label: 'Size of headings', words: { calm: 'Calm', usual: 'Usual', bold: 'Bold' } },
  weight: { label: 'Weight of headings', words: { light: 'Light', usual: 'Usual', heavy: 'Heavy' } },
  room: { label: 'Room between parts', words: { dense: 'Dense', usual: 'Usual', roomy: 'Roomy' } },
  corners: { label: 'Corners', words: { square: 'Square', soft: 'Soft', round: 'Round' } },
  lines: { label: 'Lines', words: { none: 'None', fine: 'Fine', strong: 'Strong' } },
};

function LookFields() {
  const { site, store, mayEdit } = useWorkbench();
  const { look } = site.settings;
  const navigate = useNavigate();
  const shown = useShownLook();
  // A suggestion that is tried can be changed before it is taken.
  const [tried, setTried] = useState<Look | null>(null);
  const base = tried ?? look;
  useEffect(() => () => tryLook(null), []);
  const attempt = (change: Partial<Look>) => tryLook({ ...base, ...change });
  const show = (suggestion: Look | null) => {
    setTried(suggestion);
    tryLook(suggestion);
  };
  const take = (next: Look) => {
    show(null);
    store.apply([{ name: 'site.set', fields: { look: next } }]);
  };
  useTakenBeside((taken) => mayEdit && !isSameJson(taken, look) && take(withOwnOf(taken, look)));
  const set = (change: Partial<Look>) => (tried ? show : take)({ ...base, ...change });
  return (
    <fieldset disabled={!mayEdit} className="flex min-w-0 flex-col gap-4">
      <SchemeSamples look={shown} />
      <Button className="self-start" onClick={() => void navigate(`/sites/${site.key}/looks?page=/~sample`)}>
        See the sample page
      </Button>
      <div className="grid gap-3 @md:grid-cols-2">
        <ColourField
          label="Colour of the organisation"
          value={shown.colour}
          onTry={(colour) => attempt({ colour })}
          onSet={(colour) => set({ colour })}
        />
        {shown.accent !== null && (
          <ColourField
            label="Colour of links and buttons"
            value={shown.accent}
            onTry={(accent) => attempt({ accent })}
            onSet={(accent) => set({ accent })}
          />
        )}
      </div>
      <Tick
        label="Links and buttons have a colour of their own"
        checked={base.accent !== null}
        onChange={(event) => set({ accent: event.target.checked ? base.colour : null })}
      />
      <ShiftedShades look={shown} />
      <div className="grid gap-3 @md:grid-cols-2">
        {(['header', 'footer'] as const).map((part) => (
          <Choice
            key={part}
            label={part === 'header' ? 'Header' : 'Footer'}
            value={base[part]}
            onChange={(event) => set({ [part]: event.target.value as Look['header'] })}
          >
            {SCHEME_NAMES.map((scheme) => (
              <option key={scheme} value={scheme}>
                {SCHEME_WORDS[scheme]}
              </option>
            ))}
          </Choice>
        ))}
      </div>
      <Logos look={base} onSet={set} />
      {mayEdit && <Suggestions tried={tried} onTry={show} onTake={take} />}
      <h3 className="border-t border-rule pt-4 font-display text-large font-semibold">Type</h3>
      <PairChoice value={base.pair} onSet={(pair) => set({ pair })} />
      <div className="grid gap-3 @md:grid-cols-2">
        {(Object.keys(STEPS) as Step[]).map((name) => (
          <StepChoice key={name} name={name} value={base[name]} onSet={set} />
        ))}
      </div>
      <CssOfOnesOwn value={base.css} onSet={(css) => set({ css })} />
      {!isSameJson(base, withOwnOf(FIRST_LOOK, base)) && mayEdit && (
        <Button className="self-start" onClick={() => take(withOwnOf(FIRST_LOOK, base))}>
          Begin again with the first look
        </Button>
      )}
    </fieldset>
  );
}

/** Takes a look that was chosen where several stand side by side, once. */
function useTakenBeside(onTake: (look: Look) => void): void {
  const { state, pathname, search } = useLocation();
  const navigate = useNavigate();
  const told = useRef(onTake);
  useEffect(() => {
    told.current = onTake;
  });
  const taken = (state as CarriedLooks | null)?.taken;
  useEffect(() => {
    if (taken === undefined) return;
    void navigate(pathname + search, { replace: true, state: null });
    const { data } = lookSchema.safeParse(taken);
    if (data) told.current(data);
  }, [taken, pathname, search, navigate]);
}

function StepChoice<Name extends Step>({
  name,
  value,
  onSet,
}: {
  readonly name: Name;
  readonly value: Look[Name];
  readonly onSet: (change: Partial<Look>) => void;
}) {
  const { label, words } = STEPS[name];
  return (
    <Choice label={label} value={value} onChange={(event) => onSet({ [name]: event.target.value })}>
      {Object.entries<string>(words).map(([step, says]) => (
        <option key={step} value={step}>
          {says}
        </option>
      ))}
    </Choice>
  );
}
