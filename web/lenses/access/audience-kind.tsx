import { UsersRound } from 'lucide-react';
import { giveAudience } from '#core/arrange/give.ts';
import { touchedByAudience, touchedByOpening } from '#core/derive/touched.ts';
import { type AudienceId, MAX_AUDIENCE_NAME_LENGTH, closureOf } from '#core/model/audience.ts';
import type { PageId } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import type { Outline } from '#core/derive/outline.ts';
import { type Edit, newAudienceId } from '../../api/site-store.ts';
import { Tick } from '../../ui/field.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { PageField } from '../../fields/page-field.tsx';
import type { ListKind } from '../../settings/settings-kind.ts';
import { ShowRows } from '../../settings/show-rows.tsx';
import { pages } from '../../tree/words.ts';

const HOME = { value: 'home', words: 'The home page' };

/** The audiences of the site: named sets of visitors, some of which take in others. */
export const AUDIENCES: ListKind = {
  edits: 'access',
  title: 'Audiences',
  one: 'audience',
  Sign: UsersRound,
  description:
    'Everyone is built in. Other audiences are sets of visitors who sign in; one can include another. Changes reach visitors with the next release.',
  placeholder: 'Staff',
  longest: MAX_AUDIENCE_NAME_LENGTH,
  followsClock: true,
  items: (site) => site.settings.audiences,
  says:
    (site, { outline }, at) =>
    (id) => ({ says: `Can open ${pages(openTo(site, outline, id as AudienceId, at).size)} of the draft` }),
  touched: (site, { outline }, id, { at }) => openTo(site, outline, id as AudienceId, at),
  add: (title) => {
    const audience = newAudienceId();
    return { id: audience, edit: { name: 'audience.add', audience, title } };
  },
  rename: (id, title) => ({ name: 'audience.set', audience: id as AudienceId, fields: { title } }),
  remove: (id) => ({ name: 'audience.remove', audience: id as AudienceId }),
  give: (site, to, id) => giveAudience(site, to, id as AudienceId) as Edit[],
  Fields: AudienceFields,
};

const openTo = (site: Site, outline: Outline, id: AudienceId, at: number) =>
  touchedByOpening(site, outline, closureOf(site.settings.audiences, [id]), at);

function AudienceFields({ id: open }: { readonly id: string }) {
  const { site, store, derived } = useWorkbench();
  const { outline } = derived;
  const audience = site.settings.audiences.find((one) => one.id === open);
  if (!audience) return null;
  const { id, includes, landing } = audience;
  const naming = [...touchedByAudience(site, outline, id)].filter(([, through]) => through === 'itself');
  const others = site.settings.audiences.filter((one) => one.id !== id);
  return (
    <>
      {naming.length > 0 && (
        <p>
          <ShowRows pages={naming.map(([page]) => page)}>
            {naming.length === 1 ? 'The rule of 1 page names it' : `The rules of ${naming.length} pages name it`}
          </ShowRows>
        </p>
      )}
      {others.length > 0 && (
        <fieldset className="flex flex-wrap gap-x-5 gap-y-1">
          <legend className="mb-1 text-small font-medium">It includes everyone in</legend>
          {others.map((other) => (
            <Tick
              key={other.id}
              label={other.name}
              checked={includes.includes(other.id)}
              onChange={() => {
                const next = includes.includes(other.id)
                  ? includes.filter((one) => one !== other.id)
                  : [...includes, other.id];
                store.apply([{ name: 'audience.set', audience: id, fields: { includes: next } }]);
              }}
            />
          ))}
        </fieldset>
      )}
      <PageField
        label="After signing in they go to"
        hint="Unless they had asked for another page."
        value={landing ?? HOME.value}
        others={[HOME]}
        isOffered={(row) => outline.nodes[row]!.type === 'page'}
        onChoose={(next) =>
          store.apply([
            {
              name: 'audience.set',
              audience: id,
              fields: { landing: next === HOME.value ? null : (next as PageId) },
            },
          ])
        }
      />
    </>
  );
}
