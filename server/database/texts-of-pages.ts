/** The views that have every text which stands on a page, its own and those of shared sections, in the draft and in what is live. */
export const TEXTS_OF = { node: 'draft_text', live_node: 'live_text' } as const;
