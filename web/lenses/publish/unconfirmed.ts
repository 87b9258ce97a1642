import { toast } from '../../ui/toast.ts';

/** Says that some of the processes that answer visitors have not confirmed what was just changed. */
export function warnOfUnconfirmed(processes: number): void {
  if (processes === 0) return;
  const who = processes === 1 ? 'One of the servers for visitors has' : `${processes} of the servers for visitors have`;
  toast.warning(`It is saved. ${who} not confirmed it yet and may still show what visitors had before.`);
}
