import { lookFaces } from '#core/look/style.ts';
import type { TypePair } from '#core/look/type-pairs.ts';
import { useLookParts } from '../api/frames.ts';

/** Lets the families of a pair be used in the workbench; a font is fetched when something is set in it. */
export function LookFaces({ pair }: { readonly pair: TypePair['id'] }) {
  const parts = useLookParts();
  return (
    parts && <style>{lookFaces({ pair }, (family, range) => parts.fonts[`${family.file}-${range}`]!, 'swap')}</style>
  );
}
