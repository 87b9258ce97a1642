import { ShieldCheck } from 'lucide-react';
import { SecurityLog } from '../../../account/security-log.tsx';
import { wordsOfFault } from '../../../api/client.ts';
import { setSiteSecurity, useSecurityLog, useSiteSecurity } from '../../../api/people.ts';
import type { WholeKind } from '../../../settings/settings-kind.ts';
import { Tick } from '../../../ui/field.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { toast } from '../../../ui/toast.ts';

/** How safely colleagues sign in, and what has concerned security, apart from the edits. */
export const SECURITY: WholeKind = {
  title: 'Security',
  Sign: ShieldCheck,
  description:
    'How colleagues sign in, and what has happened: sign-ins, roles, invitations, exports. Edits are in the history.',
  needs: 'people',
  Whole: Security,
};

function Security() {
  const { site, may } = useWorkbench();
  const security = useSiteSecurity(site.key);
  const entries = useSecurityLog(site.key);
  if (!security || !entries) return <p className="text-quiet">Loading …</p>;
  const { needsSecondStep, without } = security;
  return (
    <div className="flex flex-col gap-4">
      <Tick
        label="Ask all colleagues for a second step"
        hint={
          without.length === 0
            ? 'Everybody who may open this site signs in with a passkey or one-time codes.'
            : `${without.join(', ')} ${without.length === 1 ? 'signs' : 'sign'} in with a password alone, and ${needsSecondStep ? 'cannot open the site until that changes' : 'could not open the site any more'}.`
        }
        checked={needsSecondStep}
        disabled={!may('everything', null)}
        onChange={() =>
          void setSiteSecurity(site.key, !needsSecondStep).catch((fault: unknown) => toast.error(wordsOfFault(fault)))
        }
      />
      <h3 className="border-t border-rule pt-4 font-display text-large font-semibold">What happened</h3>
      <SecurityLog entries={entries} />
    </div>
  );
}
