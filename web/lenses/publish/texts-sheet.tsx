import { FileDiff } from 'lucide-react';
import { useMemo } from 'react';
import { type ComparedBlock, compareTexts } from '#core/changes/compare-texts.ts';
import type { TextDocument } from '#core/model/content.ts';
import type { ContentId } from '#core/model/ids.ts';
import { useContent } from '../../api/content.ts';
import { useLibrary } from '../../api/files.ts';
import type { WholeKind } from '../../settings/settings-kind.ts';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { titleIn } from './publish-words.ts';

/** The text that visitors have of the selected page and the drafted one beside each other, with the words marked that differ. */
export const TEXTS: WholeKind = {
  title: 'Texts compared',
  Sign: FileDiff,
  description: 'What visitors have now of the selected page, and what the next release gives them.',
  Whole: OfSelected,
};

function OfSelected() {
  const { site, selection } = useWorkbench();
  const page = selection.active;
  const before = page === null ? null : (site.live.get(page)?.node.content ?? null);
  const after = page === null ? null : (site.nodes.get(page)?.content ?? null);
  return (
    <>
      {page !== null && <h3 className="mb-1 font-medium">{titleIn(site, page)}</h3>}
      <ComparedTexts before={before} after={after} heads={['Live', 'Draft']} />
    </>
  );
}

/** Two texts beside each other, with the words marked that differ. */
export function ComparedTexts({
  before,
  after,
  heads,
}: {
  readonly before: ContentId | null;
  readonly after: ContentId | null;
  readonly heads: readonly [before: string, after: string];
}) {
  const { site } = useWorkbench();
  const was = useContent(site.key, before);
  const is = useContent(site.key, after);
  if (was === undefined || is === undefined) return <p className="text-quiet">Loading …</p>;
  return <Rows before={was} after={is} heads={heads} />;
}

function Rows({
  before,
  after,
  heads,
}: {
  readonly before: TextDocument;
  readonly after: TextDocument;
  readonly heads: readonly [before: string, after: string];
}) {
  const { site } = useWorkbench();
  const library = useLibrary(site.key);
  const rows = useMemo(() => {
    const nameIn = (list: readonly { readonly id: string; readonly name: string }[] | undefined) => (id: string) =>
      list?.find((one) => one.id === id)?.name ?? id;
    return compareTexts(before, after, {
      file: nameIn(library),
      page: (page) => titleIn(site, page),
      shared: nameIn(site.settings.shared),
      form: nameIn(site.settings.forms),
      fact: nameIn(site.settings.facts),
      field: nameIn(site.settings.labels.flatMap(({ fields = [] }) => fields)),
    });
  }, [before, after, library, site]);
  const changed = rows.filter(({ isSame }) => !isSame).length;
  return (
    <div className="pb-2">
      <p role="status" className="mb-2 text-small text-quiet">
        {changed === 0
          ? 'Words, sections and links are the same; the formatting may differ.'
          : `${changed === 1 ? '1 paragraph differs' : `${changed} paragraphs differ`} of ${rows.length}.`}
      </p>
      <table className="w-full table-fixed border-collapse">
        <thead>
          <tr className="border-b border-edge text-left text-small">
            <th scope="col" className="w-1/2 py-1 pr-4 font-medium">
              {heads[0]}
            </th>
            <th scope="col" className="w-1/2 py-1 pl-4 font-medium">
              {heads[1]}
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row, at) => (
            <tr key={at} className={`border-b border-rule align-top last:border-0 ${row.isSame ? 'text-quiet' : ''}`}>
              <td className="border-r border-rule py-1.5 pr-4">
                <Block block={row.before} side="before" />
              </td>
              <td className="py-1.5 pl-4">
                <Block block={row.after} side="after" />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Block({ block, side }: { readonly block: ComparedBlock | null; readonly side: 'before' | 'after' }) {
  if (!block) return <span className="text-small text-quiet italic">{side === 'before' ? 'New' : 'Removed'}</span>;
  const Mark = side === 'before' ? 'del' : 'ins';
  const look = side === 'before' ? 'bg-danger-soft text-danger' : 'bg-accent-soft text-accent no-underline font-medium';
  return (
    <p
      className={`break-words whitespace-pre-line ${/^heading/.test(block.kind) ? 'font-display font-semibold' : block.kind === 'section' ? 'text-small' : ''}`}
    >
      {block.kind === 'list item' && <span aria-hidden>· </span>}
      {block.pieces.map(({ words, mark }, at) =>
        mark === 'both' ? (
          <span key={at}>{words}</span>
        ) : (
          <Mark key={at} className={`rounded-sm px-px ${look}`}>
            {words}
          </Mark>
        ),
      )}
    </p>
  );
}
