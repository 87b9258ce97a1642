import { Download, Trash2 } from 'lucide-react';
import { useMemo, useState } from 'react';
import { boardsWith } from '#core/board/board-looks.ts';
import { logosOf } from '#core/model/look.ts';
import { MAX_FILE_NAME_LENGTH } from '#core/files/file-name.ts';
import { LARGE_DOCUMENT, lengthWords } from '#core/files/file.ts';
import { fileOpensWords } from '#core/derive/file-access.ts';
import { momentWords } from '#core/model/moment-words.ts';
import { maybeNodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { type LibraryFile, type SetFileBody, fileAddress } from '#contract/files.ts';
import { wordsOfFault } from '../../../api/client.ts';
import { putBackFile, removeFile, setFile, useLibrary } from '../../../api/files.ts';
import { DraftField } from '../../../fields/draft-field.tsx';
import { AddFiles, Sendings } from '../../../files/add-files.tsx';
import { factsOf, kindOf, waitsFor } from '../../../files/file-words.ts';
import { Media } from '../../../files/media.tsx';
import { MarkedRows } from '../../../settings/marked-rows.tsx';
import { ShowRows } from '../../../settings/show-rows.tsx';
import { useMarkRows } from '../../../settings/use-mark-rows.ts';
import { pages } from '../../../tree/words.ts';
import { Button } from '../../../ui/button.tsx';
import { Tick } from '../../../ui/field.tsx';
import { Notice } from '../../../ui/notice.tsx';
import { useNow } from '../../../ui/use-now.ts';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { FocalPoint } from './focal-point.tsx';
import { toast } from '../../../ui/toast.ts';

/** One file of the library: what it shows, where, and for whom. */
export function OneFile({ id, onGone }: { readonly id: string; readonly onGone: () => void }) {
  const { site } = useWorkbench();
  const file = useLibrary(site.key)?.find((one) => one.id === id);
  if (!file) return <p className="text-quiet">Loading …</p>;
  return <Known file={file} onGone={onGone} />;
}

function Known({ file, onGone }: { readonly file: LibraryFile; readonly onGone: () => void }) {
  const { site, mayEdit, moment } = useWorkbench();
  const kind = kindOf(file);
  const set = (change: SetFileBody) =>
    void setFile(site.key, file, change).catch((fault: unknown) => toast.error(wordsOfFault(fault)));
  const waits = waitsFor(file);
  useMarkRows(
    useMemo(
      () =>
        file.usedBy.length === 0
          ? null
          : { name: file.name, words: new Map(file.usedBy.map((page) => [page, 'shows it'])) },
      [file.name, file.usedBy],
    ),
  );
  return (
    <div className="flex flex-col gap-4">
      {kind === 'picture' ? (
        <FocalPoint file={file} onSet={mayEdit ? set : null} />
      ) : (
        file.hasPicture && (
          <img
            src={fileAddress(site.key, file, 640)}
            alt={`The first page of ${file.name}`}
            className="max-h-72 self-start rounded-md border border-rule"
          />
        )
      )}
      {(kind === 'film' || kind === 'sound') && <Media site={site.key} file={file} />}
      {file.state === 'waiting' && (
        <p role="status" className="text-quiet">
          Its sizes are being made. It can be put into texts meanwhile.
        </p>
      )}
      {file.state === 'faulty' && <Notice>{waits}. Replace it by another one.</Notice>}
      <p className="text-small text-quiet">
        {factsOf(file)}. Added {momentWords(file.addedAt, site.settings.timeZone)}
        {file.addedBy !== null && ` by ${file.addedBy}`}.
        {kind === 'document' &&
          file.length > LARGE_DOCUMENT &&
          ` A file of ${lengthWords(file.length)} takes long on a telephone: a smaller one is kinder.`}
      </p>
      <fieldset disabled={!mayEdit} className="flex min-w-0 flex-col gap-3">
        <DraftField
          label="Name"
          saved={file.name}
          longest={MAX_FILE_NAME_LENGTH}
          onSave={(name) => name.trim() !== '' && set({ name: name.trim() })}
        />
        {kind === 'picture' && (
          <>
            {!file.isDecoration && (
              <DraftField
                label="What it shows, for those who do not see it"
                saved={file.alternative}
                longest={500}
                isLong
                placeholder="Two students planing a plank beside the slipway"
                hint="Read aloud in place of the picture. A text can have other words for it."
                onSave={(alternative) => set({ alternative: alternative.trim() })}
              />
            )}
            <Tick
              label="It is decoration"
              hint="It says nothing that the text does not: readers by ear pass over it."
              checked={file.isDecoration}
              onChange={() => set({ isDecoration: !file.isDecoration })}
            />
          </>
        )}
      </fieldset>
      <WhereShown file={file} moment={moment} />
      {mayEdit && <Ways file={file} onGone={onGone} />}
    </div>
  );
}

/** The pages that show a file, and who can open it by them. */
function WhereShown({ file, moment }: { readonly file: LibraryFile; readonly moment: number | null }) {
  const { site } = useWorkbench();
  const now = useNow();
  const boards = boardsWith(site, file.id);
  const uses = file.liveOn.map((page) => ({ page, isInSection: file.liveInSections.includes(page) }));
  return (
    <section aria-label="Where it is shown" className="flex flex-col gap-2">
      {logosOf(site.settings.look).includes(file.id) && (
        <p>
          It is the logo of the site: the header of each page shows it, and everyone can open it once that look is live.
        </p>
      )}
      <MarkedRows count={file.usedBy.length}>
        {file.usedBy.length === 0 ? (
          'No page shows it.'
        ) : (
          <>
            <span className="font-medium">{pages(file.usedBy.length)}</span>{' '}
            {file.usedBy.length === 1 ? 'shows' : 'show'} it:{' '}
            <ShowRows pages={file.usedBy}>
              {file.usedBy
                .slice(0, 5)
                .map((page) => `‘${textIn(maybeNodeAt(site, page)?.title ?? {}, site.settings.language)}’`)
                .join(', ')}
              {file.usedBy.length > 5 && ` and ${file.usedBy.length - 5} more`}
            </ShowRows>
          </>
        )}
      </MarkedRows>
      {boards.length > 0 && (
        <p>
          It lies on {boards.map(({ name }) => `the board ‘${name}’`).join(', ')}, which whoever has a link to the plan
          sees.
        </p>
      )}
      <p>{fileOpensWords(site, uses, moment ?? now)}</p>
    </section>
  );
}

/** What can be done with a file as a whole. */
function Ways({ file, onGone }: { readonly file: LibraryFile; readonly onGone: () => void }) {
  const { site } = useWorkbench();
  const [isRemoving, setRemoving] = useState(false);
  const shown = Math.max(file.usedBy.length, file.liveOn.length);
  const remove = () =>
    void removeFile(site.key, file.id).then(
      () => {
        onGone();
        toast(`‘${file.name}’ is out of the library.`, {
          duration: 15_000,
          action: { label: 'Put it back', onClick: () => void putBackFile(site.key, file.id) },
        });
      },
      (fault: unknown) => toast.error(wordsOfFault(fault)),
    );
  return (
    <div className="flex flex-col gap-3 border-t border-rule pt-3">
      <div className="flex flex-wrap gap-2">
        <AddFiles
          site={site.key}
          kind={kindOf(file)}
          replaces={file.id}
          isOne
          onTaken={([taken]) =>
            taken &&
            toast.success(`‘${taken.name}’ was replaced${shown === 0 ? '' : `; ${pages(shown)} show the new one`}.`)
          }
        >
          Replace it…
        </AddFiles>
        <a
          href={fileAddress(site.key, file)}
          download={file.name}
          className="inline-flex h-8 items-center gap-1.5 rounded-md border border-edge bg-raised px-3 font-medium hover:border-ink"
        >
          <Download size={15} aria-hidden /> Download
        </a>
      </div>
      <p className="text-small text-quiet">
        {file.liveOn.length === 0
          ? 'A file that takes its place is shown wherever this one is.'
          : `A file that takes its place is shown on ${pages(file.liveOn.length)} at once, without a release; its address leads to the new one.`}
      </p>
      <Sendings site={site.key} />
      {isRemoving ? (
        <div role="alert" className="flex flex-col gap-2 rounded-md bg-attention-soft px-3 py-2">
          <p>
            {shown === 0
              ? 'No page shows it.'
              : `${pages(shown)} ${shown === 1 ? 'shows' : 'show'} it, and will show nothing in its place${file.liveOn.length > 0 ? ', live pages at once' : ''}.`}
          </p>
          <div className="flex gap-2">
            <Button look="danger" onClick={remove} autoFocus>
              Remove the file
            </Button>
            <Button onClick={() => setRemoving(false)}>Keep it</Button>
          </div>
        </div>
      ) : (
        <div>
          <Button look="quiet" className="-ml-2" onClick={() => setRemoving(true)}>
            <Trash2 size={15} aria-hidden /> Remove the file ‘{file.name}’…
          </Button>
        </div>
      )}
    </div>
  );
}
