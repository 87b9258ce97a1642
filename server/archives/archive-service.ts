import { checkSite } from '#core/model/check-site.ts';
import type { ContentId, SiteKey } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import { applyOperations } from '#core/operations/apply.ts';
import type { Account } from '#contract/api.ts';
import { faultInJson } from '#core/model/outside-json.ts';
import { isOwnHash } from '../security/passwords.ts';
import { type Archive, archiveSchema, type restoreBody } from '#contract/archive.ts';
import { unpackSite } from '#contract/packed-site.ts';
import type { z } from 'zod';
import type { Database } from '../database/connect.ts';
import { type StoredContent, acceptContent } from '../contents/content-service.ts';
import { unpacked } from '../old-site/bring-pages.ts';
import { decodeText } from '../old-site/decode-text.ts';
import { ProblemError } from '../problem.ts';
import { type ReadArchive, writeArchive } from './archive-repository.ts';

const MAX_FAULTS = 50;

/** An archive as one JSON document, piece by piece; an edit of the history is a line. */
export async function* archiveText({ head, history }: ReadArchive): AsyncGenerator<string> {
  yield `${JSON.stringify(head).slice(0, -1)},"history":[`;
  let isFirst = true;
  for await (const edits of history) {
    yield (isFirst ? '\n' : ',\n') + edits.map((edit) => JSON.stringify(edit)).join(',\n');
    isFirst = false;
  }
  yield '\n]}\n';
}

/**
 * Makes a site of an archive, with its history.
 * @throws ProblemError `file-unreadable` where the file is none, or does not agree with itself: then nothing is made
 */
export async function restoreArchive(
  database: Database,
  { key, name, bytes }: z.output<typeof restoreBody>,
  account: Account,
  now: Date,
): Promise<void> {
  const file = name || 'what was brought';
  const refuse = (...reasons: string[]) =>
    new ProblemError(
      'file-unreadable',
      { name: file.slice(0, 200), line: 1, reason: reasons[0]! },
      reasons.slice(0, MAX_FAULTS).map((detail) => ({ pointer: '/line/1', detail })),
    );
  const text = decodeText(await unpacked(Buffer.from(bytes, 'base64'), file)).replace(/^\uFEFF/, '');
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch (fault) {
    throw refuse(`This is not JSON: ${(fault as Error).message}`);
  }
  const unsound = faultInJson(json);
  if (unsound) throw refuse(`${unsound.pointer || 'The file'}: ${unsound.detail}`);
  const parsed = archiveSchema.safeParse(json);
  if (!parsed.success)
    throw refuse(...parsed.error.issues.map(({ path, message }) => `${path.join('.') || 'The file'}: ${message}`));
  const archive = parsed.data;
  const site = siteIn(archive, key);
  const foreign = archive.passphrases.find(({ hash }) => !isOwnHash(hash));
  if (foreign)
    throw refuse(`Passphrase ${foreign.id}: it was not hashed as Spur hashes passphrases, so it cannot be checked.`);
  const faults = site ? disagreements(archive, site) : ['The columns of its pages do not agree with one another.'];
  if (!site || faults.length > 0) throw refuse(...faults);
  const contents = archive.contents.map((one): StoredContent =>
    acceptContent(one as Parameters<typeof acceptContent>[0]),
  );
  await writeArchive(database, site, archive, contents, account.id, now);
}

/** The site of an archive under another key; null where it cannot be put together. */
function siteIn(archive: Archive, key: SiteKey): Site | null {
  try {
    return { ...unpackSite(archive.site), key };
  } catch {
    return null;
  }
}

/** In what an archive does not agree with itself, in sentences. Its history has to lead back to the beginning. */
function disagreements(archive: Archive, site: Site): string[] {
  const { site: packed, history, releases, release, contents } = archive;
  const faults = checkSite(site).map((fault) => `Page ${fault}.`);
  const there = new Set<ContentId>(contents.map(({ id }) => id));
  const missing = [...site.nodes.values(), ...[...site.live.values()].map(({ node }) => node)].filter(
    ({ content, plan }) => [content, plan?.notes ?? null].some((id) => id !== null && !there.has(id)),
  );
  faults.push(...missing.map(({ id }) => `Page ${id}: its text is not in the file.`));
  const twice = {
    Release: repeatedIn(releases.map(({ number }) => String(number))),
    'The former address': repeatedIn(archive.formerAddresses.map(({ path }) => path)),
    'The old address': repeatedIn(archive.oldRedirects.map(({ path }) => path)),
  };
  for (const [what, one] of Object.entries(twice))
    if (one !== undefined) faults.push(`${what} ${one} appears twice in the file.`);
  if (history.some(({ revision }, index) => revision !== index + 1) || history.length !== packed.revision)
    return [...faults, `The history has to hold the edits 1 to ${packed.revision}, one after another.`];
  for (const { number, revision } of releases)
    if (number > release || history[revision - 1]?.kind !== 'release')
      faults.push(`Release ${number}: edit ${revision} of the history is no release.`);
  let at = site;
  for (const { revision, inverse } of [...history].reverse()) {
    const back = applyOperations(at, inverse);
    if (!back.ok) return [...faults, `Edit ${revision} of the history cannot be taken back from the state after it.`];
    at = back.site;
  }
  return faults;
}

const repeatedIn = (values: readonly string[]): string | undefined => {
  const met = new Set<string>();
  return values.find((one) => met.size === met.add(one).size);
};
