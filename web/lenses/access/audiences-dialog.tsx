import type { Audience } from '#core/model/audience.ts';
import { MAX_AUDIENCE_NAME_LENGTH } from '#core/model/audience.ts';
import type { PageId } from '#core/model/ids.ts';
import { newAudienceId } from '../../api/site-store.ts';
import { Tick } from '../../ui/field.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { PageField } from '../../fields/page-field.tsx';
import { NamedThing, NamedThings } from '../../fields/named-things.tsx';

const HOME = { value: 'home', words: 'The home page' };

/** The audiences of the site: named sets of visitors, some of which take in others. */
export function AudiencesDialog({ onClose }: { readonly onClose: () => void }) {
  const { site, store } = useWorkbench();
  const { audiences } = site.settings;
  return (
    <NamedThings
      title="Audiences"
      description="Everyone is built in. Other audiences are sets of visitors who sign in; one can include another. Changes reach visitors with the next release."
      one="audience"
      placeholder="Staff"
      longest={MAX_AUDIENCE_NAME_LENGTH}
      isEmpty={audiences.length === 0}
      onAdd={(title) => store.apply([{ name: 'audience.add', audience: newAudienceId(), title }]) === null}
      onClose={onClose}
    >
      {audiences.map((audience) => (
        <OneAudience key={audience.id} audience={audience} />
      ))}
    </NamedThings>
  );
}

function OneAudience({ audience: { id, name, includes, landing } }: { readonly audience: Audience }) {
  const { site, store, derived } = useWorkbench();
  const { outline } = derived;
  const others = site.settings.audiences.filter((one) => one.id !== id);
  return (
    <NamedThing
      name={name}
      one="audience"
      longest={MAX_AUDIENCE_NAME_LENGTH}
      onRename={(title) => store.apply([{ name: 'audience.set', audience: id, fields: { title } }])}
      onRemove={() => store.apply([{ name: 'audience.remove', audience: id }])}
    >
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
    </NamedThing>
  );
}
