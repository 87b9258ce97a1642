import type { Fact } from '#core/model/fact.ts';
import type { Site } from '#core/model/site.ts';
import { markup } from './html.ts';

/** What a fact of the site says; '' where it says nothing. */
export const factText = (site: Site, id: Fact['id']): string =>
  site.settings.facts.find((one) => one.id === id)?.text ?? '';

/** A text with what the facts say in the places that name them; nothing for one that is not there. */
export const withFacts = (text: string, facts: readonly Fact[]): string =>
  text.replace(
    /<span data-fact="([0-9A-Za-z]{1,24})">\s*<\/span>/g,
    (_, id: string) => markup`${facts.find((one) => one.id === id)?.text}`.text,
  );
