import { FileInput } from 'lucide-react';
import { useState } from 'react';
import { type TextDocument, contentIdOf } from '#core/model/content.ts';
import type { PageId } from '#core/model/ids.ts';
import type { FieldContext } from '#core/fields/field-type.ts';
import { detailsFrom } from '#core/fields/from-schema-org.ts';
import { fieldsFor } from '#core/fields/values.ts';
import { ruleOf } from '#core/model/access.ts';
import type { FieldId } from '#core/model/kind-field.ts';
import { type Site, maybeNodeAt, nodeAt } from '#core/model/site.ts';
import { isBlank } from '#core/sections/blank.ts';
import type { OldTextAnswer } from '#contract/old-site.ts';
import { wordsOfFault } from '../../../api/client.ts';
import { fetchContents, rememberContent } from '../../../api/content.ts';
import { takeIntoLibrary } from '../../../api/files.ts';
import { takeOldText } from '../../../api/old-site.ts';
import { useFieldContext } from '../../../fields/details/use-field-context.ts';
import { documentOfOldText } from '../../../fields/old-text.ts';
import { Button } from '../../../ui/button.tsx';
import { useLatest } from '../../../ui/use-latest.ts';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { useCarryOverState } from './carry-over-context.ts';
import { toast } from '../../../ui/toast.ts';

/** Takes the text of an old page over as a draft of the page that takes it over, with its pictures and documents. */
export function TakeText({
  page,
  address,
  title,
}: {
  readonly page: PageId;
  readonly address: string;
  readonly title: string;
}) {
  const { site, store } = useWorkbench();
  const { settled } = useCarryOverState();
  const [isTaking, setTaking] = useState(false);
  const [left, setLeft] = useState<OldTextAnswer['left']>([]);
  const hasText = nodeAt(site, page).content !== null;
  // Reading takes a while: what others do to the page meanwhile stays.
  const now = useLatest({ site, settled });
  const context = useLatest(useFieldContext());
  const take = async () => {
    setTaking(true);
    try {
      const answer = await takeOldText(site.key, address);
      for (const { file } of answer.files) takeIntoLibrary(site.key, file);
      const content = maybeNodeAt(now().site, page)?.content ?? null;
      const old = documentOfOldText(answer, (one) => now().settled.placesOf.get(one)?.[0] ?? null);
      const [before] = content === null ? [] : await fetchContents(site.key, [content]);
      const own = before && !isBlank(before.document) ? (before.document.content ?? []) : [];
      const document: TextDocument = { type: 'doc', content: [...own, ...(old.content ?? [])] };
      const id = contentIdOf(document);
      rememberContent(id, document);
      setLeft(answer.left);
      const says = detailsOfOld(now().site, page, answer.things, context());
      const count = Object.keys(says).length;
      const fields = { content: id, ...(count > 0 && { details: says }) };
      if (store.apply([{ name: 'page.set', page, fields }], [{ id, document }]) !== null) return;
      toast.success(
        `The text is ${own.length > 0 ? 'at the end of the draft' : 'the draft'} of ‘${title}’ now${filesWords(answer.files.length)}.${fieldWords(count)}`,
      );
    } catch (fault) {
      toast.error(wordsOfFault(fault), { duration: 10_000 });
    } finally {
      setTaking(false);
    }
  };
  return (
    <div className="flex flex-col items-start gap-1">
      <Button
        isTight
        disabled={isTaking}
        title={hasText ? 'It is put after the text that the page has' : undefined}
        onClick={() => void take()}
      >
        <FileInput size={14} aria-hidden /> {isTaking ? 'Reading the old page …' : 'Take over its text'}
      </Button>
      {left.length > 0 && (
        <details className="text-small">
          <summary className="cursor-pointer text-attention">
            {left.length === 1 ? 'One file was' : `${left.length} files were`} not taken over
          </summary>
          <ul>
            {left.map(({ address: one, why }) => (
              <li key={one} className="border-b border-rule py-0.5">
                <span className="font-mono break-all">{one}</span> <span className="text-quiet">{why}</span>
              </li>
            ))}
          </ul>
        </details>
      )}
    </div>
  );
}

/** What an old page says in the fields of the page that takes it over, where that one says nothing yet. */
function detailsOfOld(
  site: Site,
  page: PageId,
  things: OldTextAnswer['things'],
  context: FieldContext,
): Record<FieldId, string> {
  const node = maybeNodeAt(site, page);
  if (!node) return {};
  const empty = fieldsFor(ruleOf(node).labels, site.settings.labels).filter(({ id }) => !node.details?.[id]);
  return { ...detailsFrom(things, empty, context).details };
}

const fieldWords = (count: number): string =>
  count === 0 ? '' : ` ${count === 1 ? 'One field is' : `${count} fields are`} filled in too.`;

const filesWords = (count: number): string =>
  count === 0 ? '' : `, with ${count === 1 ? 'a file' : `${count} files`} in the library`;
