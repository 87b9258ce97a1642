/** What can be taken along of a site, by the name in the API, with the file that it becomes. */
export const EXPORTS = {
  'redirects.csv': { file: 'redirects.csv', type: 'text/csv', words: 'Table of redirects (CSV)' },
  'redirects.nginx': { file: 'redirects.conf', type: 'text/plain', words: 'Rules for nginx' },
  'redirects.apache': { file: 'redirects.htaccess', type: 'text/plain', words: 'Rules for Apache' },
  'site.csv': { file: 'pages.csv', type: 'text/csv', words: 'Pages as a table (CSV)' },
  'site.opml': { file: 'pages.opml', type: 'text/x-opml', words: 'Outline (OPML 2.0)' },
  'site.md': { file: 'pages.md', type: 'text/markdown', words: 'Titles as an indented list (Markdown)' },
  'sitemap.xml': { file: 'sitemap.xml', type: 'application/xml', words: 'Addresses (sitemap.xml)' },
  'site.json': { file: 'site.json', type: 'application/json', words: 'The draft with its plan and texts (JSON)' },
  'schedule.csv': { file: 'schedule.csv', type: 'text/csv', words: 'Table (CSV)' },
  'schedule.ics': { file: 'schedule.ics', type: 'text/calendar', words: 'Calendar (iCalendar)' },
} as const;
export type ExportName = keyof typeof EXPORTS;
