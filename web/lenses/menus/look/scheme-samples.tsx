import { useMemo } from 'react';
import { type Palette, schemesOf } from '#core/look/schemes.ts';
import { TYPE_PAIRS, stackOf } from '#core/look/type-pairs.ts';
import { type Look, SCHEME_NAMES } from '#core/model/look.ts';
import { SCHEME_WORDS } from '../../../fields/scheme-words.ts';

/** The corners of a button in small. */
export const RADII = { square: 0, soft: 5, round: 12 } as const;

/** The four schemes of a look, as they come out on light screens and on dark ones. */
export function SchemeSamples({ look }: { readonly look: Look }) {
  const { colour, accent } = look;
  const schemes = useMemo(() => schemesOf({ colour, accent }), [colour, accent]);
  return (
    <figure className="overflow-hidden rounded-md border border-edge">
      <figcaption className="grid grid-cols-2 bg-sunken text-small text-quiet">
        <span className="px-3 py-1">On light screens</span>
        <span className="px-3 py-1">On dark screens</span>
      </figcaption>
      {SCHEME_NAMES.map((name) => (
        <div key={name} className="grid grid-cols-2">
          <Sample words={SCHEME_WORDS[name]} palette={schemes[name].light} look={look} />
          <Sample words={SCHEME_WORDS[name]} palette={schemes[name].dark} look={look} />
        </div>
      ))}
    </figure>
  );
}

function Sample({ words, palette, look }: { readonly words: string; readonly palette: Palette; readonly look: Look }) {
  const { headings, text } = TYPE_PAIRS.find(({ id }) => id === look.pair)!;
  return (
    <div
      className="flex flex-wrap items-center gap-x-3 gap-y-1 px-3 py-2"
      style={{ background: palette.paper, color: palette.ink, fontFamily: stackOf(text) }}
    >
      <span
        className="text-large leading-tight"
        style={{
          fontFamily: stackOf(headings),
          fontWeight: { light: 430, usual: 650, heavy: 820 }[look.weight],
        }}
      >
        {words}
      </span>
      <span style={{ color: palette.quiet }}>and quiet</span>
      <span className="underline" style={{ color: palette.accent }}>
        a link
      </span>
      <span
        className="px-2 py-0.5 font-semibold"
        style={{ background: palette.accent, color: palette.onAccent, borderRadius: RADII[look.corners] }}
      >
        Button
      </span>
    </div>
  );
}
