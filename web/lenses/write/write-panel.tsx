import { NotebookPen } from 'lucide-react';
import { textIn } from '#core/model/texts.ts';
import type { PageId } from '#core/model/ids.ts';
import { HIDDEN, type NodeType } from '#core/model/page-fields.ts';
import { childrenOf, nodeAt } from '#core/model/site.ts';
import { MAX_TITLE_LENGTH } from '#core/model/page-fields.ts';
import type { PageChanges } from '#core/model/page-fields.ts';
import { Button } from '../../ui/button.tsx';
import { Choice, Tick } from '../../ui/field.tsx';
import { KEYS } from '../../workbench/keys.ts';
import { PermittedFields } from '../../workbench/allowing.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { usePreview } from '../../workbench/use-preview.ts';
import { PageHead } from '../page-head.tsx';
import { KindChoice } from '../../fields/kind-choice.tsx';
import { InMenusTick } from '../../fields/in-menus-tick.tsx';
import { DetailsPart } from '../../fields/details/details-part.tsx';
import { DraftField } from '../../fields/draft-field.tsx';
import { SlugField } from './slug-field.tsx';
import { TargetField } from './target-field.tsx';
import { TextSection } from './text-section.tsx';

const TYPE_WORDS: Readonly<Record<NodeType, string>> = {
  page: 'Page: has content and an address',
  heading: 'Heading: groups the pages below',
  link: 'Link: points elsewhere',
};
const HIDDEN_CHOICES = { no: 'No', page: 'This page', branch: 'This page and all below' } as const;

/** The Write lens: what the page is called, where it is found, and what it says. */
export function WritePanel({ page }: { readonly page: PageId }) {
  const { site, store, derived, run } = useWorkbench();
  const setPreview = usePreview();
  const node = nodeAt(site, page);
  const { language } = site.settings;
  const set = (fields: PageChanges) => store.apply([{ name: 'page.set', page, fields }]);
  const row = derived.outline.rowOf.get(page)!;
  const by = derived.hiddenBy[row]!;
  const changeType = (type: NodeType) =>
    set({ type, ...(type === 'link' ? { target: { page: firstOtherPage() }, content: null } : { target: null }) });
  const firstOtherPage = (): PageId =>
    derived.outline.nodes.find((one) => one.type === 'page' && one.id !== page)?.id ?? page;
  return (
    <div className="flex flex-col gap-4">
      <PageHead page={page} />
      <PermittedFields permission="write" page={page}>
        {node.type === 'page' && (
          <div className="flex flex-col gap-1.5">
            <TextSection page={page} />
            <Button
              look="quiet"
              isTight
              className="-ml-2 self-start"
              onClick={() => run('desk')}
              title={KEYS.desk.keys}
            >
              <NotebookPen size={15} aria-hidden /> Write at the desk
            </Button>
          </div>
        )}
        {node.type === 'page' && <DetailsPart page={page} />}
      </PermittedFields>
      <PermittedFields permission="shape" page={page}>
        {node.type === 'link' && <TargetField page={page} />}
      </PermittedFields>
      <h3 className="-mb-2 border-t border-rule pt-4 font-display text-large font-semibold">Name and address</h3>
      <PermittedFields permission="shape" page={page}>
        <DraftField
          label="Title"
          saved={textIn(node.title, language)}
          longest={MAX_TITLE_LENGTH}
          onSave={(text) => set({ title: { [language]: text } })}
          onTyping={(text) =>
            setPreview(
              text === null || text.trim() === ''
                ? null
                : [{ name: 'page.set', page, fields: { title: { [language]: text } } }],
            )
          }
        />
        {node.type !== 'link' && (node.type === 'page' || node.inAddress) && <SlugField page={page} />}
        {node.type === 'heading' && (
          <Tick
            label="Adds a step to addresses"
            hint="The addresses of the pages below include its slug."
            checked={node.inAddress}
            onChange={(event) => set({ inAddress: event.target.checked })}
          />
        )}
      </PermittedFields>
      <PermittedFields permission="menus" page={page}>
        <DraftField
          label="Menu label"
          saved={textIn(node.label, language)}
          placeholder={textIn(node.title, language)}
          longest={MAX_TITLE_LENGTH}
          hint="Shorter, for menus and trails. Empty: the title."
          onSave={(text) => set({ label: { [language]: text } })}
        />
      </PermittedFields>
      <PermittedFields permission="write" page={page}>
        {node.type === 'page' && (
          <DraftField
            label="Description"
            isLong
            saved={textIn(node.description, language)}
            longest={2000}
            hint="One or two sentences, for search results and lists of pages."
            onSave={(text) => set({ description: { [language]: text } })}
          />
        )}
        {node.type === 'page' && (
          <DraftField
            label="Title for search"
            saved={textIn(node.searchTitle, language)}
            placeholder={textIn(node.title, language)}
            longest={MAX_TITLE_LENGTH}
            hint="What search engines and browser tabs show. Empty: the title and the site’s name."
            onSave={(text) => set({ searchTitle: { [language]: text } })}
          />
        )}
      </PermittedFields>
      <h3 className="-mb-2 border-t border-rule pt-4 font-display text-large font-semibold">In the tree</h3>
      <PermittedFields permission="shape" page={page}>
        <Choice
          label="Type"
          value={node.type}
          hint={node.content !== null ? 'Clear the text before changing the type.' : undefined}
          disabled={node.content !== null}
          onChange={(event) => changeType(event.target.value as NodeType)}
        >
          <option value="page">{TYPE_WORDS.page}</option>
          <option value="heading">{TYPE_WORDS.heading}</option>
          <option value="link" disabled={childrenOf(site, page).length > 0}>
            {TYPE_WORDS.link}
          </option>
        </Choice>
        {node.type === 'page' && <KindChoice site={site} page={page} onSet={set} />}
      </PermittedFields>
      <PermittedFields permission="menus" page={page}>
        <InMenusTick page={page} />
      </PermittedFields>
      <PermittedFields permission="access" page={page}>
        <Choice
          label="Hidden"
          value={node.hidden}
          hint={
            by !== -1 && by !== row
              ? `Already hidden by ‘${textIn(derived.outline.nodes[by]!.title, language)}’, which hides its branch.`
              : undefined
          }
          onChange={(event) => set({ hidden: event.target.value as (typeof HIDDEN)[number] })}
        >
          {HIDDEN.map((hidden) => (
            <option key={hidden} value={hidden}>
              {hidden === 'no' && by !== -1 && by !== row ? 'Not by itself' : HIDDEN_CHOICES[hidden]}
            </option>
          ))}
        </Choice>
      </PermittedFields>
      {node.type === 'page' && <HomeChoice page={page} />}
    </div>
  );
}

function HomeChoice({ page }: { readonly page: PageId }) {
  const { site, store, derived, may } = useWorkbench();
  const isHome = derived.home === page;
  const isDisabled = !may('shape', null);
  const isNamed = isHome && site.settings.home === page;
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
      <p className="flex-1">
        {isNamed
          ? 'This is the home page, as chosen.'
          : isHome
            ? 'This is the home page: it is the first page of the tree.'
            : 'Not the home page.'}
      </p>
      {isNamed ? (
        <Button disabled={isDisabled} onClick={() => store.apply([{ name: 'site.set', fields: { home: null } }])}>
          Let the first page be home
        </Button>
      ) : (
        !isHome && (
          <Button disabled={isDisabled} onClick={() => store.apply([{ name: 'site.set', fields: { home: page } }])}>
            Make it home
          </Button>
        )
      )}
    </div>
  );
}
