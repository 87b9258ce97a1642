import type { LinkFinding } from '#core/checks/link-findings.ts';
import { PAGE_CHECKS, type PageFinding } from '#core/checks/page-checks.ts';
import type { PageId } from '#core/model/ids.ts';
import { maybeNodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { useLinkLook } from '../../api/links.ts';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { PageHead } from '../page-head.tsx';
import { FAULT_WORDS, linkTargetWords } from '../../tree/words.ts';
import { findingWords, lackWords, outsideWords, settingsLinkWords } from './finding-words.ts';

/** So many pages with findings are listed. */
const MAX_LISTED = 100;

/** The Checks lens: what was found about the links of the selected page, and where else something was found. */
export function ChecksPanel({ page }: { readonly page: PageId | null }) {
  const { findings } = useWorkbench();
  const { ofLinks, ofPages } = findings;
  if (ofLinks === null) return <p className="text-quiet">Checking the links …</p>;
  return (
    <div className="flex flex-col gap-5">
      {page !== null && (
        <section>
          <PageHead page={page} />
          <h3 className="mt-4 font-display text-large font-semibold">The page</h3>
          {ofPages === null ? (
            <p className="text-quiet">Checking the pages …</p>
          ) : ofPages.get(page) ? (
            <ul aria-label="What this page lacks" className="divide-y divide-rule">
              {ofPages.get(page)!.map((finding) => (
                <OneLack key={finding.fault} finding={finding} />
              ))}
            </ul>
          ) : (
            <p className="text-quiet">It has everything it needs.</p>
          )}
          <h3 className="mt-4 font-display text-large font-semibold">Its links</h3>
          {ofLinks.get(page) ? (
            <ul aria-label="Broken links on this page" className="divide-y divide-rule">
              {ofLinks.get(page)!.map((finding) => (
                <OneFinding key={JSON.stringify([finding.to, finding.fault])} finding={finding} />
              ))}
            </ul>
          ) : (
            <p className="text-quiet">They all lead where they should.</p>
          )}
        </section>
      )}
      <Others page={page} />
      <OfSettings />
      <NotAsked />
    </div>
  );
}

function OneLack({ finding }: { readonly finding: PageFinding }) {
  const { site } = useWorkbench();
  return (
    <li className="py-2">
      <p className="font-medium text-attention">{PAGE_CHECKS[finding.fault].called}</p>
      <p className="text-small text-quiet">
        {lackWords(site, finding)} {finding.other !== null && <ShowPage page={finding.other} />}
      </p>
    </li>
  );
}

function ShowPage({ page }: { readonly page: PageId }) {
  const { select } = useWorkbench();
  return (
    <button
      type="button"
      className="text-accent underline"
      onClick={() => select({ active: page, chosen: new Set([page]), anchor: page })}
    >
      Show that page
    </button>
  );
}

function OneFinding({ finding }: { readonly finding: LinkFinding }) {
  const { site } = useWorkbench();
  const { to, fault } = finding;
  return (
    <li className="py-2">
      <p className="flex flex-wrap items-baseline justify-between gap-x-3">
        <span className={`min-w-0 font-medium break-words ${'address' in to ? 'font-mono text-small' : ''}`}>
          {linkTargetWords(site, finding)}
        </span>
        <span className="text-small text-attention">{FAULT_WORDS[fault]}</span>
      </p>
      <p className="text-small break-words text-quiet">
        {findingWords(site, finding)} {'page' in to && maybeNodeAt(site, to.page) && <ShowPage page={to.page} />}
      </p>
    </li>
  );
}

/** The other pages about which something was found, in tree order. */
function Others({ page }: { readonly page: PageId | null }) {
  const { site, derived, select, findings } = useWorkbench();
  const others = derived.outline.nodes.flatMap(({ id }): [PageId, string[]][] => {
    if (id === page) return [];
    const words = [
      ...(findings.ofLinks?.get(id) ?? []).map(({ fault }) => FAULT_WORDS[fault]),
      ...(findings.ofPages?.get(id) ?? []).map(({ fault }) => PAGE_CHECKS[fault].called),
    ];
    return words.length === 0 ? [] : [[id, words]];
  });
  if (others.length === 0) return null;
  return (
    <section aria-labelledby="findings-elsewhere" className={page === null ? '' : 'border-t border-rule pt-4'}>
      <h3 id="findings-elsewhere" className="font-display text-large font-semibold">
        {page === null ? 'Pages to look at' : 'Elsewhere'}
      </h3>
      <ul className="divide-y divide-rule">
        {others.slice(0, MAX_LISTED).map(([id, words]) => (
          <li key={id} className="flex items-baseline justify-between gap-3 py-1.5">
            <button
              type="button"
              className="min-w-0 truncate text-left text-accent hover:underline"
              onClick={() => select({ active: id, chosen: new Set([id]), anchor: id })}
            >
              {textIn(site.nodes.get(id)!.title, site.settings.language)}
            </button>
            <span className="shrink-0 text-small text-quiet">
              {words[0]}
              {words.length > 1 && ` and ${words.length - 1} more`}
            </span>
          </li>
        ))}
      </ul>
      {others.length > MAX_LISTED && (
        <p className="text-small text-quiet">and {others.length - MAX_LISTED} more pages; the filter lists them all</p>
      )}
    </section>
  );
}

/** Entries of menus, and redirects, that lead to outside addresses which do not answer as they should. */
function OfSettings() {
  const { site, settingsFindings, setBeside } = useWorkbench();
  if (settingsFindings.length === 0) return null;
  return (
    <section aria-labelledby="findings-of-settings" className="border-t border-rule pt-4">
      <h3 id="findings-of-settings" className="font-display text-large font-semibold">
        In menus and redirects
      </h3>
      <ul className="divide-y divide-rule">
        {settingsFindings.map(({ of, address, fault, says }) => (
          <li key={'menu' in of ? `${of.menu} ${of.entry}` : of.redirect} className="py-2">
            <p className="flex flex-wrap items-baseline justify-between gap-x-3">
              <button
                type="button"
                className="min-w-0 text-left text-accent hover:underline"
                onClick={() =>
                  setBeside('menu' in of ? { kind: 'menus', id: of.menu } : { kind: 'redirects', id: null })
                }
              >
                {settingsLinkWords(site, of)}
              </button>
              <span className="text-small text-attention">{FAULT_WORDS[fault]}</span>
            </p>
            <p className="font-mono text-small break-all">{address}</p>
            <p className="text-small text-quiet">{outsideWords(fault, says)}</p>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Outside addresses that were not asked, with the reason. */
function NotAsked() {
  const { site } = useWorkbench();
  const notAsked = useLinkLook(site.key)?.report?.notAsked ?? [];
  if (notAsked.length === 0) return null;
  return (
    <section aria-labelledby="not-asked" className="border-t border-rule pt-4">
      <h3 id="not-asked" className="font-display text-large font-semibold">
        Not checked
      </h3>
      <p className="text-small text-quiet">Only opening them in a browser shows whether they exist.</p>
      <ul className="divide-y divide-rule">
        {notAsked.map(({ address, says }) => (
          <li key={address} className="py-1.5 text-small">
            <p className="font-mono break-all">{address}</p>
            <p className="text-quiet">{says}</p>
          </li>
        ))}
      </ul>
    </section>
  );
}
