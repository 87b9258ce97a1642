import { type CssNode, type Declaration, type List, type ListItem, generate, lexer, parse, walk } from 'css-tree';

/** So many faults are told at most. */
const MOST_FAULTS = 30;

/** Something in CSS that is left out, with its line (the first is 1) and what is wrong with it. */
export interface CssFault {
  readonly line: number;
  readonly says: string;
}

export interface OwnCss {
  /** What holds, written anew: each block is closed, so that nothing of it reaches what comes after it. */
  readonly css: string;
  readonly faults: readonly CssFault[];
}

/** Rules that would bring in what the site does not have, or say how the file is to be read. */
const BARRED = new Set(['import', 'charset', 'namespace']);

/** Reads CSS that somebody wrote for visitors' pages, by the grammar of CSS. What cannot be read is left out and told; the rest holds. */
export function readOwnCss(text: string): OwnCss {
  const faults: CssFault[] = [];
  const tell = (line: number | undefined, says: string) => faults.push({ line: line ?? 1, says });
  const sheet = parse(text, {
    positions: true,
    onParseError: ({ line, message }: SyntaxError & { line?: number }) => tell(line, asSentence(message)),
  });
  walk(sheet, {
    leave(node: CssNode, item: ListItem<CssNode> | null, list: List<CssNode> | null) {
      if (!item || !list) return;
      const fault = faultOf(node);
      if (fault === null) return;
      if (fault !== '') tell(node.loc?.start.line, fault);
      list.remove(item);
    },
  });
  // What was told while reading stands in no order with what was found later.
  faults.sort((one, other) => one.line - other.line);
  return { css: generate(sheet), faults: faults.slice(0, MOST_FAULTS) };
}

/** What the parser says, such as `Colon is expected`. */
const asSentence = (message: string): string =>
  `${message.replace(/^([A-Z])([a-z]+ is expected)/, (_, first: string, rest: string) => `${/[AEIOU]/.test(first) ? 'An' : 'A'} ${first.toLowerCase()}${rest}`)}.`;

/** What is wrong with a part; '' where that was told while it was read, null where nothing is. */
function faultOf(node: CssNode): string | null {
  switch (node.type) {
    case 'Declaration':
      return faultOfDeclaration(node);
    case 'Atrule': {
      const name = node.name.toLowerCase();
      if (BARRED.has(name)) return `‘@${name}’ does not work here. Write the rules themselves into this field.`;
      if (node.prelude?.type === 'Raw') return '';
      return lexer.checkAtruleName(name) ? `There is no rule ‘@${name}’.` : null;
    }
    case 'Rule':
      return node.prelude.type === 'Raw' ? '' : null;
    case 'Raw':
    case 'Comment':
    case 'CDC':
    case 'CDO':
      return '';
    default:
      return null;
  }
}

function faultOfDeclaration(declaration: Declaration): string | null {
  const { property, value } = declaration;
  if (property.startsWith('--')) return null;
  if (value.type === 'Raw') return '';
  const { error } = lexer.matchDeclaration(declaration);
  // What a variable stands for is not known here.
  if (!error || hasVariable(value))
    return error && /^Unknown property/.test(error.message) ? noProperty(property) : null;
  return /^Unknown property/.test(error.message)
    ? noProperty(property)
    : `‘${property}’ cannot be ‘${generate(value)}’.`;
}

const noProperty = (name: string): string => `There is no property ‘${name}’.`;

function hasVariable(value: CssNode): boolean {
  let found = false;
  walk(value, (node) => {
    if (node.type === 'Function' && /^(?:var|env)$/i.test(node.name)) found = true;
  });
  return found;
}
