import { useMemo } from 'react';
import { headingsOf, plainTextOf } from '#core/model/content.ts';
import type { ContentId } from '#core/model/ids.ts';
import { readingOf } from '#core/sections/reading.ts';
import { useContent } from '../../api/content.ts';
import { numberWords } from '../../ui/number-words.ts';
import { useWorkbench } from '../../workbench/workbench-context.tsx';

/** What a text comes to: its words, how long reading takes, how easy it is, and its headings as an outline. */
export function WritingHelp({ content }: { readonly content: ContentId | null }) {
  const { site } = useWorkbench();
  const document = useContent(site.key, content);
  const { language } = site.settings;
  const reading = useMemo(() => (document ? readingOf(plainTextOf(document), language) : null), [document, language]);
  const headings = useMemo(() => (document ? headingsOf(document) : []), [document]);
  if (!reading || reading.words === 0) return null;
  const { words, minutes, ease } = reading;
  return (
    <section aria-label="About the text" className="mt-3 text-small text-quiet">
      <p>
        {words === 1 ? '1 word' : `${numberWords(words)} words`} · {minutes === 1 ? 'a minute' : `${minutes} minutes`}{' '}
        to read
        {ease !== null && (
          <>
            {' '}
            ·{' '}
            <span title={`Flesch reading ease ${Math.round(ease.score)} of 100; the higher, the easier`}>
              {ease.words}
            </span>
          </>
        )}
      </p>
      {headings.length > 1 && (
        <details className="mt-1">
          <summary className="cursor-pointer">Outline of {headings.length} headings</summary>
          <ol className="mt-1">
            {headings.map(({ words: said, anchor, level }) => (
              <li key={anchor} style={{ paddingLeft: `${(level - 2) * 1.2}rem` }}>
                {said}
              </li>
            ))}
          </ol>
        </details>
      )}
    </section>
  );
}
