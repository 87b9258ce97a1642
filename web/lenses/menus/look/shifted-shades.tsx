import { shiftedColours } from '#core/look/schemes.ts';
import { contrast } from '#core/look/colours.ts';
import { schemesOf } from '#core/look/schemes.ts';
import type { Look } from '#core/model/look.ts';
import { SCHEME_WORDS } from '../../../fields/scheme-words.ts';

/** Where a colour is shown in another shade than it was given, since words in it could not be read. */
export function ShiftedShades({ look }: { readonly look: Look }) {
  const schemes = schemesOf(look);
  const shifted = shiftedColours(look).filter(({ as }) => as === 'accent');
  if (shifted.length === 0) return null;
  return (
    <details className="text-small text-quiet">
      <summary>
        {shifted.length === 1 ? 'In one place' : `In ${shifted.length} places`} links are shown in another shade, so
        that they can be read
      </summary>
      <ul className="mt-1 flex flex-col gap-1">
        {shifted.map(({ scheme, screen, given, shown }) => {
          const before = contrast(given, schemes[scheme][screen].paper);
          return (
            <li key={`${scheme} ${screen}`} className="flex items-center gap-2">
              <Dot colour={given} /> <span aria-hidden>→</span> <Dot colour={shown} />
              <span>
                {SCHEME_WORDS[scheme]}, on {screen} screens: {shown}, since {given} has a contrast of{' '}
                {before.toFixed(1)} : 1 there
              </span>
            </li>
          );
        })}
      </ul>
    </details>
  );
}

const Dot = ({ colour }: { readonly colour: string }) => (
  <span aria-hidden className="inline-block size-4 rounded-sm border border-rule" style={{ background: colour }} />
);
