import { useEffect, useState } from 'react';
import { LOOK_VARIABLES } from '#core/look/variables.ts';
import type { CssFault } from '#core/look/own-css.ts';
import { MAX_CSS_LENGTH } from '#core/model/look.ts';
import { TextArea } from '../../../ui/field.tsx';

/** So long it is quiet before what was typed is read. */
const READ_AFTER_MS = 300;

/** CSS for visitors' pages, for those who can write it. What cannot be read is named with its line, and left out. */
export function CssOfOnesOwn({ value, onSet }: { readonly value: string; readonly onSet: (css: string) => void }) {
  const [typed, setTyped] = useState<string | null>(null);
  const css = typed ?? value;
  const faults = useFaults(css);
  const isTooLong = css.length > MAX_CSS_LENGTH;
  return (
    <details className="border-t border-rule pt-4" open={value !== '' || undefined}>
      <summary className="cursor-pointer font-display text-large font-semibold">Your own CSS</summary>
      <div className="mt-2 flex flex-col gap-2">
        <TextArea
          label="CSS for visitors’ pages"
          hint="It comes after all else in the look. It holds in walks and for visitors, never in the workbench: the desk does not show it."
          fault={
            isTooLong
              ? `That is ${css.length.toLocaleString('en')} characters; ${MAX_CSS_LENGTH.toLocaleString('en')} fit in.`
              : undefined
          }
          rows={10}
          spellCheck={false}
          className="font-mono text-small"
          value={css}
          onChange={(event) => setTyped(event.target.value)}
          onBlur={() => {
            if (typed === null || isTooLong) return;
            setTyped(null);
            if (typed !== value) onSet(typed);
          }}
        />
        {faults.length > 0 && (
          <div role="status">
            <p className="font-medium">Left out, and the rest holds:</p>
            <ul className="list-disc pl-5">
              {faults.map(({ line, says }, at) => (
                <li key={at}>
                  Line {line}: {says}
                </li>
              ))}
            </ul>
          </div>
        )}
        <table className="text-small">
          <caption className="py-1 text-left font-medium">Variables that follow from the look</caption>
          <tbody>
            {LOOK_VARIABLES.map(([names, says]) => (
              <tr key={names[0]} className="border-t border-rule align-top">
                <th scope="row" className="py-1 pr-3 text-left font-mono font-normal">
                  {names.map((name) => (
                    <span key={name} className="mr-2 inline-block">
                      {name}
                    </span>
                  ))}
                </th>
                <td className="py-1 text-quiet">{says}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </details>
  );
}

/** What is wrong with it, once nothing has been typed for a moment. The reader of CSS is fetched when there is something to read. */
function useFaults(css: string): readonly CssFault[] {
  const [found, setFound] = useState<{ readonly css: string; readonly faults: readonly CssFault[] } | null>(null);
  useEffect(() => {
    if (css.trim() === '') return;
    const timer = setTimeout(() => {
      void import('#core/look/own-css.ts').then(({ readOwnCss }) => setFound({ css, faults: readOwnCss(css).faults }));
    }, READ_AFTER_MS);
    return () => clearTimeout(timer);
  }, [css]);
  return found !== null && css.trim() !== '' ? found.faults : [];
}
