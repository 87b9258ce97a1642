import type { FileId } from '#core/files/file.ts';
import { filesInFields } from '#core/derive/file-fields.ts';
import { liveSiteOf } from '#core/derive/live-site.ts';
import type { SiteKey } from '#core/model/ids.ts';
import type { Permission } from '#core/model/permission.ts';
import type { Site } from '#core/model/site.ts';
import { forbiddenWords } from '#core/people/forbidden.ts';
import { type Powers, mayAt } from '#core/people/powers.ts';
import type { Account } from '#contract/api.ts';
import type { LibraryFile } from '#contract/files.ts';
import type { Services } from '../handlers.ts';
import { notAllowed } from '../people/people.ts';
import { filesAddedBy } from './file-repository.ts';

type Who = Pick<Account, 'id' | 'looksAfterAll'>;

/**
 * Which files of a site somebody sees and changes who has no role on the whole site, or none that lets them write: those that their pages
 * show, and those that they brought. What is changed of a file changes on all pages that show it, so all of these must be theirs.
 */
export class FileRights {
  readonly #parts: Pick<Services, 'database' | 'cache' | 'people' | 'library'>;

  constructor(parts: Pick<Services, 'database' | 'cache' | 'people' | 'library'>) {
    this.#parts = parts;
  }

  /** The files that somebody sees, each with the pages that show it. */
  async list(key: SiteKey, who: Who): Promise<LibraryFile[]> {
    const { site, powers } = await this.#known(key, who);
    const files = (await this.#parts.library.list(key)).map(withFields(site));
    if (mayAt(site, powers, 'read', null)) return files;
    const own = await filesAddedBy(this.#parts.database, key, who.id);
    return files.filter((file) => own.has(file.id) || isOnPageOf(site, powers, 'read', file));
  }

  /** One of them. @throws ProblemError `file-unknown`, `not-allowed` */
  async show(key: SiteKey, id: FileId, who: Who): Promise<LibraryFile> {
    const { site, powers } = await this.#known(key, who);
    const file = withFields(site)(await this.#parts.library.show(key, id));
    if (mayAt(site, powers, 'read', null) || isOnPageOf(site, powers, 'read', file)) return file;
    if ((await filesAddedBy(this.#parts.database, key, who.id)).has(id)) return file;
    throw notAllowed(forbiddenWords(powers, { permission: 'read', at: null, site }));
  }

  /** Makes sure that somebody may change a file, or put one back that was removed. @throws ProblemError `not-allowed` */
  async requireChange(key: SiteKey, id: FileId, who: Who): Promise<void> {
    const { site, powers } = await this.#known(key, who);
    if (mayAt(site, powers, 'write', null)) return;
    const file = (await this.#parts.library.list(key)).map(withFields(site)).find((one) => one.id === id);
    const elsewhere = pagesWith(file).find((page) => !mayAt(site, powers, 'write', page));
    const isTheirs =
      elsewhere === undefined &&
      (pagesWith(file).length > 0 || (await filesAddedBy(this.#parts.database, key, who.id)).has(id));
    if (!isTheirs) throw notAllowed(forbiddenWords(powers, { permission: 'write', at: elsewhere ?? null, site }));
  }

  async #known(key: SiteKey, who: Who): Promise<{ site: Site; powers: Powers }> {
    const { cache, people } = this.#parts;
    const [{ site }, powers] = await Promise.all([cache.current(key), people.powersOf(key, who)]);
    return { site, powers };
  }
}

const pagesWith = (file: LibraryFile | undefined) => (file ? [...file.usedBy, ...file.liveOn] : []);

const isOnPageOf = (site: Site, powers: Powers, permission: Permission, file: LibraryFile): boolean =>
  pagesWith(file).some((page) => mayAt(site, powers, permission, page));

/** A file with the pages that name it in a field besides those whose text shows it. */
function withFields(site: Site): (file: LibraryFile) => LibraryFile {
  const draft = filesInFields(site).named;
  const live = filesInFields(liveSiteOf(site)).shown;
  return (file) => {
    const [named = [], shown = []] = [draft.get(file.id), live.get(file.id)];
    if (named.length === 0 && shown.length === 0) return file;
    return {
      ...file,
      usedBy: [...new Set([...file.usedBy, ...named])],
      liveOn: [...new Set([...file.liveOn, ...shown])],
      liveInSections: file.liveInSections.filter((page) => !shown.includes(page)),
    };
  };
}
