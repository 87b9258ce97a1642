import { useEffect } from 'react';
import type { PageId } from '#core/model/ids.ts';
import { nodeAt } from '#core/model/site.ts';
import { MAX_SLUG_LENGTH } from '#core/model/slug.ts';
import { applyOperations } from '#core/operations/apply.ts';
import { type Edit, refusalWords } from '../../api/site-store.ts';
import { Button } from '../../ui/button.tsx';
import { TextField } from '../../ui/field.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { usePreview } from '../../workbench/use-preview.ts';
import { useDraft } from '../../fields/use-draft.ts';

/** The slug: it follows the title until somebody types another one. What it would change shows while it is typed. */
export function SlugField({ page }: { readonly page: PageId }) {
  const { site, store, derived } = useWorkbench();
  const setPreview = usePreview();
  const { language } = site.settings;
  const slug = nodeAt(site, page).slug[language];
  const operationFor = (text: string): Edit => ({
    name: 'page.set',
    page,
    fields: { slug: { [language]: text.trim() === '' ? { text: '', own: false } : { text: text.trim(), own: true } } },
  });
  const draft = useDraft(slug?.text ?? '', (text) => store.apply([operationFor(text)]));
  const { isTyping, value } = draft;
  useEffect(() => {
    setPreview(isTyping && value !== slug?.text ? [operationFor(value)] : null);
    // The operation follows from what is listed.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [isTyping, value, page, slug?.text, setPreview]);
  const outcome = isTyping ? applyOperations(site, [operationFor(value)]) : null;
  const isHome = derived.home === page;
  return (
    <div className="flex flex-col gap-1">
      <TextField
        label="Slug"
        className="font-mono"
        maxLength={MAX_SLUG_LENGTH}
        value={value}
        fault={outcome && !outcome.ok ? refusalWords(outcome, site) : undefined}
        hint={
          isHome
            ? 'The home page has the address / while it is home.'
            : slug?.own
              ? 'Set by hand; it stays when the title changes.'
              : 'Follows the title until you type your own.'
        }
        onChange={(event) => draft.type(event.target.value)}
        onBlur={() => (outcome && !outcome.ok ? draft.cancel() : draft.commit())}
        onKeyDown={(event) => {
          if (event.key === 'Enter' && outcome?.ok) draft.commit();
          else if (event.key === 'Escape') draft.cancel();
        }}
      />
      {slug?.own && !isTyping && (
        <Button
          look="quiet"
          isTight
          className="-ml-2 self-start text-accent"
          onClick={() => store.apply([operationFor('')])}
        >
          Let it follow the title
        </Button>
      )}
    </div>
  );
}
