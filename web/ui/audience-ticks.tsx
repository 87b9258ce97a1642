import { type AudienceId, SIGNED_OUT, SIGNED_OUT_NAME } from '#core/model/audience.ts';
import { Tick } from './field.tsx';

interface Named {
  readonly id: AudienceId;
  readonly name: string;
}

/** Whom something is for: only some audiences, or all that would get it anyway, but not some. */
export function AudienceTicks({
  audiences,
  all,
  only,
  except,
  onSet,
}: {
  readonly audiences: readonly Named[];
  /** Who gets it where no audience is named. */
  readonly all: string;
  readonly only: readonly AudienceId[] | null;
  readonly except: readonly AudienceId[];
  readonly onSet: (change: { only?: AudienceId[] | null; except?: AudienceId[] }) => void;
}) {
  const toggled = (ids: readonly AudienceId[], id: AudienceId) =>
    ids.includes(id) ? ids.filter((one) => one !== id) : [...ids, id];
  return (
    <fieldset className="flex flex-col gap-1">
      <legend className="mb-1 text-small font-medium">Open to only</legend>
      <Tick label={all} checked={only === null} onChange={() => only !== null && onSet({ only: null })} />
      {[...audiences, { id: SIGNED_OUT, name: capitalised(SIGNED_OUT_NAME) }].map(({ id, name }) => (
        <Tick
          key={id}
          label={name}
          checked={only?.includes(id) === true}
          onChange={() => {
            const next = toggled(only ?? [], id);
            onSet({ only: next.length === 0 ? null : next });
          }}
        />
      ))}
      <p className="mt-2 mb-1 text-small font-medium">But not to</p>
      {audiences.map(({ id, name }) => (
        <Tick
          key={id}
          label={name}
          aria-label={`Not to ${name}`}
          checked={except.includes(id)}
          onChange={() => onSet({ except: toggled(except, id) })}
        />
      ))}
    </fieldset>
  );
}

const capitalised = (words: string): string => words[0]!.toUpperCase() + words.slice(1);
