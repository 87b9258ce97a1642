import { type ReactNode, useState } from 'react';
import { useParams } from 'react-router';
import { ServerProblem, wordsOfFault } from '../api/client.ts';
import { givePassphrase, useSharedPlan, useSharedTree } from '../api/shared-plan.ts';
import { EntryFrame } from '../pages/entry-frame.tsx';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { SharedScreen } from './shared-screen.tsx';

/** What a link to a plan leads to: the plan, or the reason why it is not shown. */
export function SharedPage() {
  const { token = '' } = useParams();
  const { plan, fault } = useSharedPlan(token);
  const site = useSharedTree(token, plan?.revision);
  if (fault instanceof ServerProblem) {
    const { code, title, detail } = fault.problem;
    return (
      <EntryFrame title={title} lead={detail}>
        {code === 'share-locked' && <Passphrase token={token} />}
      </EntryFrame>
    );
  }
  if (!plan || !site) return <Waiting>{fault ? wordsOfFault(fault) : 'Opening the plan …'}</Waiting>;
  return <SharedScreen token={token} plan={plan} site={site} />;
}

const Waiting = ({ children }: { readonly children: ReactNode }) => <p className="p-6 text-quiet">{children}</p>;

function Passphrase({ token }: { readonly token: string }) {
  const [typed, setTyped] = useState('');
  const [fault, setFault] = useState<string>();
  const [isSending, setSending] = useState(false);
  return (
    <form
      className="flex flex-col gap-4"
      onSubmit={(event) => {
        event.preventDefault();
        setSending(true);
        void givePassphrase(token, typed)
          .catch((problem: unknown) => setFault(wordsOfFault(problem)))
          .finally(() => setSending(false));
      }}
    >
      <TextField
        label="Passphrase"
        type="password"
        autoComplete="off"
        value={typed}
        fault={fault}
        onChange={(event) => setTyped(event.target.value)}
      />
      <Button type="submit" look="main" disabled={typed === '' || isSending} className="h-10 self-start">
        Look at the plan
      </Button>
    </form>
  );
}
