/** Seeds by which laws have failed, by the name of the test: `holds` runs them first, each time. */
export const KEPT_SEEDS: Readonly<Record<string, readonly { readonly seed: number; readonly path: string }[]>> = {};
