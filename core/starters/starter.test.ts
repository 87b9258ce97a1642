import fc from 'fast-check';
import type { SketchId } from '../model/plan.ts';
import { type BoxId, type VariantId, sketchOf, variantThatHolds } from '../model/sketch.ts';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { type PageId, toPageId } from '../model/ids.ts';
import { branchOf, nodeAt } from '../model/site.ts';
import { anySite, emptySite, siteAfter } from '../testing/random-site.ts';
import { type LabelId, ruleOf } from '../model/access.ts';
import { type AudienceId, SIGNED_OUT } from '../model/audience.ts';
import type { FieldId } from '../model/kind-field.ts';
import type { FormId } from '../model/site-form.ts';
import type { LayoutId } from '../model/layout.ts';
import type { Site } from '../model/site.ts';
import { formsIn } from '../sections/shown-forms.ts';
import { SHIPPED } from './shipped.ts';
import type { StarterSite } from './starter-settings.ts';
import { flatShells, isUsable, lookOfStarter, pagesOfStarter, starterOf } from './starter.ts';
import { type Starter, starterSchema } from './starter-file.ts';

const newIds = () => {
  let count = 0;
  return (): PageId => toPageId(`s${++count}`);
};
const all = (starter: Starter) => new Set(flatShells(starter).map((_, at) => at));
const top = { parent: null, after: null };
const begun = (starter: Starter, chosen = all(starter), titles = new Map<number, string>()) =>
  pagesOfStarter(starter, chosen, titles, top, 'en', newIds(), goingTo());
const goingTo = (site: Site = emptySite()): StarterSite => {
  let count = 0;
  return {
    settings: site.settings,
    newAudience: () => `a${++count}` as AudienceId,
    newLabel: () => `k${++count}` as LabelId,
    newLayout: () => `l${++count}` as LayoutId,
    newField: () => `f${++count}` as FieldId,
    newForm: () => `m${++count}` as FormId,
    sketches: site.sketches,
    newSketch: () => `s${++count}` as SketchId,
    newVariant: () => `v${++count}` as VariantId,
    newBox: () => `b${++count}` as BoxId,
  };
};
const titlesOf = (starter: Starter) =>
  flatShells(starter).map(({ shell, depth }) => `${' '.repeat(depth)}${shell.title}`);

describe('a starter', () => {
  it.each(Object.entries(SHIPPED))('that is shipped is sound, and begins a site: %s', (_, starter) => {
    expect(starterSchema.parse(starter)).toEqual(starter);
    expect(isUsable(starter)).toBe(true);
    const site = siteAfter(begun(starter).operations);
    expect(branchOf(site, null)).toHaveLength(flatShells(starter).length);
  });

  it('made of a site begins the same site again, but for links', () => {
    holds(
      fc.property(anySite, (site) => {
        const starter = starterOf(site, null, 'Again', '', () => undefined);
        fc.pre(starter.pages.length > 0);
        const again = siteAfter(begun(starter).operations, emptySite());
        const texts = starterOf(again, null, 'Again', '', () => undefined);
        expect(titlesOf(texts)).toEqual(titlesOf(starter));
        expect(texts.pages.map(({ inMenus, purpose, label }) => [inMenus, purpose, label])).toEqual(
          starter.pages.map(({ inMenus, purpose, label }) => [inMenus, purpose, label]),
        );
      }),
      { numRuns: 100 },
    );
  });

  it('brings its kinds with their fields and its forms, once, with pages and kinds of the site that it goes to', () => {
    const site = siteAfter(begun(SHIPPED.school!).operations);
    const { labels, forms } = site.settings;
    const event = labels.find(({ name }) => name === 'Event')!;
    expect(event.fields!.map(({ name, type, isRequired }) => [name, type, isRequired])).toEqual([
      ['When', 'moment', true],
      ['Where', 'text', false],
      ['Price', 'money', false],
    ]);
    const titleOf = (id: PageId | null) => id && nodeAt(site, id).title.en;
    const contact = forms.find(({ name }) => name === 'Contact')!;
    expect(titleOf(contact.leadsTo)).toBe('Thank you');
    expect(titleOf(contact.fields.at(-1)!.policy)).toBe('Privacy');
    const again = pagesOfStarter(SHIPPED.school!, all(SHIPPED.school!), new Map(), top, 'en', newIds(), goingTo(site));
    expect(again.operations.filter(({ name }) => name !== 'page.add')).toEqual([]);
    // The contact page shows it.
    const { operations, contents } = begun(SHIPPED.school!);
    const page = operations.find((one) => one.name === 'page.add' && one.title.en === 'Contact') as { content: string };
    expect(formsIn(contents.find(({ id }) => id === page.content)!.document)).toHaveLength(1);
  });

  it('keeps kinds with fields and forms when it is made of a site, and what these name, by name', () => {
    const begun = (starter: Starter) =>
      pagesOfStarter(starter, all(starter), new Map(), top, 'en', newIds(), goingTo());
    for (const starter of Object.values(SHIPPED)) {
      const { operations, contents } = begun(starter);
      const documents = new Map(contents.map(({ id, document }) => [id, document]));
      const made = starterOf(siteAfter(operations), null, starter.name, starter.description, (id) => documents.get(id));
      expect(starterSchema.parse(JSON.parse(JSON.stringify(made)))).toEqual(JSON.parse(JSON.stringify(made)));
      const used = (made.kinds ?? []).map(({ name }) => name);
      expect(made.kinds ?? []).toEqual((starter.kinds ?? []).filter(({ name }) => used.includes(name)));
      expect(made.forms).toEqual(starter.forms);
    }
  });

  it('is taken in part, with pages renamed on the way; below what is left nothing is taken', () => {
    const starter = SHIPPED.organisation!;
    const flat = flatShells(starter);
    const at = (title: string) => flat.findIndex(({ shell }) => shell.title === title);
    const chosen = all(starter);
    chosen.delete(at('Who we are'));
    const operations = begun(starter, chosen, new Map([[at('Take part'), 'Join us']])).operations.filter(
      (one) => one.name === 'page.add',
    );
    const titles = operations.map(({ title }) => title.en);
    expect(titles).toContain('Join us');
    expect(titles).not.toContain('History');
    const join = operations.find(({ title }) => title.en === 'Join us')!.page;
    expect(operations.find(({ title }) => title.en === 'Volunteer')!.place.parent).toBe(join);
  });

  it('brings the outline of a page’s sections as headings of its text', () => {
    const starter: Starter = { ...SHIPPED.school!, pages: [{ title: 'Apply', sections: ['Dates', 'Fees'] }] };
    const { operations, contents } = begun(starter);
    expect(operations).toMatchObject([{ content: contents[0]!.id }]);
    const site = siteAfter(operations);
    const again = starterOf(site, branchOf(site, null)[0]!, 'x', '', () => contents[0]!.document);
    expect(again.pages[0]!.sections).toEqual(['Dates', 'Fees']);
    expect(nodeAt(site, branchOf(site, null)[0]!).content).toBe(contents[0]!.id);
  });

  it('brings who may open a page by the names of audiences; what the site does not have is added once', () => {
    const starter: Starter = {
      ...SHIPPED.school!,
      pages: [
        { title: 'Papers', access: { only: ['Governors', 'Staff'], closedLook: 'locked' } },
        { title: 'Handbook', access: { only: ['staff'], except: ['Governors'], search: 'branch' } },
      ],
    };
    const site = siteAfter([{ name: 'audience.add', audience: 'staff' as AudienceId, title: 'Staff' }]);
    const { operations } = pagesOfStarter(starter, all(starter), new Map(), top, 'en', newIds(), goingTo(site));
    expect(operations[0]).toEqual({ name: 'audience.add', audience: 'a1', title: 'Governors' });
    const after = siteAfter(operations, site);
    expect(after.settings.audiences.map(({ name }) => name)).toEqual(['Staff', 'Governors']);
    expect(starterOf(after, null, 'x', '', () => undefined).pages.map(({ access }) => access)).toEqual([
      { only: ['Governors', 'Staff'], closedLook: 'locked' },
      { only: ['Staff'], except: ['Governors'], search: 'branch' },
    ]);
  });

  it('keeps pages for visitors who are not signed in, and for nobody, as they are', () => {
    const rules = [{ only: [SIGNED_OUT] }, { only: [] }];
    const site = siteAfter(
      rules.map((access, at) => ({
        name: 'page.add',
        page: `p${at}` as PageId,
        place: { parent: null },
        title: { en: `Page ${at}` },
        access,
      })),
    );
    const starter = starterOf(site, null, 'x', '', () => undefined);
    const { operations } = pagesOfStarter(
      starter,
      all(starter),
      new Map(),
      top,
      'en',
      newIds(),
      goingTo(siteAfter([])),
    );
    const after = siteAfter(operations);
    expect(after.settings.audiences).toEqual([]);
    expect(branchOf(after, null).map((id) => ruleOf(nodeAt(after, id)).only)).toEqual([[SIGNED_OUT], []]);
    expect(starterOf(after, null, 'x', '', () => undefined).pages).toEqual(starter.pages);
  });

  it('brings kinds and layouts by their names; what the site does not have is added once, with its menus by name', () => {
    const starter: Starter = {
      ...SHIPPED.school!,
      layouts: [
        { name: 'Plain', header: 'slim', hasFooter: false, hasTurns: true, menus: { header: 'main', side: 'No such' } },
      ],
      kinds: [{ name: 'Course', about: 'course' }],
      pages: [
        { title: 'Lofting', kind: 'Course', layout: 'Plain', access: { only: ['Staff'] } },
        { title: 'Oars', kind: 'course', layout: 'plain' },
        { title: 'Elsewhere', layout: 'Unheard of' },
      ],
    };
    const { operations } = begun(starter);
    expect(operations.map(({ name }) => name).filter((name) => name !== 'page.add')).toEqual([
      'layout.add',
      'audience.add',
      'label.add',
    ]);
    const site = siteAfter(operations);
    const { labels, layouts } = site.settings;
    expect(labels).toMatchObject([{ name: 'Course', about: 'course' }]);
    expect(layouts.at(-1)).toMatchObject({
      name: 'Plain',
      header: 'slim',
      hasTurns: true,
      menus: { header: 'main', side: null },
    });
    const again = starterOf(site, null, 'x', '', () => undefined);
    expect(again.pages).toMatchObject([
      { title: 'Lofting', kind: 'Course', layout: 'Plain', access: { only: ['Staff'] } },
      { title: 'Oars', kind: 'Course', layout: 'Plain' },
      { title: 'Elsewhere' },
    ]);
    expect([again.kinds, again.layouts]).toEqual([
      starter.kinds,
      [{ ...starter.layouts![0], menus: { header: 'Main' } }],
    ]);
    // On a site that has them nothing is added, whatever it made of them.
    const more = pagesOfStarter(starter, all(starter), new Map(), top, 'en', newIds(), goingTo(site));
    expect(more.operations.filter(({ name }) => name !== 'page.add')).toEqual([]);
    expect(
      ruleOf({ access: siteAfter(more.operations.slice(0, 1), site).nodes.get(toPageId('s1'))!.access }).labels,
    ).toHaveLength(1);
  });

  it('has kinds with what their pages begin with, and so does what is made of the site again', () => {
    const starter: Starter = {
      format: 'spur-starter',
      version: 1,
      name: 'x',
      description: '',
      kinds: [{ name: 'Course', about: 'course', sections: ['What you learn', 'What to bring'] }],
      pages: [
        { title: 'Lofting', kind: 'Course' },
        { title: 'Oars', kind: 'Course', sections: ['A page of its own'] },
      ],
    };
    const { operations, contents } = begun(starter);
    const site = siteAfter(operations);
    const [kind] = site.settings.labels;
    const [lofting, oars] = [...site.nodes.values()].map(({ content }) => content);
    expect(lofting).toBe(kind!.pageOutline);
    expect(oars).not.toBe(lofting);
    const texts = new Map(contents.map(({ id, document }) => [id, document]));
    expect(texts.get(lofting!)!.content!.map(({ type }) => type)).toEqual([
      'pageFields',
      'heading',
      'paragraph',
      'heading',
      'paragraph',
    ]);
    const again = starterOf(site, null, 'x', '', (id) => texts.get(id));
    expect(again.kinds).toEqual(starter.kinds);
    expect(again.pages.map(({ sections }) => sections)).toEqual([undefined, ['A page of its own']]);
  });

  it('brings the sketches of its pages along, for a kind as well, and finds those that the site has', () => {
    const box = { type: 'text' as const, purpose: 'What it costs', words: 80, width: 'half' as const };
    const starter: Starter = {
      ...starterOf(siteAfter([]), null, 'x', '', () => undefined),
      kinds: [{ name: 'Course', about: 'course' }],
      sketches: [
        {
          name: 'Home',
          variants: [
            { name: 'A', boxes: [box] },
            { name: 'B', boxes: [] },
          ],
          taken: 1,
        },
        { name: 'Course page', kinds: ['Course'], variants: [{ name: 'A', boxes: [box, box] }] },
        { name: 'Of nobody', variants: [] },
      ],
      pages: [
        { title: 'Home', sketch: 'home' },
        { title: 'Lofting', kind: 'Course' },
      ],
    };
    const site = siteAfter(begun(starter).operations);
    expect(site.sketches.map(({ name }) => name).sort()).toEqual(['Course page', 'Home']);
    const sketches = [...site.nodes.values()].map((node) => sketchOf(site, node));
    expect(sketches.map((one) => one?.name)).toEqual(['Home', 'Course page']);
    expect(variantThatHolds(sketches[0]!)?.name).toBe('B');
    const again = starterOf(site, null, 'x', '', () => undefined);
    expect(again.pages).toMatchObject([{ sketch: 'Home' }, { kind: 'Course', sketch: undefined }]);
    expect([...again.sketches!].sort((a, b) => (a.name < b.name ? -1 : 1))).toEqual([
      starter.sketches![1],
      starter.sketches![0],
    ]);
    expect(
      pagesOfStarter(starter, all(starter), new Map(), top, 'en', newIds(), goingTo(site)).operations.map(
        ({ name }) => name,
      ),
    ).toEqual(['page.add', 'page.add']);
  });

  it('gives its look to a site that begins with it, and to no other', () => {
    const { look } = SHIPPED.school!;
    expect(lookOfStarter(SHIPPED.school!, emptySite())).toEqual([{ name: 'site.set', fields: { look } }]);
    const begunWith = siteAfter([...lookOfStarter(SHIPPED.school!, emptySite()), ...begun(SHIPPED.school!).operations]);
    expect(starterOf(begunWith, null, 'x', '', () => undefined).look).toEqual(look);
    expect(lookOfStarter(SHIPPED.intranet!, begunWith)).toEqual([]);
    expect(lookOfStarter(SHIPPED.intranet!, siteAfter(lookOfStarter(SHIPPED.school!, emptySite())))).toEqual([]);
  });

  it('of any site keeps the rules of its pages, by names', () =>
    holds(
      fc.property(anySite, (site) => {
        const starter = starterOf(site, null, 'Again', '', () => undefined);
        fc.pre(starter.pages.length > 0);
        expect(starterSchema.safeParse(JSON.parse(JSON.stringify(starter))).success).toBe(true);
        const again = siteAfter(begun(starter).operations, emptySite());
        const rules = (one: Starter) => flatShells(one).map(({ shell }) => JSON.stringify(shell.access ?? null));
        // Names that differ in nothing but capitals are one audience.
        fc.pre(
          new Set(site.settings.audiences.map(({ name }) => name.toLowerCase())).size ===
            site.settings.audiences.length,
        );
        expect(rules(starterOf(again, null, 'Again', '', () => undefined)).map((one) => one.length)).toEqual(
          rules(starter).map((one) => one.length),
        );
      }),
      { numRuns: 100 },
    ));

  it('refuses what is none', () => {
    expect(starterSchema.safeParse({ ...SHIPPED.school, pages: [] }).success).toBe(false);
    expect(starterSchema.safeParse({ ...SHIPPED.school, pages: [{ title: ' ' }] }).success).toBe(false);
    expect(starterSchema.safeParse({ ...SHIPPED.school, pages: [{ title: 'A', script: 'x' }] }).success).toBe(false);
  });
});
