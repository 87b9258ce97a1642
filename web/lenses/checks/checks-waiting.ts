import type { Waiting, WaitingFacts } from '../lens-definition.ts';
import { inWords } from '../waiting-words.ts';

/** Links to mend, and pages that lack something. */
export function checksWaiting({ findings, settingsFindings }: WaitingFacts): Waiting {
  let amiss = settingsFindings.length;
  for (const ofPage of findings.ofLinks?.values() ?? []) amiss += ofPage.length;
  const lacking = findings.ofPages?.size ?? 0;
  return {
    count: amiss + lacking,
    words: inWords(
      (amiss > 0 || lacking === 0) && (amiss === 1 ? '1 link to mend' : `${amiss} links to mend`),
      lacking > 0 && (lacking === 1 ? '1 page that lacks something' : `${lacking} pages that lack something`),
    ),
  };
}
