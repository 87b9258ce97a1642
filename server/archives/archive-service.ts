import type { Readable } from 'node:stream';
import { checkSite } from '#core/model/check-site.ts';
import type { ContentId, SiteKey } from '#core/model/ids.ts';
import { MAX_NODES, type Site } from '#core/model/site.ts';
import type { Account } from '#contract/api.ts';
import type { ArchiveHead, archivedContent } from '#contract/archive.ts';
import { unpackSite } from '#contract/packed-site.ts';
import type { z } from 'zod';
import type { Database } from '../database/connect.ts';
import { type StoredContent, acceptContent } from '../contents/content-service.ts';
import { withFile } from '../files/with-file.ts';
import { ProblemError } from '../problem.ts';
import { isOwnHash } from '../security/passwords.ts';
import { ArchiveFault, type Lists, entriesOf, readArchiveFile, saveArchive } from './archive-file.ts';
import { isZip, openArchive } from './archive-zip.ts';
import type { LibraryService } from '../library/library-service.ts';
import { type ReadArchive, writeArchive } from './archive-repository.ts';

const MAX_FAULTS = 50;

/** An archive as one JSON document, piece by piece; a text or an edit is a line. */
export async function* archiveText({ head, contents, history }: ReadArchive): AsyncGenerator<string> {
  yield JSON.stringify(head).slice(0, -1);
  for (const [name, list] of Object.entries({ contents, history })) {
    yield `,"${name}":[`;
    let isFirst = true;
    for await (const entries of list) {
      yield (isFirst ? '\n' : ',\n') + entries.map((entry) => JSON.stringify(entry)).join(',\n');
      isFirst = false;
    }
    yield '\n]';
  }
  yield '}\n';
}

interface Parts {
  readonly database: Database;
  readonly library: LibraryService;
}

/** Who brings an archive, and what it is called. */
export interface Bringing {
  readonly key: SiteKey;
  readonly name: string;
  readonly account: Account;
  readonly now: Date;
}

/**
 * Makes a site of an archive, with its history. It is read piece by piece, so that it takes little memory and holds nobody up.
 * @throws ProblemError `file-unreadable` where the file is none, or does not agree with itself: then nothing is made
 */
export async function restoreArchive({ database, library }: Parts, from: Readable, bringing: Bringing): Promise<void> {
  try {
    await withFile('archive', async (file) => {
      await saveArchive(from, file);
      const text = `${file}-text`;
      const packed = (await isZip(file)) ? await openArchive(file, text) : null;
      try {
        const lists = { contents: `${file}-contents`, history: `${file}-history` };
        const head = await readArchiveFile(packed ? text : file, lists);
        const site = soundSite(head, bringing.key);
        await checkLists(head, site, lists);
        const files = await library
          .keepFiles(head.files, async (one, path) => (await packed?.fileTo(one, path)) === true)
          .catch(faultOfFile);
        const contents = storedContents(entriesOf(lists, 'contents'));
        await writeArchive(database, { site, head, contents, history: entriesOf(lists, 'history'), files }, bringing);
        await library.prepareLater(files);
      } finally {
        packed?.close();
      }
    });
  } catch (fault) {
    if (!(fault instanceof ArchiveFault)) throw fault;
    const { reasons } = fault;
    throw new ProblemError(
      'file-unreadable',
      { name: bringing.name.slice(0, 200) || 'what was brought', line: 1, reason: reasons[0]! },
      reasons.slice(0, MAX_FAULTS).map((detail) => ({ pointer: '/line/1', detail })),
    );
  }
}

/** A file that the library does not take is a fault of the archive. */
function faultOfFile(fault: unknown): never {
  throw fault instanceof ProblemError ? new ArchiveFault(fault.message) : fault;
}

/** The site of an archive under another key. @throws ArchiveFault where it does not agree with itself */
function soundSite(head: ArchiveHead, key: SiteKey): Site {
  const foreign = head.passphrases.find(({ hash }) => !isOwnHash(hash));
  if (foreign)
    throw new ArchiveFault(
      `Passphrase ${foreign.id}: it was not hashed as Spur hashes passphrases, so it cannot be checked.`,
    );
  let site: Site;
  try {
    site = { ...unpackSite(head.site), key };
  } catch {
    throw new ArchiveFault('The columns of its pages do not agree with one another.');
  }
  if (site.nodes.size > MAX_NODES)
    throw new ArchiveFault(
      `It has more than ${MAX_NODES.toLocaleString('en')} pages, which is the most that a site can hold.`,
    );
  const faults = checkSite(site).map((fault) => `Page ${fault}.`);
  const twice = {
    Release: repeatedIn(head.releases.map(({ number }) => String(number))),
    'The former address': repeatedIn(head.formerAddresses.map(({ path }) => path)),
    'The file': repeatedIn(head.files.map(({ id }) => id)),
    'The old address': repeatedIn(head.oldRedirects.map(({ path }) => path)),
  };
  for (const [what, one] of Object.entries(twice))
    if (one !== undefined) faults.push(`${what} ${one} appears twice in the file.`);
  if (faults.length > 0) throw new ArchiveFault(...faults);
  return site;
}

/** Looks whether texts and history are all that the site and its releases need. @throws ArchiveFault */
async function checkLists({ site: packed, releases, release }: ArchiveHead, site: Site, lists: Lists): Promise<void> {
  const there = new Set<ContentId>();
  for await (const { id } of entriesOf(lists, 'contents')) there.add(id);
  const faults = [...site.nodes.values(), ...[...site.live.values()].map(({ node }) => node)]
    .filter(({ content, plan }) => [content, plan?.notes ?? null].some((id) => id !== null && !there.has(id)))
    .map(({ id }) => `Page ${id}: its text is not in the file.`);
  for (const { id, content } of [...site.settings.shared, ...(site.liveSettings?.shared ?? [])])
    if (content !== null && !there.has(content)) faults.push(`Shared section ${id}: its text is not in the file.`);
  for (const { id, pageOutline } of [...site.settings.labels, ...(site.liveSettings?.labels ?? [])])
    if (pageOutline !== undefined && !there.has(pageOutline))
      faults.push(`Label ${id}: the outline of its pages is not in the file.`);
  const made = new Set<number>();
  let last = 0;
  for await (const { revision, kind } of entriesOf(lists, 'history')) {
    if (revision !== ++last) throw new ArchiveFault(wholeHistory(packed.revision));
    if (kind === 'release') made.add(revision);
  }
  if (last !== packed.revision) throw new ArchiveFault(wholeHistory(packed.revision));
  for (const { number, revision } of releases)
    if (number > release || !made.has(revision))
      faults.push(`Release ${number}: edit ${revision} of the history is no release.`);
  if (faults.length > 0) throw new ArchiveFault(...faults);
}

const wholeHistory = (revision: number): string =>
  `The history has to hold the edits 1 to ${revision}, one after another.`;

async function* storedContents(
  contents: AsyncIterable<z.output<typeof archivedContent>>,
): AsyncGenerator<StoredContent> {
  for await (const one of contents) yield acceptContent(one as Parameters<typeof acceptContent>[0]);
}

const repeatedIn = (values: readonly string[]): string | undefined => {
  const met = new Set<string>();
  return values.find((one) => met.size === met.add(one).size);
};
