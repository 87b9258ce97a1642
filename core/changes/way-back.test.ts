import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type PageId, toPageId } from '../model/ids.ts';
import type { Site } from '../model/site.ts';
import { nodeAt } from '../model/site.ts';
import { applyOperation, applyOperations } from '../operations/apply.ts';
import type { Operation } from '../operations/operation.ts';
import { holds } from '../testing/holds.ts';
import { type Step, anyEditStep, anyPlantedSite, drawEdit, plain, siteAfter } from '../testing/random-site.ts';
import { type LoggedEdit, editBack } from './way-back.ts';

const isSame = (a: Site, b: Site): boolean => JSON.stringify(plain(a)) === JSON.stringify(plain(b));

/** A log as it grows, with the site at each of its revisions. */
class Log {
  readonly edits: LoggedEdit[] = [];
  readonly sites: Site[];

  constructor(site: Site) {
    this.sites = [site];
  }

  get site(): Site {
    return this.sites.at(-1)!;
  }

  add(operations: readonly Operation[], wentBackTo: number | null = null): void {
    const outcome = applyOperations(this.site, operations);
    if (!outcome.ok) throw new Error(outcome.code);
    this.edits.push({ revision: this.sites.length, operations, inverse: outcome.inverse, wentBackTo });
    this.sites.push(outcome.site);
  }

  draw(step: Step): void {
    const operation = drawEdit(this.site, step);
    const outcome = applyOperation(this.site, operation);
    if (outcome.ok && outcome.site !== this.site) this.add([operation]);
  }

  /** The edit that leads back. */
  back(asked: number): readonly Operation[] {
    const back = editBack(this.site, this.edits, asked);
    if ('code' in back) throw new Error(back.code);
    return back;
  }

  goBack(asked: number): readonly Operation[] {
    const operations = this.back(asked);
    if (operations.length > 0) this.add(operations, asked);
    return operations;
  }
}

describe('the way back', () => {
  it('leads to the site as it was, whatever was done and gone back on between', () => {
    const anyTurn = fc.oneof({ weight: 4, arbitrary: anyEditStep }, { weight: 1, arbitrary: fc.nat(30) });
    holds(
      fc.property(anyPlantedSite, fc.array(anyTurn, { minLength: 2, maxLength: 14 }), fc.nat(), (site, turns, n) => {
        const log = new Log(site);
        for (const turn of turns) {
          if (typeof turn !== 'number') log.draw(turn);
          else if (log.edits.length > 0) log.goBack(turn % log.sites.length);
        }
        const asked = n % log.sites.length;
        const outcome = applyOperations(log.site, log.back(asked));
        expect(outcome.ok && isSame(outcome.site, log.sites[asked]!)).toBe(true);
      }),
      { numRuns: 60 },
    );
  });

  const add = (page: string): Operation => ({
    name: 'page.add',
    page: toPageId(page),
    place: { parent: null },
    title: { en: page },
  });

  it('does not grow with going back and forth, and is empty where nothing is to go back', () => {
    const log = new Log(siteAfter([add('home')]));
    for (let n = 0; n < 10; n++) log.add([add(`p${n}`)]);
    expect(log.goBack(0)).toHaveLength(10);
    for (let round = 0; round < 6; round++) {
      expect(log.goBack(10).length).toBeLessThanOrEqual(10);
      expect(log.goBack(0).length).toBeLessThanOrEqual(10);
    }
    expect(log.back(0)).toEqual([]);
    expect(log.back(log.edits.length)).toEqual([]);
  });

  it('leaves out what a later step of it overrules', () => {
    const log = new Log(siteAfter([add('home'), add('visit')]));
    const visit: PageId = toPageId('visit');
    for (let n = 0; n < 50; n++)
      log.add([{ name: 'page.set', page: visit, fields: { title: { en: `Visit ${n}` }, inMenus: n % 2 === 0 } }]);
    const short = log.back(0);
    expect(short.length).toBeLessThanOrEqual(2);
    expect(nodeAt(siteAfter(short, log.site), visit).title).toEqual({ en: 'visit' });
  });

  it('keeps what is set language by language', () => {
    const log = new Log(siteAfter([add('home'), add('visit')]));
    const titles: Record<string, string>[] = [{ de: 'Besuch' }, { en: 'Come' }, { de: 'Kommt' }];
    for (const title of titles) log.add([{ name: 'page.set', page: toPageId('visit'), fields: { title } }]);
    expect(log.back(0).length).toBeGreaterThan(0);
    expect(nodeAt(siteAfter(log.back(0), log.site), toPageId('visit')).title).toEqual({ en: 'visit' });
  });
});
