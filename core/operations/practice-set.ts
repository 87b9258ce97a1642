import { z } from 'zod';
import { restoreSlugs, settleAfter, slugsBefore } from '../model/address-scope.ts';
import { pageIdSchema } from '../model/ids.ts';
import { refuse } from '../model/refusal.ts';
import { SiteChange } from '../model/site-change.ts';
import { checkRestored, checkStands } from './checks.ts';
import { defineOperation, quoted, restoresSchema } from './definition.ts';

export const practiceSetSchema = z.strictObject({
  name: z.literal('practice.set'),
  page: pageIdSchema.nullable(),
  restores: restoresSchema,
});

/** Makes a page with all below it the place to practise, which never goes live; null: the site has none. */
export const practiceSet = defineOperation({
  schema: practiceSetSchema,

  apply(site, { page, restores }) {
    if (page !== null && !restores) {
      const forbidden = checkStands(site, page);
      if (forbidden) return forbidden;
      if (site.nodes.get(page)!.type === 'link') return refuse('practice-link', { page });
    }
    const wrong = checkRestored(restores);
    if (wrong) return wrong;
    const change = new SiteChange(site);
    if (page !== site.practice) change.become({ ...site, practice: page });
    // The practice page is not home, so another page may be from now on.
    settleAfter(change, []);
    restoreSlugs(change, restores);
    if (change.site === site) return { ok: true, site, inverse: [], touched: [] };
    return {
      ok: true,
      site: change.site,
      inverse: [{ name: 'practice.set', page: site.practice, restores: slugsBefore(change) }],
      touched: [...change.touched],
    };
  },

  cells: () => ['site.practice'],

  words: ({ page }, site) =>
    page === null ? 'left the site without a practice page' : `made ${quoted(site, page)} the practice page`,
});
