import { NGINX_DOLLAR } from '#core/formats/redirect-rules.ts';
import { SAFETY } from '../live/ready-answer.ts';

/** What takes part in the texts of nginx as it is. */
const header = (name: string, value: string) => `    add_header ${name} "${value.replace(/["\\]/g, '\\$&')}";`;

/** The headers of all files. nginx's own tag says what Spur's does, and the day of a file says nothing. */
function headers(vary: string): string {
  const pairs: [string, string][] = [
    ['Last-Modified', ''],
    ['Vary', vary],
    ['Cache-Control', 'public, no-cache'],
    ['Content-Encoding', '$spur_content_encoding'],
    ['X-Robots-Tag', '$spur_robots'],
  ];
  for (let at = 0; at < SAFETY.length; at += 2) pairs.push([SAFETY[at]!, SAFETY[at + 1]!]);
  return pairs.map(([name, value]) => header(name, value)).join('\n');
}

/** One kind of files: where they are asked for, what they are, and where they lie. */
const location = (where: string, type: string, vary: string, files: string, folder: string) => `location ${where} {
    root "${folder}";
    try_files ${files} @spur;
    # A release may go live between the two looks at a file.
    error_page 404 = @spur;
    types {}
    default_type "${type}; charset=utf-8";
    gzip off;
    etag on;
    if_modified_since off;
    max_ranges 0;
${headers(vary)}
}`;

/** An encoding in Accept-Encoding that is not forbidden by \`q=0\` (RFC 9110, 12.5.3). */
const taken = (name: string) => `"~*(?:^|,)\\s*${name}\\s*(?=[,;]|$)(?![^,]*;\\s*q=0(?:\\.0*)?\\s*(?:[;,]|$))"`;

export interface NginxParts {
  /** The folder with the files, as nginx sees it. */
  readonly folder: string;
  /** Host and port at which the visitors' side of Spur answers. */
  readonly upstream: string;
}

/**
 * The configuration by which nginx answers from the files whoever is not known by a cookie, and passes all else on to Spur: `http`
 * belongs in its \`http\` block, `server` in a \`server\` block.
 */
export function nginxConfig({ folder, upstream }: NginxParts): { http: string; server: string } {
  const http = `# Made by Spur at its start. Include it in the http block.
upstream spur_live { server ${upstream}; keepalive 32; }
${NGINX_DOLLAR}
map_hash_bucket_size 512;
map_hash_max_size 65536;
# Who has a cookie of Spur's is answered by Spur.
map $http_cookie $spur_known { default ""; "~spur\\." known; }
map $http_accept_encoding $spur_coding {
    default "";
    ${taken('br')} .br;
    ${taken('gzip')} .gz;
}
# The files are found by the address as it is requested, so that each page has one address.
map "$request_method$spur_known $request_uri" $spur_page {
    default "/-";
    "~^(?:GET|HEAD) /(?<spur_site>[a-z0-9-]+)(?<spur_path>/(?:[^/?.]+(?:/[^/?.]+)*)?)(?:\\?|$)" "/$spur_site/now$spur_path~";
}
map "$request_method$spur_known $request_uri" $spur_file {
    default "/-";
    "~^(?:GET|HEAD) /(?<spur_xml_site>[a-z0-9-]+)(?<spur_xml>/sitemap(?:-\\d+)?\\.xml|/(?:[^/?.]+/)*feed\\.xml)(?:\\?|$)" "/$spur_xml_site/now$spur_xml";
}
map "$status $uri" $spur_content_encoding { default ""; "~^200 .*\\.br$" br; "~^200 .*\\.gz$" gzip; }
map $uri $spur_robots { default ""; "~~\\.noindex\\.html" noindex; }
# Where Spur does not answer, redirects are known as they were when nginx read this.
map $request_uri $spur_moved_to { default ""; include "${folder}/*/now/moved.map"; }
map $request_uri $spur_gone { default ""; include "${folder}/*/now/gone.map"; }
`;
  const page = ['$spur_page.html$spur_coding', '$spur_page.html'];
  const unoffered = ['$spur_page.noindex.html$spur_coding', '$spur_page.noindex.html'];
  const feeds = '$spur_file$spur_coding $spur_file';
  const server = `# Made by Spur at its start. Include it in a server block.
${location('/', 'text/html', 'Accept-Encoding, Cookie', [...page, ...unoffered].join(' '), folder)}
${location('~ ^/[a-z0-9-]+/sitemap(-\\d+)?\\.xml$', 'application/xml', 'Accept-Encoding', feeds, folder)}
${location('~ /feed\\.xml$', 'application/atom+xml', 'Accept-Encoding', feeds, folder)}
location @spur {
    proxy_pass http://spur_live$request_uri;
    proxy_http_version 1.1;
    proxy_set_header Connection "";
    proxy_set_header Host $http_host;
    proxy_set_header X-Forwarded-For $proxy_add_x_forwarded_for;
    proxy_set_header X-Forwarded-Proto $scheme;
    error_page 502 504 = @spur_away;
}
location @spur_away {
    if ($spur_moved_to) { return 301 $spur_moved_to; }
    if ($spur_gone) { return 410; }
    return 502;
}
`;
  return { http, server };
}
