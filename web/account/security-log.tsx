import { momentWords } from '#core/model/moment-words.ts';
import type { SecurityEntry } from '#contract/people.ts';
import { securityWords } from './security-words.ts';

const HERE = Intl.DateTimeFormat().resolvedOptions().timeZone;

/** What has concerned security, the latest first. */
export function SecurityLog({
  entries,
  isOwn = false,
}: {
  readonly entries: readonly SecurityEntry[];
  readonly isOwn?: boolean;
}) {
  if (entries.length === 0) return <p className="text-quiet">Nothing yet.</p>;
  return (
    <ol aria-label="What happened" className="divide-y divide-rule rounded-md border border-rule bg-raised text-small">
      {entries.map((entry, at) => (
        <li key={`${entry.at} ${at}`} className="flex flex-wrap items-baseline gap-x-3 px-3 py-1.5">
          <span
            className={`min-w-0 flex-1 basis-60 wrap-anywhere ${entry.event === 'sign-in-failed' ? 'text-attention' : ''}`}
          >
            {securityWords(entry, isOwn)}
          </span>
          <span className="text-quiet">
            {momentWords(entry.at, HERE)}
            {entry.place !== '' && ` · ${entry.place}`}
          </span>
        </li>
      ))}
    </ol>
  );
}
