import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Proposes } from '../model/feedback.ts';
import { toPageId } from '../model/ids.ts';
import { SIDES } from '../model/place.ts';
import { childrenOf, isWithin, maybeNodeAt, nodeAt } from '../model/site.ts';
import { textIn } from '../model/texts.ts';
import { applyOperations } from '../operations/apply.ts';
import { holds } from '../testing/holds.ts';
import { IDS, anySite } from '../testing/random-site.ts';
import { editsOfProposal, proposalWords } from './proposal.ts';

const anyProposal: fc.Arbitrary<Proposes> = fc
  .record(
    {
      title: fc.constantFrom('Where we are', 'Fees', 'Prices and fees'),
      place: fc.record({ near: fc.option(fc.constantFrom(...IDS)), side: fc.constantFrom(...SIDES) }),
    },
    { requiredKeys: [] },
  )
  .filter(({ title, place }) => title !== undefined || place !== undefined);

describe('what a guest proposes for a page', () => {
  it('is so once it is accepted, and accepting it again changes nothing', () => {
    let accepted = 0;
    holds(
      fc.property(anySite, fc.constantFrom(...IDS), anyProposal, (site, page, proposes) => {
        const edits = editsOfProposal(site, page, proposes);
        if (!edits.ok) return;
        const outcome = applyOperations(site, edits.operations);
        if (!outcome.ok) return;
        accepted += 1;
        const { site: after } = outcome;
        const node = nodeAt(after, page);
        if (proposes.title !== undefined) expect(textIn(node.title, after.settings.language)).toBe(proposes.title);
        const { near = undefined, side } = proposes.place ?? {};
        const siblings = childrenOf(after, node.parent);
        if (near === null) expect(childrenOf(after, null).at(-1)).toBe(page);
        else if (near !== undefined && near !== page) {
          if (side === 'inside') expect(childrenOf(after, near).at(-1)).toBe(page);
          else expect(siblings.indexOf(page) - siblings.indexOf(near)).toBe(side === 'after' ? 1 : -1);
        }
        expect(editsOfProposal(after, page, proposes)).toEqual({ ok: true, operations: [] });
      }),
    );
    expect(accepted).toBeGreaterThan(0);
  });

  it('is refused in words where a page is gone, or would stand within itself', () =>
    holds(
      fc.property(anySite, fc.constantFrom(...IDS), anyProposal, (site, page, proposes) => {
        const { ok } = editsOfProposal(site, page, proposes);
        const near = proposes.place?.near ?? null;
        const isGone = !maybeNodeAt(site, page) || (near !== null && !maybeNodeAt(site, near));
        const isWithinItself =
          !isGone &&
          near !== null &&
          isWithin(site, near, page) &&
          (near !== page || proposes.place?.side === 'inside');
        expect(ok).toBe(!isGone && !isWithinItself);
      }),
    ));

  it('reads as the object of a sentence', () =>
    holds(
      fc.property(anySite, (site) => {
        const first = childrenOf(site, null)[0];
        if (first === undefined) return;
        const title = textIn(nodeAt(site, first).title, site.settings.language);
        expect(proposalWords(site, { title: 'Fees', place: { near: first, side: 'after' } })).toBe(
          `the title ‘Fees’ and a place after ‘${title}’`,
        );
        expect(proposalWords(site, { place: { near: null, side: 'inside' } })).toBe(
          'a place at the end of the top level',
        );
        expect(proposalWords(site, { place: { near: toPageId('gone9'), side: 'inside' } })).toBe(
          'a place inside a page that was removed',
        );
      }),
    ));
});
