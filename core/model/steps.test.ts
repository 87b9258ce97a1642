import { describe, expect, it } from 'vitest';
import { applyOperation } from '../operations/apply.ts';
import { siteAfter } from '../testing/random-site.ts';
import { toPageId } from './ids.ts';
import { stepTo } from './steps.ts';

const page = toPageId('a');
const site = siteAfter([{ name: 'page.add', page, place: { parent: null }, title: { en: 'A' } }]);

describe('the step to a site', () => {
  it('leads from the site that an operation was applied to, and names what it touched', () => {
    const outcome = applyOperation(site, { name: 'page.set', page, fields: { inMenus: false } });
    if (!outcome.ok) throw new Error(outcome.code);
    expect(stepTo(outcome.site)).toEqual({ before: site, touched: [page] });
  });

  it('is not there where nothing was changed, nor for a site that was made otherwise', () => {
    const outcome = applyOperation(site, { name: 'page.set', page, fields: { inMenus: true } });
    expect(outcome.ok && outcome.site).toBe(site);
    expect(stepTo({ ...site })).toBeNull();
  });
});
