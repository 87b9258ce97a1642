import { useMedia } from '../ui/use-media.ts';

/** Where the tree would be left with a few rows, bars fold: on telephones, on short screens, and on middling ones that are short. */
const COMPACT = '(max-width: 767px), (max-height: 480px), (max-width: 1023px) and (max-height: 700px)';
const NARROW = '(max-width: 767px)';

/** Whether bars fold into one line; `compact:` in class names says the same below the workbench. */
export const useCompact = (): boolean => useMedia(COMPACT);

/** Whether there is room for one sheet alone, so that the side sheet takes the place of the tree. */
export const useNarrow = (): boolean => useMedia(NARROW);
