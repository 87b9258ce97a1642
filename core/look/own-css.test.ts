import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { FIRST_LOOK } from '../model/look.ts';
import { readOwnCss } from './own-css.ts';
import { lookVariables } from './style.ts';
import { LOOK_VARIABLES } from './variables.ts';

describe('CSS of one’s own', () => {
  it('holds as it is written, with the variables of the look, conditions and layers', () => {
    for (const css of [
      'h1{color:var(--accent);letter-spacing:0}',
      '@media (min-width:48rem){main>h2{text-wrap:balance}}',
      '.note{--mine:3px;border-radius:calc(var(--radius) + var(--mine))}',
      '@container (width>30rem){p{inset:0}}',
      '.foot{& a{color:inherit}&:hover{opacity:.9}}',
      '@supports (display:grid){.cards{display:grid}}',
      '@keyframes in{from{opacity:0}to{opacity:1}}',
    ])
      expect(readOwnCss(css)).toEqual({ css, faults: [] });
  });

  it('names what is wrong with its line, and the rest holds', () => {
    const text = `h1 { colr: red; margin: 1rem }
.x { color: blurb;
  padding: 2px }
.y { color red; gap: 1px }
@import url(https://elsewhere.example/x.css);
@nonsense (a) { b { color: red } }
%%% { color: red }
h2 { font-weight: 700 }`;
    const { css, faults } = readOwnCss(text);
    expect(faults).toEqual([
      { line: 1, says: 'There is no property ‘colr’.' },
      { line: 2, says: '‘color’ cannot be ‘blurb’.' },
      { line: 4, says: 'A colon is expected.' },
      { line: 5, says: '‘@import’ does not work here. Write the rules themselves into this field.' },
      { line: 6, says: 'There is no rule ‘@nonsense’.' },
      { line: 7, says: 'A selector is expected.' },
    ]);
    expect(css).toBe('h1{margin:1rem}.x{padding:2px}.y{gap:1px}h2{font-weight:700}');
  });

  it('never reaches what comes after it, whatever is written', () => {
    const pieces = fc.constantFrom(
      'a',
      '{',
      '}',
      '(',
      ')',
      '[',
      ']',
      ';',
      ':',
      '"',
      "'",
      '/*',
      '*/',
      '\\',
      '@media',
      '@import',
      '--x',
      'url(',
      '<!--',
      '-->',
      '!',
      '\n',
      ' ',
      'color',
      'red',
      '</style>',
      ',',
      '&',
      '\0',
    );
    fc.assert(
      fc.property(fc.array(pieces, { maxLength: 24 }), (parts) => {
        const { css } = readOwnCss(parts.join(''));
        const after = readOwnCss(`${css}\n.after{color:red}`);
        expect(after.css.endsWith('.after{color:red}')).toBe(true);
        expect(readOwnCss(css).css).toBe(css);
        expect(css).not.toMatch(/(?<!\\)@import/i);
      }),
      { numRuns: 3000 },
    );
  });
});

describe('the variables of a look', () => {
  it('are those that CSS can use, and no others', () => {
    const set = new Set([...lookVariables(FIRST_LOOK).matchAll(/(--[a-z0-9-]+):/g)].map(([, name]) => name!));
    set.delete('--head-ground');
    expect(new Set(LOOK_VARIABLES.flatMap(([names]) => names))).toEqual(set);
  });
});
