import { X } from 'lucide-react';
import { useState } from 'react';
import { MAX_OLD_ADDRESS_LENGTH, type PagePlan, type PlanChange } from '#core/model/plan.ts';
import { Button, IconButton } from '../../ui/button.tsx';
import { TextField } from '../../ui/field.tsx';

/** The addresses of the old site that the page takes the place of; each becomes a redirect when the page goes live. */
export function OldAddresses({
  plan,
  onSet,
}: {
  readonly plan: PagePlan;
  readonly onSet: (change: PlanChange) => void;
}) {
  const [typed, setTyped] = useState('');
  const add = () => {
    const addresses = typed.split(/\s+/).filter(Boolean);
    if (addresses.length > 0) onSet({ oldAddresses: [...plan.oldAddresses, ...addresses] });
    setTyped('');
  };
  return (
    <section aria-label="Old addresses" className="flex flex-col gap-1">
      <h3 className="text-small font-medium">Old addresses</h3>
      {plan.oldAddresses.length > 0 && (
        <ul>
          {plan.oldAddresses.map((address) => (
            <li key={address} className="flex items-center gap-1 border-b border-rule/60 last:border-0">
              <span className="min-w-0 flex-1 font-mono text-small break-all">{address}</span>
              <IconButton
                name={`Remove ${address}`}
                onClick={() => onSet({ oldAddresses: plan.oldAddresses.filter((one) => one !== address) })}
              >
                <X size={15} aria-hidden />
              </IconButton>
            </li>
          ))}
        </ul>
      )}
      <form
        className="flex items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          add();
        }}
      >
        <div className="min-w-0 flex-1">
          <TextField
            label="Another one"
            placeholder="/courses.php?id=3"
            maxLength={MAX_OLD_ADDRESS_LENGTH}
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
          />
        </div>
        <Button type="submit" disabled={typed.trim() === ''}>
          Add
        </Button>
      </form>
      <p className="text-small text-quiet">Each redirects here once the page is live.</p>
    </section>
  );
}
