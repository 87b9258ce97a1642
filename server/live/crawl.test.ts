import { load } from 'cheerio';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { arrangeByHand } from '#core/arrange/switch-menu.ts';
import { accessTable } from '#core/derive/access.ts';
import { derivedOf } from '#core/derive/derived.ts';
import { trailSettingOf } from '#core/derive/layouts.ts';
import { ruleOf } from '#core/model/access.ts';
import { type AudienceId, EVERYONE, closureOf } from '#core/model/audience.ts';
import { toPageId } from '#core/model/ids.ts';
import { layoutIdSchema } from '#core/model/layout.ts';
import { entryIdSchema, entryOf, toMenuId } from '#core/model/menu.ts';
import { kindAmong } from '#core/model/page-label.ts';
import { type Site, ancestorsOf } from '#core/model/site.ts';
import { PLAIN_TRAIL } from '#core/model/trail-setting.ts';
import { applyOperations } from '#core/operations/apply.ts';
import type { Operation } from '#core/operations/operation.ts';
import { AUDIENCES, randomLiveSite } from '../testing/random-live-site.ts';
import { type TestServer, startTestServer } from '../testing/test-server.ts';
import { hashOfPassword } from '../security/passwords.ts';
import { insertVisitor } from '../visitors/visitor-repository.ts';

const KEY = 'crawled';
const PASSWORD = 'low-water-mark';
let server: TestServer;
let site: Site;
const cookies = new Map<AudienceId, string>();

const applied = (before: Site, operations: readonly Operation[]): Site => {
  const outcome = applyOperations(before, operations);
  if (!outcome.ok) throw new Error(`The site of the test breaks a rule: ${outcome.code}`);
  return outcome.site;
};

/** A random site with a menu in each slot: two that follow the tree, one of them by section, one by hand, one of entries besides. */
function siteToCrawl(): { site: Site; contents: ReturnType<typeof randomLiveSite>['contents'] } {
  const { site: plain, contents } = randomLiveSite(KEY, 11, 130);
  const [side, footer, utility] = ['side', 'footer', 'utility'].map(toMenuId) as [
    ReturnType<typeof toMenuId>,
    ReturnType<typeof toMenuId>,
    ReturnType<typeof toMenuId>,
  ];
  const bare = layoutIdSchema.parse('bare');
  const withMenus = applied(plain, [
    { name: 'menu.set', menu: toMenuId('main'), fields: { levels: 3 } },
    { name: 'entry.set', menu: toMenuId('main'), entry: entryOf(toPageId('p2')), fields: { only: [AUDIENCES[2]!] } },
    { name: 'entry.set', menu: toMenuId('main'), entry: entryOf(toPageId('p3')), fields: { label: { en: 'Third' } } },
    { name: 'menu.add', menu: side, title: 'Section', fields: { root: 'section', levels: 3, withRoot: true } },
    { name: 'menu.add', menu: footer, title: 'Footer', fields: { levels: 3 } },
    { name: 'menu.add', menu: utility, title: 'Utility', fields: { levels: 1, root: { page: toPageId('p4') } } },
    {
      name: 'entry.add',
      menu: utility,
      entry: entryIdSchema.parse('in'),
      label: { en: 'Come in' },
      target: { does: 'sign-in' },
      under: null,
    },
    { name: 'layout.set', layout: plain.settings.layouts[0]!.id, fields: { hasTurns: true } },
    {
      name: 'layout.set',
      layout: plain.settings.layouts[0]!.id,
      fields: { menus: { utility, header: toMenuId('main'), side, footer } },
    },
    {
      name: 'layout.add',
      layout: bare,
      title: 'Bare',
      fields: { header: 'none', trail: { ...PLAIN_TRAIL, isShown: false } },
    },
    { name: 'page.set', page: toPageId('p1'), fields: { frame: { layout: bare } } },
    {
      name: 'page.set',
      page: toPageId('p0'),
      fields: {
        frame: { trail: { reach: 'branch', setting: { ...PLAIN_TRAIL, current: 'linked', leadIn: { en: 'Here:' } } } },
      },
    },
  ]);
  const byHand = applied(withMenus, [
    arrangeByHand(
      withMenus,
      withMenus.settings.menus.find(({ id }) => id === footer)!,
    ),
  ]);
  const entries = byHand.settings.menus.find(({ id }) => id === footer)!.arranged!.entries;
  const arranged = applied(
    byHand,
    // Every other entry of the first level is put below the one before it.
    entries.flatMap(({ id }, index): Operation[] =>
      index % 2 === 0 ? [] : [{ name: 'entry.move', menu: footer, entry: id, under: entries[index - 1]!.id }],
    ),
  );
  const pages = [...arranged.nodes.keys()];
  return { site: applied(arranged, [{ name: 'release.make', pages, retire: [] }]), contents };
}

beforeAll(async () => {
  server = await startTestServer();
  const made = siteToCrawl();
  site = made.site;
  await server.site(KEY, site, made.contents);
  const password_hash = await hashOfPassword(PASSWORD);
  for (const audience of AUDIENCES) {
    const email = `${audience}@home.example`;
    await insertVisitor(server.database, {
      id: crypto.randomUUID(),
      site: site.key,
      name: audience,
      email,
      password_hash,
      audiences: [audience],
      is_suspended: false,
      made_at: new Date(),
    });
    const response = await fetch(`${server.liveOrigin}/${KEY}/sign-in`, {
      method: 'POST',
      headers: { Origin: server.liveOrigin, 'Content-Type': 'application/x-www-form-urlencoded' },
      body: new URLSearchParams({ email, password: PASSWORD }),
      redirect: 'manual',
    });
    cookies.set(audience, response.headers.getSetCookie()[0]!.split(';')[0]!);
  }
});
afterAll(() => server.close());

describe('the whole site, crawled', () => {
  it.each([EVERYONE, ...AUDIENCES])(
    'keeps its menus and trails true for visitors of %s, on every page',
    async (audience) => {
      const { outline, addresses } = derivedOf(site);
      const member = closureOf(site.settings.audiences, [audience]);
      const { open, locked } = accessTable(outline, site.settings, [member], Date.now());
      const rowAt = new Map(addresses.map((address, row) => [`/${KEY}${address}`, row]));
      const headers = { Cookie: cookies.get(audience) ?? '' };
      const inMenus = new Set<string>();
      let pages = 0;
      for (const [row, node] of outline.nodes.entries()) {
        if (open[row] === 0 || addresses[row] === null) continue;
        pages++;
        const { status, text } = await server.live(`/${KEY}${addresses[row]}`, headers);
        expect({ address: addresses[row], status }).toEqual({ address: addresses[row], status: 200 });
        const $ = load(text);
        const above = ancestorsOf(site, node.id).map(({ id }) => id);

        // No entry, in whatever menu, for what does not open, but for those that show a lock; and each is marked as it should be.
        $(
          'nav[aria-label="Main"] a, nav[aria-label="Section"] a, nav[aria-label="Footer"] a, nav[aria-label="Utility"] a',
        ).each((_, element) => {
          const href = $(element).attr('href')!;
          if (href === `/${KEY}/sign-in`) return;
          const to = rowAt.get(href)!;
          expect({ href, opens: to !== undefined && (open[to] === 1 || locked[to] === 1) }).toEqual({
            href,
            opens: true,
          });
          if (open[to] === 1) inMenus.add(href);
          else expect($(element).find('.lock').length).toBe(1);
          const entry = outline.nodes[to]!.id;
          const mark = entry === node.id ? 'page' : above.includes(entry) ? 'true' : undefined;
          expect({ href, mark: $(element).attr('aria-current') }).toEqual({ href, mark });
        });

        // The trail is the way through the tree, as far as it opens; and the same for machines.
        const home = outline.nodes[0]!.id;
        const isNamed = (id: typeof home) => {
          const at = outline.rowOf.get(id)!;
          return open[at] === 1 || locked[at] === 1;
        };
        const way = [...above.toReversed(), node.id].filter(isNamed);
        const path = way.includes(home) || !isNamed(home) ? way : [home, ...way];
        const titles = path.map((id) => site.nodes.get(id)!.title.en!);
        const [data, ofKind] = $('script[type="application/ld+json"]')
          .toArray()
          .map((one) => JSON.parse($(one).text()) as Record<string, unknown>);
        expect((data!.itemListElement as { name: string }[]).map(({ name }) => name)).toEqual(titles);
        // What the page is about, where it has a kind.
        const hasKind = kindAmong(ruleOf(node).labels, site.settings.labels) !== null;
        expect(ofKind && [ofKind['@type'], ofKind.name]).toEqual(hasKind ? ['Course', node.title.en] : undefined);
        const trail = $('nav[aria-label="Breadcrumb"]');
        const isShown = node.id !== home && trailSettingOf(site, node.id).setting.isShown;
        expect(trail.length).toBe(isShown ? 1 : 0);
        trail.find('[aria-hidden]').remove();
        if (isShown) {
          expect(
            trail
              .find('li')
              .toArray()
              .map((one) => $(one).text()),
          ).toEqual(titles);
          expect(trail.find('[aria-current="page"]').text()).toBe(node.title.en);
        }
        $('nav[aria-label="Previous and next"] a').each((_, element) => void inMenus.add($(element).attr('href')!));
      }
      expect(pages).toBeGreaterThan(20);
      expect(inMenus.size).toBeGreaterThan(20);
      for (const href of inMenus)
        expect({ href, status: (await server.live(href, headers)).status }).toEqual({ href, status: 200 });
    },
  );
});
