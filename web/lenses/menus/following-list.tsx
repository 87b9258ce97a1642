import type { MenuEntry } from '#core/derive/menu.ts';
import type { PageId } from '#core/model/ids.ts';
import type { EntryId, Menu } from '#core/model/menu.ts';
import { ancestorsOf, maybeNodeAt } from '#core/model/site.ts';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { exceptionSigns } from './exception-signs.ts';

interface FollowingListProps {
  readonly menu: Menu;
  readonly entries: readonly MenuEntry[];
  readonly page: PageId | null;
  readonly chosen: EntryId | null;
  readonly onChoose: (entry: EntryId) => void;
}

/** A menu as it shows, with the page that is selected and those above it marked. */
export function FollowingList(props: FollowingListProps) {
  const { site } = useWorkbench();
  const { page } = props;
  const above = new Set(page === null || !maybeNodeAt(site, page) ? [] : ancestorsOf(site, page).map(({ id }) => id));
  return <Entries {...props} above={above} prefix="" />;
}

function Entries({
  entries,
  prefix,
  above,
  ...rest
}: FollowingListProps & { readonly prefix: string; readonly above: ReadonlySet<PageId> }) {
  const { select } = useWorkbench();
  return (
    <ol className={prefix === '' ? '' : 'ml-4'}>
      {entries.map((entry, index) => {
        const number = `${prefix}${index + 1}`;
        const isCurrent = entry.page !== null && entry.page === rest.page;
        const signs = exceptionSigns(rest.menu, entry);
        return (
          <li key={entry.id}>
            <button
              type="button"
              aria-current={isCurrent ? 'page' : entry.page !== null && above.has(entry.page) ? 'true' : undefined}
              aria-pressed={rest.chosen === entry.id}
              onClick={() => {
                rest.onChoose(entry.id);
                if (entry.page !== null)
                  select({ active: entry.page, chosen: new Set([entry.page]), anchor: entry.page });
              }}
              className={`flex w-full items-baseline gap-2 rounded px-2 py-1 text-left hover:bg-sunken aria-[current=page]:bg-accent-soft aria-[current=page]:font-medium aria-[current=true]:font-medium ${rest.chosen === entry.id ? 'outline-1 outline-accent' : ''}`}
            >
              <span className="w-8 shrink-0 font-mono text-small text-quiet">{number}</span>
              <span className={`min-w-0 truncate ${entry.leadsTo === null && entry.does === null ? 'text-quiet' : ''}`}>
                {entry.text}
              </span>
              {entry.leadsTo === null && entry.does === null && <Sign words="text only" />}
              {signs.map((words) => (
                <Sign key={words} words={words} />
              ))}
            </button>
            {entry.entries.length > 0 && (
              <Entries {...rest} entries={entry.entries} prefix={`${number}.`} above={above} />
            )}
          </li>
        );
      })}
    </ol>
  );
}

const Sign = ({ words }: { readonly words: string }) => (
  <span className="shrink-0 rounded-sm bg-sunken px-1 text-tiny text-quiet">{words}</span>
);
