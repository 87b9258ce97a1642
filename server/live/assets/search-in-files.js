// The search of a site that stands as files, in the visitor's browser; it needs no server. MiniSearch stands above it in the
// same file, and the words of the pages in `words.js`.
(() => {
  /** @typedef {{ title: string, to: string, where: string, extract: string }} Found */
  /** @typedef {{ search: (words: string, options: object) => Found[] }} Engine */
  /** @type {{ MiniSearch: { loadJS: (index: object, options: object) => Engine }, siteWords: { index: object, options: object, said: Record<'none' | 'one' | 'some' | 'nearlyOne' | 'nearly' | 'best', string> } }} */
  const { MiniSearch, siteWords } = /** @type {any} */ (globalThis);
  const { document, location, HTMLInputElement, URLSearchParams } = globalThis;

  const SHOWN = 50;
  const asked = (new URLSearchParams(location.search).get('q') ?? '').trim().slice(0, 200);
  const field = document.querySelector('.in-page input');
  const [outcome, results] = [document.querySelector('#outcome'), document.querySelector('.results')];
  if (!(field instanceof HTMLInputElement) || !outcome || !results) return;
  field.value = asked;
  if (asked === '') return;

  const engine = MiniSearch.loadJS(siteWords.index, siteWords.options);
  const look = (/** @type {number} */ mistakes) =>
    engine.search(asked, { combineWith: 'AND', prefix: true, fuzzy: mistakes, boost: { title: 4, about: 2 } });
  const exact = look(0);
  const found = exact.length > 0 ? exact : look(0.25);

  const { said } = siteWords;
  const isOne = found.length === 1;
  const sentence =
    found.length === 0
      ? said.none
      : exact.length === 0
        ? isOne
          ? said.nearlyOne
          : said.nearly
        : isOne
          ? said.one
          : said.some;
  const best = found.length > SHOWN ? ` ${said.best.replace('{count}', () => String(SHOWN))}` : '';
  outcome.textContent = sentence.replace('{count}', () => String(found.length)).replace('{asked}', () => asked) + best;

  /** @param {string} text @param {string} kind */
  const line = (text, kind) => Object.assign(document.createElement('p'), { textContent: text, className: kind });
  for (const { title, to, where, extract } of found.slice(0, SHOWN)) {
    const item = document.createElement('li');
    const link = document.createElement('a');
    link.textContent = title;
    link.href = `../${to}`;
    item.append(link);
    if (where !== '') item.append(line(where, 'where'));
    if (extract !== '') item.append(line(extract, ''));
    results.append(item);
  }
})();
