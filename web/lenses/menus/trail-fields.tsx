import type { PageId } from '#core/model/ids.ts';
import { textIn } from '#core/model/texts.ts';
import { MAX_LEAD_IN_LENGTH, type TrailSetting } from '#core/model/trail-setting.ts';
import { trailBy } from '#core/derive/shown-trail.ts';
import { DraftField } from '../../fields/draft-field.tsx';
import { PageField } from '../../fields/page-field.tsx';
import { Choice, Tick } from '../../ui/field.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';

const STARTS = [
  { value: 'top', words: 'At the top of the tree' },
  ...[1, 2, 3, 4].map((up) => ({
    value: `up ${up}`,
    words: up === 1 ? 'One level above the page' : `${up} levels above the page`,
  })),
];

/** How trails look, with the trail of one page as it would show. */
export function TrailFields({
  setting,
  sample,
  onSet,
}: {
  readonly setting: TrailSetting;
  /** The page whose trail shows. */
  readonly sample: PageId | null;
  readonly onSet: (setting: TrailSetting) => void;
}) {
  const { site, derived } = useWorkbench();
  const { language } = site.settings;
  const set = (change: Partial<TrailSetting>) => onSet({ ...setting, ...change });
  const { start } = setting;
  return (
    <div className="flex flex-col gap-3">
      {sample !== null && <SampleTrail setting={setting} page={sample} />}
      <Tick
        label="Pages have a trail"
        checked={setting.isShown}
        onChange={(event) => set({ isShown: event.target.checked })}
      />
      {setting.isShown && (
        <>
          <PageField
            label="It starts"
            value={start === 'top' ? 'top' : 'up' in start ? `up ${start.up}` : start.page}
            others={STARTS}
            isOffered={(row) => derived.outline.nodes[row]!.type !== 'link'}
            wordsOf={(title) => `At ‘${title}’, where that is above`}
            onChoose={(value) => {
              const up = /^up (\d+)$/.exec(value)?.[1];
              set({ start: value === 'top' ? 'top' : up ? { up: Number(up) } : { page: value as PageId } });
            }}
          />
          <Tick
            label="Start with home"
            checked={setting.withHome}
            onChange={(event) => set({ withHome: event.target.checked })}
          />
          <div className="grid grid-cols-2 gap-3">
            <DraftField
              label="Name for home"
              saved={textIn(setting.homeLabel, language)}
              placeholder="as in menus"
              longest={MAX_LEAD_IN_LENGTH}
              onSave={(text) => set({ homeLabel: text.trim() === '' ? {} : { [language]: text.trim() } })}
            />
            <DraftField
              label="Words before the trail"
              saved={textIn(setting.leadIn, language)}
              placeholder="You are here:"
              longest={MAX_LEAD_IN_LENGTH}
              onSave={(text) => set({ leadIn: text.trim() === '' ? {} : { [language]: text.trim() } })}
            />
            <Choice
              label="The page itself"
              value={setting.current}
              onChange={(event) => set({ current: event.target.value as TrailSetting['current'] })}
            >
              <option value="shown">Shown</option>
              <option value="linked">Shown, as a link</option>
              <option value="left out">Left out</option>
            </Choice>
            <DraftField
              label="Between the steps"
              saved={setting.separator}
              longest={3}
              onSave={(text) => text.trim() !== '' && set({ separator: text.trim() })}
            />
            <Choice
              label="Long trails"
              value={setting.most ?? ''}
              onChange={(event) => set({ most: event.target.value === '' ? null : Number(event.target.value) })}
            >
              <option value="">Shown whole</option>
              {[3, 4, 5, 6].map((most) => (
                <option key={most} value={most}>
                  {most} steps at most
                </option>
              ))}
            </Choice>
          </div>
        </>
      )}
    </div>
  );
}

function SampleTrail({ setting, page }: { readonly setting: TrailSetting; readonly page: PageId }) {
  const { site } = useWorkbench();
  const { steps, leadIn, separator } = trailBy(site, page, setting);
  const shown = steps.filter(({ isFolded }) => !isFolded);
  return (
    <p aria-label="Preview of a trail" className="rounded-md bg-sunken px-3 py-2 text-small">
      {steps.length === 0 ? (
        <span className="text-quiet">No trail is shown.</span>
      ) : (
        <>
          {leadIn !== '' && <span className="mr-2 text-quiet">{leadIn}</span>}
          {shown.map((step, index) => (
            <span key={step.page}>
              {index > 0 && <span className="px-1.5 text-quiet">{separator}</span>}
              {index === 1 && shown.length < steps.length && <span className="text-quiet">… {separator} </span>}
              <span className={step.address === null ? '' : 'text-accent underline'}>{step.text}</span>
            </span>
          ))}
        </>
      )}
    </p>
  );
}
