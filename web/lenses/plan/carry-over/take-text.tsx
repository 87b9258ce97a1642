import { FileInput } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import { type TextDocument, contentIdOf } from '#core/model/content.ts';
import type { PageId } from '#core/model/ids.ts';
import { maybeNodeAt, nodeAt } from '#core/model/site.ts';
import { isBlank } from '#core/sections/blank.ts';
import type { OldTextAnswer } from '#contract/old-site.ts';
import { wordsOfFault } from '../../../api/client.ts';
import { fetchContents, rememberContent } from '../../../api/content.ts';
import { takeIntoLibrary } from '../../../api/files.ts';
import { takeOldText } from '../../../api/old-site.ts';
import { documentOfOldText } from '../../../fields/old-text.ts';
import { Button } from '../../../ui/button.tsx';
import { useLatest } from '../../../ui/use-latest.ts';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { useCarryOverState } from './carry-over-context.ts';

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
      if (store.apply([{ name: 'page.set', page, fields: { content: id } }], [{ id, document }]) !== null) return;
      toast.success(
        `The text is ${own.length > 0 ? 'at the end of the draft' : 'the draft'} of ‘${title}’ now${filesWords(answer.files.length)}.`,
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

const filesWords = (count: number): string =>
  count === 0 ? '' : `, with ${count === 1 ? 'a file' : `${count} files`} in the library`;
