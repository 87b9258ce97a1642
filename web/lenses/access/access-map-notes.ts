import { hasGate } from '#core/derive/audience-signs.ts';
import type { MapNote } from '#core/drawing/map-nodes.ts';
import { passingOf } from '../../tree/access-of.ts';
import type { Noted } from '../lens-definition.ts';

/** Who passes where a page has a rule of its own. */
export function accessNotes({ site, derived, moment }: Noted): (row: number) => MapNote | null {
  const passes = passingOf(site, moment);
  return (row) => {
    const who = hasGate(site, derived.outline.nodes[row]!) ? passes(row) : null;
    return who && { origin: null, words: who.map(({ name }) => name).join(', ') };
  };
}
