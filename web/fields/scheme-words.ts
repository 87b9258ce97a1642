import type { SchemeName } from '#core/model/look.ts';

export const SCHEME_WORDS: Readonly<Record<SchemeName, string>> = {
  plain: 'Plain',
  tinted: 'Tinted',
  strong: 'Strong',
  dark: 'Dark',
};
