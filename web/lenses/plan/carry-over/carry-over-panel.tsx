import { ExternalLink } from 'lucide-react';
import { acceptPairs, declinePair, letGoOf, moveOldPage } from '#core/carryover/settle.ts';
import type { PageId } from '#core/model/ids.ts';
import { type SiteNode } from '#core/model/node.ts';
import { UNDECIDED } from '#core/model/old-page.ts';
import { type Origin, planOf } from '#core/model/plan.ts';
import { maybeNodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import type { CarryOverPair } from '#contract/old-site.ts';
import type { Edit } from '../../../api/site-store.ts';
import { ORIGIN_MEANING, ORIGIN_WORDS, OriginSign } from '../../../tree/plan-words.tsx';
import { Button } from '../../../ui/button.tsx';
import { PageField } from '../../../fields/page-field.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { type OldPageWire, useCarryOverState } from './carry-over-context.ts';
import { TakeText } from './take-text.tsx';
import { OldPageField } from './old-page-field.tsx';
import { REASON_WORDS, confidenceWords, titleOfOld } from './old-words.ts';
import { numberWords } from '../../../ui/number-words.ts';

/** The chosen old page: what is known of it, which pages may take it over and why, and what else can be done with it. */
export function CarryOverPanel() {
  const { pages, chosen } = useCarryOverState();
  const page = pages.find(({ address }) => address === chosen.old);
  return (
    <aside
      aria-label="Chosen old page"
      className="w-80 shrink-0 overflow-y-auto border-l border-rule bg-paper p-4 max-md:w-auto max-md:max-h-72 short:max-md:max-h-none max-md:border-t max-md:border-l-0"
    >
      {page ? (
        <OnePage key={page.address} page={page} />
      ) : chosen.planned !== null ? (
        <PlannedWithoutSource page={chosen.planned} />
      ) : (
        <div className="text-quiet">
          <p>
            Choose a page on either side to see why it was matched. Drag an old page onto a planned one to correct it.
          </p>
          <dl className="mt-4 grid grid-cols-[auto_1fr] items-center gap-x-3 gap-y-1.5 text-small">
            <Legend dash={undefined} words="Settled" />
            <Legend dash="6 4" words="Safe to accept" />
            <Legend dash="1.5 4" words="Needs a look" />
          </dl>
        </div>
      )}
    </aside>
  );
}

function Legend({ dash, words }: { readonly dash: string | undefined; readonly words: string }) {
  return (
    <>
      <dt>
        <svg width="36" height="8" aria-hidden>
          <path
            d="M2 4H34"
            stroke={dash === undefined ? 'var(--accent)' : 'var(--ink)'}
            strokeWidth="2"
            strokeDasharray={dash}
            strokeLinecap="round"
          />
        </svg>
      </dt>
      <dd>{words}</dd>
    </>
  );
}

function OnePage({ page }: { readonly page: OldPageWire }) {
  const { site, store, mayEdit } = useWorkbench();
  const { settled, proposals, choose, pairOf } = useCarryOverState();
  const places = settled.placesOf.get(page.address) ?? [];
  const decision = site.oldPages.get(page.address) ?? UNDECIDED;
  const mine = proposals.filter(({ old }) => old === page.address);
  const apply = (operations: readonly unknown[]) => store.apply(operations as Edit[]);
  const titleAt = (id: PageId) => titleOfNode(maybeNodeAt(site, id), site.settings.language);
  const facts = [
    page.visits !== null && `${numberWords(page.visits)} visits`,
    page.words !== null && `${numberWords(page.words)} words`,
    page.linksIn !== null && `${page.linksIn} ${page.linksIn === 1 ? 'link' : 'links'} to it`,
    page.status !== null && page.status !== 200 && `answers with ${page.status}`,
  ].filter(Boolean);
  return (
    <fieldset disabled={!mayEdit} className="flex min-w-0 flex-col gap-4">
      <div>
        <h3 className="font-display text-title leading-tight font-semibold wrap-anywhere">{titleOfOld(page)}</h3>
        <a
          href={page.address}
          target="_blank"
          rel="noreferrer"
          className="mt-1 inline-flex items-center gap-1 font-mono text-small break-all text-accent hover:underline"
        >
          {page.address} <ExternalLink size={12} aria-label="opens in a new tab" className="shrink-0" />
        </a>
        {facts.length > 0 && <p className="mt-1 text-small text-quiet">{facts.join(' · ')}</p>}
        {page.description !== '' && <p className="mt-2">{page.description}</p>}
        {page.headings.length > 1 && (
          <p className="mt-1 text-small text-quiet">Headings: {page.headings.slice(0, 8).join(' · ')}</p>
        )}
      </div>
      {places.length > 0 && (
        <section aria-label="Taken over by">
          <h4 className="text-small font-medium">Taken over by</h4>
          <ul>
            {places.map((id) => (
              <TakenOverBy key={id} page={id} title={titleAt(id)} address={page.address} />
            ))}
          </ul>
          <Button className="mt-1" onClick={() => apply(moveOldPage(site, page.address, null))}>
            Remove again
          </Button>
        </section>
      )}
      {decision.letGo !== null && (
        <section aria-label="Let go">
          <p>
            {decision.letGo === 'gone'
              ? 'Let go: visitors are told that it no longer exists.'
              : `Let go: visitors are led to ‘${titleAt(decision.letGo.page)}’.`}
          </p>
          <Button className="mt-1" onClick={() => apply(letGoOf(site, page.address, null))}>
            Stop ignoring it
          </Button>
        </section>
      )}
      {mine.length > 0 && (
        <section aria-label="Proposals" className="flex flex-col gap-2">
          <h4 className="text-small font-medium">Perhaps</h4>
          {mine.map((pair) => (
            <Proposal key={pair.planned} pair={pair} title={titleAt(pair.planned)} />
          ))}
        </section>
      )}
      {mine.length === 0 && places.length === 0 && decision.letGo === null && (
        <p className="text-attention">No planned page is similar. Choose one, or let it go.</p>
      )}
      <PageChoice
        label="Another page takes it over"
        onChoose={(planned) => {
          apply(moveOldPage(site, page.address, pairOf(page.address, planned)));
          choose({ old: page.address, planned });
        }}
      />
      <section aria-label="No page takes it over" className="flex flex-col gap-2 border-t border-rule pt-3">
        <PageChoice
          label="Let it go, and lead visitors to"
          onChoose={(target) => apply(letGoOf(site, page.address, { page: target }))}
        />
        <div>
          <Button onClick={() => apply(letGoOf(site, page.address, 'gone'))}>Let it go: permanently gone</Button>
        </div>
      </section>
    </fieldset>
  );
}

const DECIDED: readonly Origin[] = ['keep', 'rework'];

/** A page that has taken the old one over; where the plan does not tell whether its text is kept, somebody says so here. */
function TakenOverBy({
  page,
  title,
  address,
}: {
  readonly page: PageId;
  readonly title: string;
  readonly address: string;
}) {
  const { site, store } = useWorkbench();
  const node = maybeNodeAt(site, page);
  const origin = node ? planOf(node).origin : null;
  return (
    <li className="flex flex-col items-start gap-1 py-0.5">
      <span className="max-w-full truncate font-medium">{title}</span>
      {origin === null ? (
        <span role="group" aria-label={`The text of ‘${title}’`} className="flex gap-1">
          {DECIDED.map((one) => (
            <Button
              key={one}
              isTight
              title={ORIGIN_MEANING[one]}
              onClick={() => store.apply([{ name: 'page.set', page, fields: { plan: { origin: one } } }])}
            >
              <OriginSign origin={one} /> {ORIGIN_WORDS[one]}
            </Button>
          ))}
        </span>
      ) : (
        <span className="inline-flex items-center gap-1.5 text-small text-quiet">
          <OriginSign origin={origin} /> {ORIGIN_WORDS[origin]}
        </span>
      )}
      {node?.type === 'page' && <TakeText page={page} address={address} title={title} />}
    </li>
  );
}

function Proposal({ pair, title }: { readonly pair: CarryOverPair; readonly title: string }) {
  const { site, store } = useWorkbench();
  const { acceptFrom, pairOf } = useCarryOverState();
  const kind =
    pair.kind === 'part' ? 'as a part of it' : pair.kind === 'one-of-several' ? 'as one of several' : 'page for page';
  return (
    <div className="rounded-md border border-edge bg-raised px-3 py-2">
      <p className="font-medium">{title}</p>
      <p className="text-small text-quiet">
        <span className={pair.confidence >= acceptFrom ? 'font-medium text-accent' : ''}>
          {confidenceWords(pair.confidence)}
        </span>
        , {kind}
        {pair.reasons.length > 0 && `: ${pair.reasons.map((reason) => REASON_WORDS[reason]).join(', ')}`}
      </p>
      <div className="mt-2 flex gap-2">
        <Button
          className="min-w-0"
          onClick={() => store.apply(acceptPairs(site, [pairOf(pair.old, pair.planned)]) as Edit[])}
        >
          <span className="truncate">Accept ‘{title}’</span>
        </Button>
        <Button
          look="quiet"
          className="shrink-0"
          onClick={() => store.apply(declinePair(site, pair.old, pair.planned) as Edit[])}
        >
          Not this one
        </Button>
      </div>
    </div>
  );
}

function PlannedWithoutSource({ page }: { readonly page: PageId }) {
  const { site, store, mayEdit } = useWorkbench();
  const { pages, pairOf, choose } = useCarryOverState();
  const node = maybeNodeAt(site, page);
  if (!node) return null;
  const isNew = node.plan?.origin === 'new';
  return (
    <fieldset disabled={!mayEdit} className="flex min-w-0 flex-col gap-3">
      <h3 className="font-display text-title leading-tight font-semibold wrap-anywhere">
        {titleOfNode(node, site.settings.language)}
      </h3>
      <p>{isNew ? 'It is new: it comes from no old page.' : 'No old page is proposed for it.'}</p>
      {!isNew && (
        <OldPageField
          label="It comes from"
          pages={pages}
          onChoose={(old) => {
            store.apply(acceptPairs(site, [pairOf(old, page)]) as Edit[]);
            choose({ old, planned: page });
          }}
        />
      )}
      <div>
        <Button
          onClick={() => store.apply([{ name: 'page.set', page, fields: { plan: { origin: isNew ? null : 'new' } } }])}
        >
          {isNew ? 'Look for an old page again' : 'It is new'}
        </Button>
      </div>
    </fieldset>
  );
}

/** Chooses a page of the plan. */
function PageChoice({ label, onChoose }: { readonly label: string; readonly onChoose: (page: PageId) => void }) {
  const { outline } = useWorkbench().derived;
  return (
    <PageField
      label={label}
      value=""
      isOffered={(row) => outline.nodes[row]!.type === 'page'}
      onChoose={(page) => onChoose(page as PageId)}
    />
  );
}

const titleOfNode = (node: SiteNode | undefined, language: string): string =>
  node ? textIn(node.title, language) : 'a page that was removed';
