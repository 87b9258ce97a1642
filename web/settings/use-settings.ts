import { laterValue } from '../ui/later.tsx';

/** Everything that stands beside the tree, by its name in the address bar; null until its scripts are here. */
export const useSettings = laterValue(() => import('./all-settings.ts').then(({ SETTINGS }) => SETTINGS));
