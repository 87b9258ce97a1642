import { isSameJson } from '../model/canonical-json.ts';
import { z } from 'zod';
import { UNDECIDED, letGoSchema } from '../model/old-page.ts';
import { pageIdSchema } from '../model/ids.ts';
import { oldAddressSchema } from '../model/plan.ts';
import type { Site } from '../model/site.ts';
import { checkStands } from './checks.ts';
import { defineOperation, quoted } from './definition.ts';

export const oldPageDecideSchema = z.strictObject({
  name: z.literal('oldPage.decide'),
  /** The address on the old site. */
  address: oldAddressSchema,
  fields: z.strictObject({
    letGo: letGoSchema.nullable().optional(),
    declined: z.array(pageIdSchema).max(200).optional(),
  }),
  /** In inverses only: the page that it leads to may be gone by now. */
  isRestored: z.literal(true).optional(),
});

/** Decides about an address of the old site that no page takes over: where it leads, and which pages it does not belong to. */
export const oldPageDecide = defineOperation({
  schema: oldPageDecideSchema,

  apply(site, { address, fields, isRestored }) {
    const { letGo } = fields;
    const forbidden = letGo && letGo !== 'gone' && !isRestored ? checkStands(site, letGo.page) : null;
    if (forbidden) return forbidden;
    const was = site.oldPages.get(address) ?? UNDECIDED;
    const next = {
      letGo: letGo === undefined ? was.letGo : letGo,
      declined: fields.declined === undefined ? was.declined : [...new Set(fields.declined)],
    };
    const before: typeof fields = {};
    if (!isSameJson(next.letGo, was.letGo)) before.letGo = was.letGo;
    if (!isSameJson(next.declined, was.declined)) before.declined = [...was.declined];
    if (Object.keys(before).length === 0) return { ok: true, site, inverse: [], touched: [] };
    const isUndecided = next.letGo === null && next.declined.length === 0;
    return {
      ok: true,
      site: {
        ...site,
        oldPages: isUndecided ? site.oldPages.delete(address) : site.oldPages.set(address, next),
      },
      inverse: [{ name: 'oldPage.decide', address, fields: before, isRestored: true }],
      touched: [],
    };
  },

  cells: ({ address, fields }) => Object.keys(fields).map((field) => `old:${address}.${field}`),

  words: ({ address, fields }, site) => wordsOf(address, fields, site),
});

function wordsOf(address: string, { letGo, declined }: z.infer<typeof oldPageDecideSchema>['fields'], site: Site) {
  const parts: string[] = [];
  if (letGo === null) parts.push(`reopened the old address ${address}`);
  else if (letGo === 'gone') parts.push(`let go of the old address ${address}`);
  else if (letGo) parts.push(`let the old address ${address} lead to ${quoted(site, letGo.page)}`);
  if (declined) parts.push(`declined pages for the old address ${address}`);
  return parts.join(' and ') || `left the old address ${address} as it was`;
}
