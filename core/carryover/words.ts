/** Words that say nothing about what a page is about. */
const EMPTY = new Set(
  (
    'a an and are as at be by can do for from get has have how i if in into is it its me my no not of off on or our out so ' +
    'that the their them then there these they this to up us was we what when where which who will with you your ' +
    'www http https html htm php asp aspx jsp cgi index default page pages home main site website web welcome id nr'
  ).split(' '),
);

/** Words that sites use for the same page, each group one meaning: trade knowledge, not tuned to any set. */
const SAME: readonly string[] = [
  'contact reach enquiry',
  'fee price cost charge tariff tuition subscription',
  'staff team people personnel',
  'job vacancy career recruitment employment',
  'apply application admission enrolment joining',
  'privacy data protection gdpr',
  'imprint legal publisher',
  'news latest current headline',
  'event calendar diary programme whatson',
  'faq question',
  'direction map route finding location',
  'history past origin',
  'hours opening time',
  'access accessibility disabled wheelchair',
  'press media journalist',
  'donate gift giving donation',
  'member membership join',
  'gallery photo picture image',
  'shop store',
  'restaurant canteen cafe lunch meal eating',
  'hire rent letting rental charter',
  'event happening',
  'complaint grievance',
  'download document file',
  'timetable schedule',
  'holiday leave vacation',
  'policy rule regulation',
  'course class lesson training learning',
  'visit visitor guest',
  'sitemap overview',
  'link elsewhere',
  'newsletter mailing subscribe',
  'support help assistance',
  'partner sponsor',
  'lodging accommodation hostel',
  'facility building premises ground',
  'abroad international overseas foreign',
  'bursary scholarship grant award',
  'volunteer volunteering',
  'board governor trustee committee',
];

/** Phrases of small words that sites use for one thing, and the word that stands for it. */
const PHRASES: readonly (readonly [RegExp, string])[] = [
  [/\bwho we are\b/g, 'about'],
  [/\b(get in touch|reach us|write to us|talk to us)\b/g, 'contact'],
  [/\b(how to )?(find|get to) us\b|\b(getting|get|how to get) here\b|\bwhere we are\b/g, 'direction'],
  [/\bwhat'?s on\b/g, 'event'],
  [/\bwhat'?s new\b/g, 'news'],
  [/\bwork (with|for) us\b|\bwork here\b|\bjoin (the|our) team\b/g, 'job'],
  [/\bwhat it costs\b/g, 'price'],
  [/\b(where to|places to) stay\b/g, 'lodging'],
  [/\bhow to apply\b/g, 'apply'],
];

/** A word without its usual endings, so that forms of one word are one. Made for English; other languages lose little. */
export function stem(word: string): string {
  if (word.length <= 3 || /\d/.test(word)) return word;
  let root = word;
  if (/ies$/.test(root) && root.length > 4) root = root.slice(0, -3) + 'y';
  else if (/(ss|us|is)$/.test(root)) return root;
  else if (/(ches|shes|sses|xes|zes)$/.test(root)) root = root.slice(0, -2);
  else if (/s$/.test(root)) root = root.slice(0, -1);
  if (/ing$/.test(root) && root.length > 5) root = root.slice(0, -3);
  else if (/ed$/.test(root) && root.length > 4) root = root.slice(0, -2);
  if (/e$/.test(root) && root.length > 4) root = root.slice(0, -1);
  return /([bdglmnprt])\1$/.test(root) ? root.slice(0, -1) : root;
}

const meaningOf = new Map<string, string>();
for (const group of SAME) {
  const words = group.split(' ').map(stem);
  for (const word of words) if (!meaningOf.has(word)) meaningOf.set(word, words[0]!);
}

/** A text in small letters without accents. */
const plain = (text: string): string =>
  text
    .normalize('NFKD')
    .replace(/\p{M}+/gu, '')
    .toLowerCase();

const stemmed = new Map<string, string>();
const MAX_KEPT = 100_000;

/** The words of a text that say something, in their order, as stems; those that mean the same are the same. */
export function wordsOf(text: string): string[] {
  const found: string[] = [];
  // Words that were written in one, as in `OpeningHours`, come apart.
  let said = plain(text.replace(/(\p{Ll})(\p{Lu})/gu, '$1 $2'))
    .replace(/[-_+]/g, ' ')
    .replace(/’/g, "'");
  for (const [phrase, word] of PHRASES) said = said.replace(phrase, word);
  for (const word of said.split(/[^\p{L}\p{N}]+/u)) {
    if (word === '' || EMPTY.has(word)) continue;
    let root = stemmed.get(word);
    if (root === undefined) {
      root = stem(word);
      root = meaningOf.get(root) ?? root;
      if (stemmed.size >= MAX_KEPT) stemmed.clear();
      stemmed.set(word, root);
    }
    found.push(root);
  }
  return found;
}

/** The letters and digits of a text in one, in small letters without accents. */
export const lettersOf = (text: string): string => plain(text).replace(/[^\p{L}\p{N}]+/gu, '');

/** The groups of three letters of a text, with its ends marked: what typing mistakes leave the same. */
export function trigramsOf(text: string): string[] {
  const padded = ` ${plain(text)
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim()} `;
  const found: string[] = [];
  for (let at = 0; at + 3 <= padded.length; at++) found.push(padded.slice(at, at + 3));
  return found;
}
