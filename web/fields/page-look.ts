/** Where the look of visitors' pages ends: in what the workbench puts into a text, such as the choice of a file. */
export const OF_THE_DESK = 'of-the-desk';

/**
 * The stylesheet of visitors' pages as it holds in a part of the workbench: what it says of the width of the screen is asked of the page's
 * own width.
 */
const within = (css: string): string =>
  css
    .replace(/@media \((min|max)-width/g, '@container ($1-width')
    .replace(/(\d)vw\b/g, '$1cqw')
    .replaceAll('min-height: 100vh', 'min-height: 0');

/** The main part of a page, in a selector. */
const MAIN = /\bmain(?=[ :>{])/g;

/** For what stands around the text, in a shadow tree whose host is as wide as the page. */
export const frameLook = (css: string): string =>
  `${within(css)
    .replaceAll(':root', ':host')
    .replace(/^body \{/m, '.page {')
    .replace(MAIN, '.main')}
:host { display: block; position: relative; container-type: inline-size; }
.skip { display: none; }
.main > slot { display: block; max-width: none; }`;

/** For the text, which stands in the document of the workbench: elements named `as-visitors`; a text within another is `is-within`. */
export const textLook = (css: string): string =>
  `@scope (.as-visitors) to (.${OF_THE_DESK}) {
:where(:scope *) { all: revert; }
${within(css)
  .replaceAll(':root', ':scope')
  .replace(/^body \{/m, ':scope {')
  .replace(MAIN, ':scope')}
:scope { display: block; padding: 0 0 4rem; background: none; outline: none; white-space: pre-wrap; }
:scope:not(.is-within) > :last-child { margin-bottom: 0; }
}`;
