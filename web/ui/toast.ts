import type { ExternalToast, toast as sonner } from 'sonner';
import { alsoLater } from './later.tsx';

type Teller = typeof sonner;

const waiting: ((teller: Teller) => void)[] = [];
let placed: Promise<Teller> | null = null;

/** Fetches what shows messages, once; where that fails, with the next message, which the ones before it precede. */
function place(): Promise<Teller> {
  placed ??= import('./messages.tsx').then((file) => file.placeMessages());
  placed.catch(() => (placed = null));
  return placed;
}
alsoLater(place);

function tell(say: (teller: Teller) => void): void {
  waiting.push(say);
  void place().then(
    (teller) => waiting.splice(0).forEach((one) => one(teller)),
    () => undefined,
  );
}

/** Tells something in a corner for a few seconds. What shows it is fetched after the first rows, or with the first message. */
export const toast = Object.assign((words: string, how?: ExternalToast) => tell((teller) => teller(words, how)), {
  success: (words: string, how?: ExternalToast) => tell((teller) => teller.success(words, how)),
  warning: (words: string, how?: ExternalToast) => tell((teller) => teller.warning(words, how)),
  error: (words: string, how?: ExternalToast) => tell((teller) => teller.error(words, how)),
});
