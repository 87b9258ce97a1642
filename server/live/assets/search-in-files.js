// The search of a site that stands as files, in the visitor's browser; it needs no server. MiniSearch stands above it in the
// same file, and the words of the pages in `words.js`.
(() => {
  /** @typedef {{ title: string, to: string, where: string, extract: string }} Found */
  /** @typedef {{ search: (words: string, options: object) => Found[] }} Engine */
  /** @type {{ MiniSearch: { loadJS: (index: object, options: object) => Engine }, siteWords: { index: object, options: object } }} */
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

  const pages = found.length === 1 ? '1 page' : `${found.length} pages`;
  outcome.textContent =
    found.length === 0
      ? `No page contains ‘${asked}’. Try fewer or different words.`
      : exact.length === 0
        ? `No page contains exactly ‘${asked}’. ${pages} with similar words:`
        : `${pages} with ‘${asked}’${found.length > SHOWN ? `, the best ${SHOWN} of them` : ''}:`;

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
