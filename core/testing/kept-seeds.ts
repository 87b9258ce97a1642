/** Seeds by which laws have failed, by the name of the test: `holds` runs them first, each time. */
export const KEPT_SEEDS: Readonly<Record<string, readonly { readonly seed: number; readonly path: string }[]>> = {
  'a shared plan > has the same tree, with the same addresses, and the same states but for who may open what, and is sound':
    [{ seed: -1538659093, path: '36' }],
  'taking back a release > leaves a sound live site, and the last release is taken back whole': [
    {
      seed: 1679825251,
      path: '49:7:9:7:8:10:14:16:9:10:12:12:13:13:13:13:11:11:11:11:11:11:11:11:11:11:11:11:11:11:11:9',
    },
    { seed: 1679825251, path: '36:4:2:2:4:2:2:4:4:6:2:5:4:2:3:3:3:4:3:4:4:4:6:5:5:5:5:5:5:5:5:5:5' },
  ],
};
