import type { TextFault } from '../sections/text-faults.ts';
import { type PageCheck, rowsThatLack } from './page-check.ts';

/** A check of what stands in texts: they were looked through where they are kept. */
const ofText = (fault: TextFault, called: string, says: string): PageCheck => ({
  called,
  words: () => says,
  find: ({ derived, read, textFaults }) => {
    const pages = new Set(textFaults.flatMap((one) => (one.fault === fault ? [one.page] : [])));
    return pages.size === 0 ? [] : rowsThatLack(read, (row) => pages.has(derived.outline.nodes[row]!.id));
  },
});

export const emptyHeading = ofText(
  'empty heading',
  'Empty heading',
  'A heading in its text has no words. Write some, or make it a line of text.',
);
export const skippedHeading = ofText(
  'skipped heading',
  'Skipped heading',
  'A heading in its text is more than one level below the one before. Readers by ear go from level to level.',
);
export const linkWords = ofText(
  'link words',
  'Link words',
  'The words of a link in its text, such as ‘here’ or ‘read more’, do not say where it leads. Name the page or what is there.',
);
export const tableHeader = ofText(
  'table header',
  'Table header',
  'A table in its text has no header. Make the first row or the first column one.',
);
export const idleButton = ofText('button', 'Idle button', 'A button in its text leads nowhere yet. Choose where.');
export const noAlternative = ofText(
  'alternative',
  'Picture without words',
  'A picture in its text has no words for those who do not see it. Say what it shows, or mark it as decoration.',
);
export const noSubtitles = ofText(
  'subtitles',
  'Film without subtitles',
  'A film in its text has no subtitles. Add them to the library as a WebVTT file, and choose them for the film.',
);
export const noFile = ofText(
  'no file',
  'File missing',
  'A place in its text shows nothing: no file was chosen for it, or the library has it no more.',
);
export const noShared = ofText(
  'no shared',
  'Shared section missing',
  'A place in its text shows nothing: no shared section was chosen for it, or the section was removed.',
);
export const noForm = ofText(
  'no form',
  'Form missing',
  'A place in its text shows nothing: no form was chosen for it, or the form was removed.',
);
export const unnamedFrame = ofText(
  'frame',
  'Frame without a name',
  'An outside frame in its text has no address, or does not say what it shows.',
);
export const leftOut = ofText(
  'left out',
  'HTML left out',
  'HTML in its text has elements that visitors do not get, such as programs, styles, forms or headings.',
);
export const unwritten = ofText(
  'unwritten',
  'Planned section not written',
  'A section that its sketch planned says nothing yet. Write it, or remove it from the text.',
);
export const largeFile = ofText(
  'large file',
  'Large file',
  'A document in its text is larger than 15 MB, which takes a minute on a slow line. Make it smaller.',
);
