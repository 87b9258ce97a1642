/** What speaks for a proposed pair, the strongest first. */
export const REASONS = ['home', 'same-title', 'title', 'address', 'text', 'heading', 'section'] as const;
export type Reason = (typeof REASONS)[number];

/** From this confidence on a pair can be accepted without a look at it. */
export const ACCEPT_FROM = 0.85;
