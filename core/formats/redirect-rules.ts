import { writeCsvTable } from './csv-table.ts';

/** One old address, and where it leads: a whole address, or null where it is gone. */
export interface RedirectRule {
  /** The address as it stands in the inventory. */
  readonly address: string;
  /** Its path and query. */
  readonly path: string;
  readonly to: string | null;
  /** Whether it holds for all addresses below its own as well; then the address ends with `/*`, and the path does not. */
  readonly isPattern?: boolean;
}

export type RedirectFormat = 'redirects.csv' | 'redirects.nginx' | 'redirects.apache';

/** Redirects as a table (RFC 4180), or as rules for nginx or Apache. */
export function writeRedirects(format: RedirectFormat, rules: readonly RedirectRule[]): string {
  switch (format) {
    case 'redirects.csv':
      return writeCsv(rules);
    case 'redirects.nginx':
      return writeNginx(rules);
    case 'redirects.apache':
      return writeApache(rules);
  }
}

const writeCsv = (rules: readonly RedirectRule[]): string =>
  writeCsvTable(
    ['old_address', 'new_address', 'status'],
    rules.map(({ address, to }) => [address, to ?? '', to === null ? '410' : '301']),
  );

/** A path as it stands in a request: letters that are not plain are escaped, and what is escaped already stays so. */
const asRequested = (path: string): string => encodeURI(path).replace(/%25(?=[0-9A-F]{2})/gi, '%');
/** An address to go to, without what would end a line or a text of a configuration. */
const asTarget = (to: string): string => to.replace(/[\p{Cc} "\\]/gu, encodeURIComponent);

/** A percent sign starts nothing in nginx's texts, but a dollar sign names a variable: this one, which holds it. */
export const NGINX_DOLLAR = 'geo $spur_dollar { default "$"; }';

/** The lines of two maps of nginx by the address as it is requested: where what has moved is, and what is gone. */
export function nginxMaps(rules: readonly RedirectRule[]): { moved: string[]; gone: string[] } {
  // Only the second half of a line may hold variables: in the first a dollar sign is one.
  const key = (text: string) => `"${text.replace(/[\\"]/g, '\\$&')}"`;
  const quoted = (text: string) => key(text).replaceAll('$', '${spur_dollar}');
  const line = ({ path, isPattern }: RedirectRule, value: string) =>
    `    ${key(isPattern ? `~^${literalPattern(asRequested(path))}(?:/|\\z)` : asRequested(path))} ${value};`;
  return {
    moved: rules.flatMap((rule) => (rule.to === null ? [] : [line(rule, quoted(asTarget(rule.to)))])),
    gone: rules.flatMap((rule) => (rule.to === null ? [line(rule, '1')] : [])),
  };
}

/** nginx: two maps for the `http` block, and two lines for the `server` block. */
function writeNginx(rules: readonly RedirectRule[]): string {
  const { moved, gone } = nginxMaps(rules);
  return `# In the http block:
${NGINX_DOLLAR}
map_hash_bucket_size 512;
map $request_uri $spur_moved_to {
    default "";
${moved.join('\n')}
}
map $request_uri $spur_gone {
    default 0;
${gone.join('\n')}
}

# In the server block:
if ($spur_moved_to) { return 301 $spur_moved_to; }
if ($spur_gone) { return 410; }
`;
}

/** Text as it stands in a regular expression. */
const literalPattern = (text: string): string => text.replace(/[\\^$.|?*+()[\]{}]/g, '\\$&');

/** Apache: rules for mod_rewrite, in the configuration of a host or in \`.htaccess\`. */
function writeApache(rules: readonly RedirectRule[]): string {
  // Apache takes a quotation mark for the end, whatever stands before it, and sees the path without its escapes.
  const literal = (text: string) =>
    literalPattern(text)
      .replace(/%([2-7][0-9A-F])/gi, (escape, code: string) => `(?:${escape}|\\x${code.toLowerCase()})`)
      .replace(/[\p{Cc} "]/gu, (sign) => `\\x${sign.charCodeAt(0).toString(16).padStart(2, '0')}`);
  const quoted = (text: string) => `"${text}"`;
  // In what is put in, a percent sign and a dollar sign would stand for what was found.
  const target = (to: string) => asTarget(to).replace(/[%$]/g, '\\$&');
  const lines = rules.flatMap(({ path, to, isPattern }) => {
    const [name = '', ...query] = path.split('?');
    // In a folder's own file the pattern sees the path without the slash.
    const pattern = `^/?${literal(name.replace(/^\//, ''))}${isPattern ? '(/.*)?' : '/?'}$`;
    return [
      `RewriteCond %{QUERY_STRING} ${quoted(`^${query.length > 0 ? literal(query.join('?')) : ''}$`)}`,
      `RewriteRule ${quoted(pattern)} ${to === null ? '- [G,L]' : `${quoted(target(to))} [R=301,L,NE,QSD]`}`,
    ];
  });
  return `RewriteEngine On\n${lines.join('\n')}\n`;
}
