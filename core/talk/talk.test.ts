import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { branchOf } from '../model/site.ts';
import { holds } from '../testing/holds.ts';
import { anySite } from '../testing/random-site.ts';
import { concernedBy, pagesOf } from './concerned.ts';
import { findPassage, passageAt } from './find-passage.ts';
import { mentionedIn, mentionsIn } from './mentions.ts';

const words = fc
  .array(fc.constantFrom('the', 'boat', 'tide', 'at', 'noon', 'ß', 'İ', '🚢', ' ', '\n'), { maxLength: 60 })
  .map((all) => all.join(' '));

describe('a passage', () => {
  it('is found where it was chosen, as long as the text stays as it is', () => {
    holds(
      fc.property(words, fc.nat(), fc.nat(), (text, a, b) => {
        const [from, to] = [a % (text.length + 1), b % (text.length + 1)].sort((x, y) => x - y) as [number, number];
        const about = passageAt(text, { from, to });
        if (about === null) {
          expect(text.slice(from, to).slice(0, 500).trim()).toBe('');
          return;
        }
        const found = findPassage(text, about)!;
        expect(text.slice(found.from, found.to)).toBe(about.exact);
        // Where the same words stand among the same ones, the first is as good.
        expect([about.prefix, about.suffix]).toEqual([passageAt(text, found)!.prefix, passageAt(text, found)!.suffix]);
      }),
    );
  });

  it('stays with its words when what stands before them is changed', () => {
    const about = passageAt('Boats leave at noon. They come back at noon.', { from: 36, to: 43 })!;
    expect(about.exact).toBe('at noon');
    const after = 'In winter, boats leave at noon. They come back at noon.';
    expect(findPassage(after, about)).toEqual({ from: 47, to: 54 });
  });

  it('is not found once its words are gone', () => {
    const about = passageAt('Boats leave at noon.', { from: 12, to: 19 })!;
    expect(findPassage('Boats leave at one.', about)).toBeNull();
  });
});

describe('mentions', () => {
  const people = [
    { id: 'm', name: 'Mira Sand' },
    { id: 'm2', name: 'Mira Sandberg' },
    { id: 't', name: 'Teo Wells' },
    { id: 'n', name: 'n' },
  ];

  it('name the longest name that fits, in capitals or not', () => {
    expect(mentionedIn('Can @mira sandberg look?', people)).toEqual(['m2']);
    expect(mentionedIn('@Mira Sand, and @teo too.', people)).toEqual(['m', 't']);
    expect(mentionedIn('@Mira Sands', people)).toEqual([]);
  });

  it('take a first name only where one person has it', () => {
    expect(mentionedIn('@Mira?', people)).toEqual([]);
    expect(mentionedIn('@Teo?', people)).toEqual(['t']);
  });

  it('are not made by mail addresses', () => {
    expect(mentionedIn('Write to office@teo.example', people)).toEqual([]);
    expect(mentionedIn('Teo: teo@n, @n.', people)).toEqual(['n']);
  });

  it('stand where the text says so, without overlapping', () => {
    const piece = fc.constantFrom('@', 'Mira', ' ', 'Sand', 'berg', 'Teo', ' Wells', 'İ', 'x', '\n');
    holds(
      fc.property(
        fc.array(piece, { maxLength: 40 }).map((all) => all.join('')),
        (text) => {
          let end = 0;
          for (const { ids, from, to } of mentionsIn(text, people)) {
            expect(from).toBeGreaterThanOrEqual(end);
            end = to;
            const named = text.slice(from + 1, to).toLowerCase();
            for (const id of ids) expect(people.find((one) => one.id === id)!.name.toLowerCase()).toMatch(named);
          }
        },
      ),
    );
  });
});

describe('whom it concerns', () => {
  const readers = ['ada', 'ben', 'cy', 'dee'].map((id) => ({ id, name: id.toUpperCase() }));
  const some = fc.subarray(readers.map(({ id }) => id));

  it('reaches those who are mentioned, spoke, own or follow, and never who said it or may not read it', () => {
    let told = 0;
    holds(
      fc.property(anySite, fc.nat(), some, some, some, fc.nat(), (site, at, mentioned, earlier, reading, followed) => {
        const all = branchOf(site, null);
        if (all.length === 0) return;
        const page = all[at % all.length]!;
        const branch = all[followed % all.length]!;
        const concerned = concernedBy(site, {
          page,
          by: 'ada',
          mentioned,
          earlier,
          follows: [{ account: 'dee', page: branch }],
          readers: readers.filter(({ id }) => reading.includes(id)),
        });
        told += concerned.size;
        for (const { id } of readers) {
          const follows = id === 'dee' && branchOf(site, branch).includes(page);
          const owns = site.nodes.get(page)!.plan?.owner.trim().toLowerCase() === id;
          const kind = mentioned.includes(id)
            ? 'mention'
            : earlier.includes(id)
              ? 'answer'
              : follows || owns
                ? 'comment'
                : undefined;
          expect(concerned.get(id)).toBe(id === 'ada' || !reading.includes(id) ? undefined : kind);
        }
      }),
    );
    expect(told).toBeGreaterThan(50);
  });

  it('takes for somebody’s what names them as owner and what stands below what they follow', () => {
    holds(
      fc.property(anySite, fc.nat(), (site, at) => {
        const all = branchOf(site, null);
        if (all.length === 0) return;
        const branch = all[at % all.length]!;
        const own = pagesOf(site, 'nobody', [{ page: branch, since: '2026-11-02' }], '2026-11-01');
        expect([...own.keys()].sort()).toEqual([...branchOf(site, branch)].sort());
        expect(new Set(own.values())).toEqual(new Set(['2026-11-02']));
      }),
    );
  });
});
