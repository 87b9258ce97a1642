import { describe, expect, it } from 'vitest';
import { type RedirectRule, writeRedirects } from './redirect-rules.ts';

const rules: RedirectRule[] = [
  { address: 'https://old.example/courses.php?id=3', path: '/courses.php?id=3', to: 'https://new.example/courses' },
  { address: 'https://old.example/a, b.html', path: '/a, b.html', to: 'https://new.example/a?x=100%25' },
  { address: 'https://old.example/guestbook', path: '/guestbook', to: null },
];
const pattern: RedirectRule = {
  address: '/kurse.alt/*',
  path: '/kurse.alt',
  to: 'https://new.example/courses',
  isPattern: true,
};

describe('redirects', () => {
  it('are taken along as a table', () =>
    expect(writeRedirects('redirects.csv', rules)).toBe(
      'old_address,new_address,status\r\n' +
        'https://old.example/courses.php?id=3,https://new.example/courses,301\r\n' +
        '"https://old.example/a, b.html",https://new.example/a?x=100%25,301\r\n' +
        'https://old.example/guestbook,,410\r\n',
    ));

  it('are taken along as rules for nginx, by the address as it is requested', () => {
    const text = writeRedirects('redirects.nginx', rules);
    expect(text).toContain('    "/courses.php?id=3" "https://new.example/courses";');
    expect(text).toContain('    "/a,%20b.html" "https://new.example/a?x=100%25";');
    expect(text).toContain('    "/guestbook" 1;');
  });

  it('are taken along as rules for Apache, with the query apart', () => {
    const text = writeRedirects('redirects.apache', rules);
    expect(text).toContain(
      'RewriteCond %{QUERY_STRING} "^id=3$"\nRewriteRule "^/?courses\\.php/?$" "https://new.example/courses" [R=301,L,NE,QSD]',
    );
    expect(text).toContain('"https://new.example/a?x=100\\%25"');
    expect(text).toContain('RewriteRule "^/?guestbook/?$" - [G,L]');
  });

  it('keep to their line, whatever stands in an address, and match what is escaped already', () => {
    const hostile: RedirectRule[] = [
      { address: '/a', path: '/a"\nDeny from all\n"', to: 'https://new.example/"\n}' },
      { address: '/b', path: '/b\\"x', to: null },
      { address: '/c', path: '/%26 and %C3%BC', to: 'https://new.example/c' },
    ];
    const apache = writeRedirects('redirects.apache', hostile);
    expect(apache.trimEnd().split('\n')).toHaveLength(1 + 2 * hostile.length);
    expect(apache).toContain(
      'RewriteRule "^/?a\\x22\\x0aDeny\\x20from\\x20all\\x0a\\x22/?$" "https://new.example/\\%22\\%0A}"',
    );
    expect(apache).toContain('RewriteRule "^/?b\\\\\\x22x/?$" - [G,L]');
    // Apache may see what is escaped either way.
    expect(apache).toContain('(?:%26|\\x26)');
    const nginx = writeRedirects('redirects.nginx', hostile);
    expect(nginx).toContain('    "/%26%20and%20%C3%BC" "https://new.example/c";');
    expect(nginx).toContain('    "/a%22%0ADeny%20from%20all%0A%22" "https://new.example/%22%0A}";');
    expect(nginx).toContain('    "/b%5C%22x" 1;');
  });

  it('hold for all addresses below, where a pattern says so, and for no other that begins alike', () => {
    expect(writeRedirects('redirects.csv', [pattern])).toContain('/kurse.alt/*,https://new.example/courses,301');
    const found = /"~(.*)" "/.exec(writeRedirects('redirects.nginx', [pattern]))![1]!;
    // nginx undoes the doubling of backslashes within quotation marks; JavaScript has no \\z.
    const nginx = new RegExp(found.replaceAll('\\\\', '\\').replace('\\z', '$'));
    const apache = new RegExp(/RewriteRule "([^"]*)"/.exec(writeRedirects('redirects.apache', [pattern]))![1]!);
    for (const one of [nginx, apache])
      expect(['/kurse.alt', '/kurse.alt/1/2', '/kurse.alter', '/kursexalt'].map((path) => one.test(path))).toEqual([
        true,
        true,
        false,
        false,
      ]);
  });
});
