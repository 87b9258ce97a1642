import { MomentField } from '../fields/day-field.tsx';
import { useMemo } from 'react';
import { passphrasesIn } from '#core/derive/access.ts';
import type { Site } from '#core/model/site.ts';
import { useMayOnSite } from '../api/people.ts';
import { useVisitors } from '../api/visitors.ts';
import { audiencesOf } from '../tree/access-of.ts';

/** Who walks, through what, when, and how wide. */
export interface Walking {
  readonly isDraft: boolean;
  /** The release after which the site is seen; null for what is live now. */
  readonly release: number | null;
  /** The id of an audience or of a visitor's account. */
  readonly who: string;
  /** By the clock of where the person is; empty for now. */
  readonly moment: string;
  /** Whether every passphrase counts as given. */
  readonly hasPassphrases: boolean;
  readonly width: 'telephone' | 'tablet' | 'desktop';
}

const FIELD = 'h-8 min-w-0 rounded-md border border-edge bg-raised px-2';

/** The choices of one walk, in a bar above it. */
export function WalkChoices({
  site,
  walking,
  asked,
  onSet,
}: {
  readonly site: Site;
  readonly walking: Walking;
  /** A release that can be chosen too, or null. */
  readonly asked: number | null;
  readonly onSet: (walking: Walking) => void;
}) {
  const mayAsk = useMayOnSite(site.key, 'access');
  const maySeePeople = useMayOnSite(site.key, 'people');
  const asksForPassphrases = useMemo(() => passphrasesIn(site).size > 0, [site]);
  const people = useVisitors(maySeePeople ? site.key : null) ?? [];
  return (
    <div className="flex flex-wrap items-center gap-2 border-b border-rule bg-paper px-3 py-1.5 text-small">
      <select
        aria-label="Walk as"
        value={walking.who}
        onChange={(event) => onSet({ ...walking, who: event.target.value })}
        className={FIELD}
      >
        <optgroup label="Audiences">
          {audiencesOf(site).map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </optgroup>
        {people.length > 0 && (
          <optgroup label="People">
            {people.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </optgroup>
        )}
      </select>
      <select
        aria-label="Version"
        value={walking.isDraft ? 'draft' : walking.release === null ? 'live' : 'release'}
        onChange={({ target: { value } }) =>
          onSet({ ...walking, isDraft: value === 'draft', release: value === 'release' ? asked : null })
        }
        className={FIELD}
      >
        <option value="draft">The draft</option>
        <option value="live">What is live</option>
        {asked !== null && <option value="release">Release {asked}</option>}
      </select>
      <div className="w-56">
        <MomentField
          isBare
          label="At this moment; leave empty for now"
          value={walking.moment}
          onSet={(moment) => onSet({ ...walking, moment })}
        />
      </div>
      <select
        aria-label="Width"
        value={walking.width}
        onChange={(event) => onSet({ ...walking, width: event.target.value as Walking['width'] })}
        className={FIELD}
      >
        <option value="telephone">Telephone</option>
        <option value="tablet">Tablet</option>
        <option value="desktop">Desktop</option>
      </select>
      {asksForPassphrases && mayAsk && (
        <label className="flex min-h-6 items-center gap-1.5">
          <input
            type="checkbox"
            className="size-4 accent-accent"
            checked={walking.hasPassphrases}
            onChange={() => onSet({ ...walking, hasPassphrases: !walking.hasPassphrases })}
          />
          With passphrases
        </label>
      )}
    </div>
  );
}
