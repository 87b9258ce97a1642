import { X } from 'lucide-react';
import { useMemo } from 'react';
import type { PagePlan, PlanChange } from '#core/model/plan.ts';
import { useOldSite } from '../../api/old-site.ts';
import { IconButton } from '../../ui/button.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { OldPageField } from './carry-over/old-page-field.tsx';

/** The addresses of the old site that the page takes the place of; each becomes a redirect when the page goes live. */
export function OldAddresses({
  plan,
  onSet,
}: {
  readonly plan: PagePlan;
  readonly onSet: (change: PlanChange) => void;
}) {
  const { site } = useWorkbench();
  const pages = useOldSite(site.key)?.pages;
  const unused = useMemo(
    () => (pages ?? []).filter(({ address }) => !plan.oldAddresses.includes(address)),
    [pages, plan.oldAddresses],
  );
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
      <OldPageField
        label="Another one"
        pages={unused}
        mayBeTyped
        onChoose={(typed) => onSet({ oldAddresses: [...plan.oldAddresses, ...typed.split(/\s+/).filter(Boolean)] })}
      />
      <p className="text-small text-quiet">Each redirects here once the page is live.</p>
    </section>
  );
}
