import { NGINX_DOLLAR } from '#core/formats/redirect-rules.ts';
import { SAFETY } from '../live/ready-answer.ts';

const header = (name: string, value: string) => `    add_header ${name} "${value.replace(/["\\]/g, '\\$&')}";`;

/** The headers of all files. nginx's own tag says what Spur's does, and the day of a file says nothing. */
function headers(vary: string, encoding: string): string {
  const pairs: [string, string][] = [
    ['Last-Modified', ''],
    ['Vary', vary],
    ['Cache-Control', 'public, no-cache'],
    ['Content-Encoding', encoding],
  ];
  for (let at = 0; at < SAFETY.length; at += 2) pairs.push([SAFETY[at]!, SAFETY[at + 1]!]);
  return pairs.map(([name, value]) => header(name, value)).join('\n');
}

/** What all kinds of files have in common; a file that is not there is for Spur to answer. */
const answered = (type: string, folder: string) => `    root "${folder}";
    error_page 403 404 = @spur;
    recursive_error_pages on;
    log_not_found off;
    types {}
    default_type "${type}; charset=utf-8";
    gzip off;
    etag on;
    if_modified_since off;
    max_ranges 0;`;

/** An encoding in Accept-Encoding that is not forbidden by \`q=0\` (RFC 9110, 12.5.3). */
const taken = (name: string) => `"~*(?:^|,)\\s*${name}\\s*(?=[,;]|$)(?![^,]*;\\s*q=0(?:\\.0*)?\\s*(?:[;,]|$))"`;
/** What browsers say: found without a search by pattern. */
const USUAL_CODINGS = [
  ['gzip', '.gz'],
  ['gzip, deflate', '.gz'],
  ['gzip, deflate, br', '.br'],
  ['gzip, deflate, br, zstd', '.br'],
] as const;

export interface NginxParts {
  /** The folder with the files, as nginx sees it. */
  readonly folder: string;
  /** Host and port at which the visitors' side of Spur answers. */
  readonly upstream: string;
}

/** A site's key, and the steps of a page's address as they stand in requests. */
const PAGE = '/[a-z0-9-]+/(?:[^/?.]+(?:/[^/?.]+)*)?';

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
# Who has a cookie of Spur's, and whoever does more than read, is answered by Spur.
map $request_method$http_cookie $spur_gate {
    default "-";
    GET "";
    HEAD "";
    "~^(?:GET|HEAD)(?!.*spur\\.)" "";
}
map $http_accept_encoding $spur_coding {
    default "";
${USUAL_CODINGS.map(([said, ending]) => `    "${said}" ${ending};`).join('\n')}
    ${taken('br')} .br;
    ${taken('gzip')} .gz;
}
map $status$spur_coding $spur_page_encoding { default ""; 200.br br; 200.gz gzip; }
map "$status $uri" $spur_file_encoding { default ""; "~^200 .*\\.br$" br; "~^200 .*\\.gz$" gzip; }
# The files are found by the address as it is requested, so that each page has one address.
map $spur_gate$request_uri $spur_page {
    default "/-";
    "~^${PAGE}$" $request_uri;
    "~^(?<spur_asked>${PAGE})\\?" $spur_asked;
}
map $spur_gate$request_uri $spur_file {
    default "/-";
    "~^(?<spur_xml>/[a-z0-9-]+(?:/sitemap(?:-\\d+)?|/(?:[^/?.]+/)*feed)\\.xml)(?:\\?|$)" $spur_xml;
}
# Where Spur does not answer, redirects are known as they were when nginx read this.
map $request_uri $spur_moved_to { default ""; include "${folder}/*/moved.map"; }
map $request_uri $spur_gone { default ""; include "${folder}/*/gone.map"; }
`;
  const ofFile = (type: string) => `${answered(type, folder)}
    try_files $spur_file$spur_coding $spur_file @spur;
${headers('Accept-Encoding', '$spur_file_encoding')}`;
  const server = `# Made by Spur at its start. Include it in a server block; \`pcre_jit on\` beside the http block makes it quicker.
location / {
${answered('text/html', folder)}
    rewrite ^ $spur_page~.html$spur_coding break;
${headers('Accept-Encoding, Cookie', '$spur_page_encoding')}
}
location ~ \\.xml$ {
    location ~ /sitemap(-\\d+)?\\.xml$ {
${ofFile('application/xml')}
    }
    location ~ /feed\\.xml$ {
${ofFile('application/atom+xml')}
    }
    try_files /- @spur;
}
location @spur {
    proxy_pass http://spur_live$request_uri;
    proxy_http_version 1.1;
    proxy_set_header Connection "";
    proxy_set_header Host $http_host;
    proxy_set_header X-Forwarded-For $proxy_add_x_forwarded_for;
    proxy_set_header X-Forwarded-Proto $scheme;
    recursive_error_pages on;
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
