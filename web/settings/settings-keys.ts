/** What is set for the site as a whole, each under the name that the address bar holds: `?beside=layouts/handbook`. */
export const SETTINGS_KEYS = [
  'goals',
  'sketches',
  'boards',
  'plan-pdf',
  'sharing',
  'audiences',
  'labels',
  'comparing',
  'visitors',
  'colleagues',
  'colleague-directory',
  'roles',
  'security',
  'engine',
  'menus',
  'layouts',
  'look',
  'facts',
  'shared',
  'forms',
  'answers',
  'hosts',
  'going-live',
  'taking-down',
  'releases',
  'proposals',
  'proposing',
  'approval',
  'redirects',
  'opening',
  'texts',
  'moment',
  'removed',
  'since',
  'for-you',
  'comments',
  'fields',
  'old-site',
  'files',
  'replacing',
] as const;
export type SettingsKey = (typeof SETTINGS_KEYS)[number];

/** What stands beside the tree: a list of settings, or one of them. */
export interface Beside {
  readonly kind: SettingsKey;
  readonly id: string | null;
}

export function besideIn(text: string | null): Beside | null {
  const [name = '', ...rest] = (text ?? '').split('/');
  // What an address has redirected is known by the address, which has slashes itself.
  const id = rest.join('/');
  const kind = SETTINGS_KEYS.find((one) => one === name);
  return kind ? { kind, id: id === '' ? null : id } : null;
}

export const besideText = ({ kind, id }: Beside): string => (id === null ? kind : `${kind}/${id}`);
