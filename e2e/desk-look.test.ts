import { describe, expect, it } from 'vitest';
import { SHARED_TEXT, everySection } from '#server/testing/every-section.ts';
import { accessibilityFaults } from './support/accessibility.ts';
import { signedIn } from './support/signed-in.ts';

const { spur, browser, bench } = await signedIn();

/** What makes the look of a part of a text; fonts go by other names on the two sides. */
const LOOK = [
  'fontSize',
  'fontWeight',
  'fontStyle',
  'lineHeight',
  'color',
  'backgroundColor',
  'marginTop',
  'marginBottom',
  'paddingTop',
  'paddingLeft',
  'borderTopWidth',
  'borderTopColor',
  'borderLeftWidth',
  'borderRadius',
  'listStyleType',
  'textAlign',
  'textDecorationLine',
  'display',
  'cssFloat',
];
const PARTS = [
  'p',
  'h2',
  'h3',
  'h4',
  'ul',
  'ol',
  'li',
  'blockquote',
  '.note',
  '.band p',
  '.note.warning',
  'table',
  'th',
  'td',
  '.button',
  '.button > a',
  '.columns',
  '.columns > *',
  '.beside-text',
  '.quotation',
  '.quotation blockquote',
  '.quotation figcaption',
  '.picture',
  '.picture img',
  '.picture .credit',
  '.download a',
  '.download small',
  'hr',
  'pre',
  'pre code',
];

type Looks = Readonly<Record<string, Readonly<Record<string, string>>>>;
/** How the parts of the text look within an element, and how wide each is. */
const looksIn = (within: string): Promise<Looks> =>
  browser.driver.executeScript<Looks>(
    `const [within, parts, look] = arguments;
    return Object.fromEntries(parts.map((part) => {
      const element = document.querySelector(within + ' ' + part);
      if (!element) return [part, {}];
      const style = getComputedStyle(element);
      const font = style.fontFamily.split(',')[0].replace(/['"]| Variable/g, '');
      return [part, { font, width: String(Math.round(element.getBoundingClientRect().width)),
        ...Object.fromEntries(look.map((name) => [name, style[name]])) }];
    }));`,
    within,
    PARTS,
    LOOK,
  );

const post = (path: string, body: object): Promise<number> =>
  browser.driver.executeAsyncScript<number>(
    `const [path, body, done] = arguments;
    fetch(path, { method: 'POST', headers: { 'Content-Type': 'application/json' }, body }).then((answer) => done(answer.status));`,
    path,
    JSON.stringify(body),
  );

describe('the desk', () => {
  it.each([
    ['As on a tablet', 768],
    ['As on a telephone', 390],
  ] as const)('shows every section %s with the look that visitors get', async (button, width) => {
    await browser.resize(1280, 800);
    await browser.prefer('light');
    const page = `look${width}`;
    await bench.open(spur, 'pellow-quay');
    const { id, document } = everySection('pellowferry00000', page);
    const operations = [
      { name: 'shared.add', shared: page, title: page, content: SHARED_TEXT.id },
      { name: 'page.add', page, place: { parent: null }, title: { en: `Look ${width}` } },
      { name: 'page.set', page, fields: { content: id } },
    ];
    expect(
      await post('/api/sites/pellow-quay/operations', { operations, contents: [{ id, document }, SHARED_TEXT] }),
    ).toBe(200);
    expect(await post('/api/sites/pellow-quay/releases', { pages: [page], settings: ['shared'] })).toBe(200);
    await bench.open(spur, 'pellow-quay', `?lens=write&find=Look`);
    await bench.select(`Look ${width}`);
    await bench.focusTree();
    await bench.press('d');
    await bench.until('the page stands around the text', () =>
      browser.driver.executeScript<boolean>(
        `return document.querySelector('[data-page-frame]')?.shadowRoot?.querySelector('h1')?.textContent.startsWith('Look') === true`,
      ),
    );
    await bench.click('button', button);
    await bench.until('the page is as wide as that', () =>
      browser.driver.executeScript<boolean>(
        `return Math.round(document.querySelector('.as-visitors').closest('[data-page-frame]')?.clientWidth ?? 0) === ${width}`,
      ),
    );
    await bench.until('the picture is there', () =>
      browser.driver.executeScript<boolean>(
        `return document.querySelector('.as-visitors .picture img')?.naturalWidth > 0`,
      ),
    );
    const atDesk = await looksIn('.as-visitors');
    expect(await accessibilityFaults(browser)).toEqual([]);
    await browser.prefer('light');

    // A scrollbar stands beside the page.
    await browser.driver.get(`${spur.live}/pellow-quay/look-${width}`);
    const bar = await browser.driver.executeScript<number>('return innerWidth - document.documentElement.clientWidth');
    await browser.resize(width + bar, 800);
    const forVisitors = await looksIn('main');
    const differences = PARTS.flatMap((part) =>
      Object.entries(forVisitors[part]!).flatMap(([name, value]) =>
        // Margins follow the width of the window, with its scrollbar.
        atDesk[part]![name] === value ||
        (name === 'width' && Math.abs(Number(atDesk[part]![name]) - Number(value)) <= 2)
          ? []
          : `${part}, ${name}: ${atDesk[part]![name]} at the desk, ${value} for visitors`,
      ),
    );
    expect(differences).toEqual([]);
    expect(Object.values(forVisitors).every((look) => Object.keys(look).length > 0)).toBe(true);
  });
});
