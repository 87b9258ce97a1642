import sharp from 'sharp';
import { slugFromTitle } from '#core/model/slug.ts';
import { demoFileId, demoFiles } from './demo-files.ts';
import type { DemoNode } from './demo-tree.ts';
import { PELLOW_QUAY } from './pellow-quay.ts';

/** A page of the school's former website, as its server sends it. */
export interface FormerPage {
  readonly path: string;
  readonly title: string;
  readonly description: string;
  readonly blocks: readonly string[];
  /** The paths that it links to. */
  readonly links: readonly string[];
}

/** How the pages of each section were kept on the former website. */
const PATHS: Readonly<Record<string, (title: string, number: number) => string>> = {
  Courses: (_, number) => `/courses.php?id=${number}`,
  Apply: (title) => `/apply/${title.replace(/[^A-Za-z]+/g, '_')}.html`,
  Visit: (title) => `/visitors/${slugFromTitle(title)}.htm`,
  Workshops: (title) => `/Workshops/${title.replace(/[^A-Za-z]+/g, '')}.html`,
  'Boats built': (title) => `/gallery/boat.php?b=${slugFromTitle(title).replaceAll('-', '')}`,
  People: (title) => `/staff/~${slugFromTitle(title).split('-').at(-1)}/`,
  News: (title, number) =>
    `/news/2023/${String((number % 12) + 1).padStart(2, '0')}/${slugFromTitle(title).slice(0, 24)}.html`,
  Places: (title) => `/area/${slugFromTitle(title)}.html`,
  Students: (title) => `/students-area/${slugFromTitle(title)}`,
  'Staff handbook': (title) => `/handbook/${title.replace(/[^A-Za-z]+/g, '-').toLowerCase()}.html`,
  Governors: (title) => `/governors/${slugFromTitle(title)}.html`,
  Legal: (title) => `/misc/${slugFromTitle(title)}.html`,
};

/** What a page was called before it had its present title. */
const FORMER_TITLES: Readonly<Record<string, string>> = {
  Courses: 'Our courses',
  'The year course': 'One-year boatbuilding course',
  'Term by term': 'Year course: the three terms',
  'What graduates do': 'Where our graduates work',
  'Two-year apprenticeship': 'Apprenticeships',
  'Yards that take apprentices': 'Partner yards',
  'Short courses': 'Short and weekend courses',
  'Build a canoe': 'Canoe building week',
  'Family boat week': 'Families build a boat',
  'Evening classes': 'Evening classes, Monday to Thursday',
  'Course dates': 'Dates',
  Apply: 'Applications',
  'How to apply': 'Applying to the school',
  'Studying from abroad': 'Overseas students',
  'Questions people ask': 'FAQ',
  Visit: 'Visitors',
  'Open Saturdays': 'Open days',
  'How to find us': 'Directions',
  'Access for everyone': 'Disabled access',
  'School groups': 'Visits by schools',
  Workshops: 'Facilities',
  'The long shed': 'Long shed',
  'Boats built': 'Gallery',
  People: 'Staff',
  'Work with us': 'Vacancies',
  Lodgings: 'Where to stay',
  Students: 'For students',
  'Borrowing tools': 'Tool loans',
  'Saw room rules': 'Rules of the machine shop',
  Privacy: 'Data protection',
  Imprint: 'Legal notice',
  'Terms of booking': 'Booking conditions',
};

/** Pages of now that were sections of one former page. */
const GATHERED_ON: Readonly<Record<string, string>> = {
  'Monday: first tools': 'Evening classes',
  'Tuesday: half models': 'Evening classes',
  'Wednesday: rope and canvas': 'Evening classes',
  'Thursday: open bench': 'Evening classes',
  'Fees for the year course': 'The year course',
};

/** Pages of now that had no page before. */
const NOT_YET = new Set([
  'Compare the courses',
  'Thank you for applying',
  'Bursaries',
  'Accessibility statement',
  'Practice page',
  'Page not found',
  'Useful links',
  'Six bursaries given',
  'Drawing library',
  'Good to know',
]);

/** Former pages that were two where one is now. */
const PARTED: Readonly<Record<string, readonly (readonly [title: string, path: string])[]>> = {
  'Fees and paying': [
    ['Fees', '/apply/fees_2023.html'],
    ['How to pay', '/apply/How_to_pay.html'],
  ],
  'Entry requirements': [
    ['Entry requirements', '/apply/Entry_requirements.html'],
    ['Age and health', '/apply/age_and_health.html'],
  ],
};

/** Former pages that nothing has taken the place of. */
const VANISHED: readonly string[] = [
  ...['Guestbook', 'Webcam', 'Our awards 2009', 'Photo competition', 'Newsletter archive', 'Download our screensaver'],
  ...['Regatta results 2015', 'Regatta results 2016', 'Regatta results 2017', 'Regatta results 2018'],
  ...['Christmas fair 2016', 'Christmas fair 2017', 'Christmas fair 2018', 'Christmas fair 2019'],
  ...['Closed for repairs', 'Slipway flooded again', 'New kettle for the canteen', 'The cat has been found'],
  ...['Minutes of the model club', 'Model club: members', 'Model club: summer outing', 'Model club: for sale'],
  ...['Canteen menu', 'Car sharing', 'Lost property', 'Old timetable 2018', 'Old timetable 2019', 'Exam dates 2019'],
  ...[
    'Flags and signals',
    'Knot of the month: bowline',
    'Knot of the month: sheet bend',
    'Knot of the month: rolling hitch',
  ],
  ...['Supplier list', 'Timber prices 2017', 'Timber prices 2018', 'Weather station', 'Tide clock', 'Ferry strike'],
  ...[
    'Site map',
    'Print this page',
    'Test page',
    'Untitled document',
    'Search help',
    'Best viewed with',
    'Thank you, sponsor',
  ],
];

/** What former pages show: `@ ` a picture with its words, `> ` a document with its name. */
const SHOWN: Readonly<Record<string, readonly string[]>> = {
  'Term by term': [
    '@ /pics/frames.jpg A hull with its frames standing',
    '> /downloads/prospectus.pdf Prospectus of the year course',
  ],
  'The long shed': ['@ /pics/shed.jpg The long shed from the water'],
};

const SUFFIX = ' :: Pellow Quay Boatbuilding School';

/** The school's former website: about 160 pages that grew over the years, and that somebody now has to make sense of. */
export const FORMER_SITE: readonly FormerPage[] = makeFormerSite();

function makeFormerSite(): FormerPage[] {
  const pages: FormerPage[] = [];
  const sections: string[] = [];
  let number = 11;
  const add = (title: string, path: string, description: string, blocks: readonly string[], links: string[] = []) =>
    pages.push({ path, title: title + SUFFIX, description, blocks, links });
  for (const top of PELLOW_QUAY) {
    const pathOf = PATHS[top.title];
    if (!pathOf) continue;
    const first = pages.length;
    const walk = (node: DemoNode) => {
      number += 3;
      if (node.type === 'page' && !NOT_YET.has(node.title) && GATHERED_ON[node.title] === undefined) {
        const former = FORMER_TITLES[node.title] ?? node.title;
        const blocks = [`# ${former}`, ...formerText(node), ...sectionsOn(node), ...(SHOWN[node.title] ?? [])];
        const parts = PARTED[node.title];
        if (parts)
          parts.forEach(([title, path], at) =>
            add(title, path, '', [`# ${title}`, ...formerText(node).slice(at, at + 1), node.options.description ?? '']),
          );
        else add(former, pathOf(former, number), number % 2 === 0 ? (node.options.description ?? '') : '', blocks);
      }
      node.below.forEach(walk);
    };
    walk(top);
    if (pages.length === first) continue;
    // Each course has its page a second time, for paper.
    if (top.title === 'Courses')
      for (const page of pages.slice(first))
        pages.push({
          ...page,
          path: page.path.replace('courses', 'print'),
          links: [],
          blocks: page.blocks.slice(0, 2),
        });
    sections.push(pages[first]!.path);
    pages[first] = { ...pages[first]!, links: pages.slice(first + 1).map((page) => page.path) };
  }
  const archive: string[] = [];
  VANISHED.forEach((title, index) => {
    const path = index % 3 === 0 ? `/archive/${slugFromTitle(title)}.html` : `/page.php?nr=${400 + index * 7}`;
    archive.push(path);
    add(title, path, '', [
      `# ${title}`,
      `This page was last changed in ${2009 + (index % 11)}. It is kept for the record.`,
    ]);
  });
  add(
    'Archive',
    '/archive/',
    '',
    ['# Archive', 'Everything that was once on the front page.'],
    [...archive, '/downloads/prospectus.pdf', '/gone-long-ago.html', '/calendar.php?month=1'],
  );
  pages.unshift({
    path: '/index.html',
    title: 'Welcome' + SUFFIX,
    description: 'The school for wooden boats at Pellow Quay.',
    blocks: ['# Welcome to Pellow Quay', ...PELLOW_QUAY[0]!.text.slice(0, 1)],
    links: [...sections, '/archive/', '/home.html', '/intern/login.php'],
  });
  return pages;
}

/** A former page said a little less, in the same voice. */
function formerText(node: DemoNode): string[] {
  return node.text.filter((block) => !/^(?:##|[@|!?=>]|\[\[|::)/.test(block)).slice(0, 2);
}

function sectionsOn(node: DemoNode): string[] {
  return node.below
    .filter((one) => GATHERED_ON[one.title] === node.title)
    .flatMap((one) => [`## ${one.title}`, ...one.text.slice(0, 1)]);
}

/** A former page as HTML. */
export function formerHtml(page: FormerPage): string {
  const blocks = page.blocks
    .filter((block) => block !== '')
    .map((block) =>
      block.startsWith('## ')
        ? `<h2>${escaped(block.slice(3))}</h2>`
        : block.startsWith('# ')
          ? `<h1>${escaped(block.slice(2))}</h1>`
          : /^[@>] /.test(block)
            ? shown(block)
            : `<p>${escaped(block.replace(/\n- /g, ', ').replace(/\*/g, ''))}</p>`,
    );
  const links = page.links.map((link) => `<li><a href="${escaped(link)}">${escaped(link)}</a></li>`).join('');
  return `<!DOCTYPE html><html><head><meta charset="utf-8"><title>${escaped(page.title)}</title>${
    page.description ? `<meta name="description" content="${escaped(page.description)}">` : ''
  }</head><body><div id="top"><a href="/index.html">Home</a></div>${blocks.join('\n')}<ul>${links}</ul>
<footer><a href="/misc/legal-notice.html">Legal notice</a> | Pellow Quay Boatbuilding School</footer></body></html>`;
}

function shown(block: string): string {
  const [sign, path = '', ...words] = block.split(' ');
  const said = escaped(words.join(' '));
  return sign === '@' ? `<p><img src="${path}" alt="${said}"></p>` : `<p><a href="${path}">${said}</a></p>`;
}

const escaped = (text: string): string =>
  text.replace(/[&<>"]/g, (sign) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[sign]!);

/** How many visits a former page had in a year: few pages have most of them. */
export const formerVisits = (index: number): number => Math.round(24_000 / (1 + ((index * 29) % 160)) ** 0.9);

/** The files of the former website by their paths, from those of the school. */
export async function formerFiles(): Promise<FormerFile[]> {
  const files = new Map((await demoFiles()).map((one) => [one.id, one.bytes]));
  const picture = async (path: string, word: string): Promise<FormerFile> => ({
    path,
    type: 'image/jpeg',
    // As large as pictures were on screens of that time.
    bytes: await sharp(files.get(demoFileId(word)))
      .resize({ width: 640 })
      .jpeg()
      .toBuffer(),
  });
  return [
    await picture('/pics/frames.jpg', 'frames'),
    await picture('/pics/shed.jpg', 'quay'),
    { path: '/downloads/prospectus.pdf', type: 'application/pdf', bytes: files.get(demoFileId('prospectus'))! },
  ];
}

interface FormerFile {
  readonly path: string;
  readonly type: string;
  readonly bytes: Uint8Array;
}
