import { type ReactNode, useMemo } from 'react';
import type { PageId } from '#core/model/ids.ts';
import type { Permission } from '#core/model/permission.ts';
import { forbiddenWords } from '#core/people/forbidden.ts';
import { type Workbench, WorkbenchProvider, useWorkbench } from './workbench-context.tsx';

/**
 * What stands inside can be changed by whoever holds a permission there (`mayEdit`); others are told why not, unless the tree
 * as it was is looked at, or everybody who comes here holds nothing at all, such as guests of a plan.
 * @param at the page, or null for the whole site, or anywhere
 */
export function Allowing({
  permission,
  at,
  isQuiet = false,
  children,
}: {
  readonly permission: Permission;
  readonly at: PageId | null | 'somewhere';
  /** Says nothing where it is not allowed. */
  readonly isQuiet?: boolean;
  readonly children: ReactNode;
}) {
  const workbench = useWorkbench();
  const mayEdit = workbench.may(permission, at);
  const inside = useMemo<Workbench>(() => ({ ...workbench, mayEdit }), [workbench, mayEdit]);
  return (
    <WorkbenchProvider value={inside}>
      {!mayEdit && !isQuiet && <WhyNot permission={permission} at={at === 'somewhere' ? null : at} />}
      {children}
    </WorkbenchProvider>
  );
}

/** Why what stands below cannot be changed here. */
export function WhyNot({ permission, at }: { readonly permission: Permission; readonly at: PageId | null }) {
  const { site, powers, past, guest } = useWorkbench();
  if (past !== null || guest !== null) return null;
  return (
    <p role="note" className="mb-3 rounded-sm bg-sunken px-2 py-1 text-small text-quiet">
      {forbiddenWords(powers, { permission, at, site })}
    </p>
  );
}

/**
 * Fields of a page that need a permission of their own beside what the rest of the sheet needs: disabled, with the reason, for whoever
 * does not hold it.
 */
export function PermittedFields({
  permission,
  page,
  children,
}: {
  readonly permission: Permission;
  readonly page: PageId;
  readonly children: ReactNode;
}) {
  const { site, powers, may, past } = useWorkbench();
  const isPermitted = may(permission, page);
  const reason = isPermitted || past !== null ? undefined : forbiddenWords(powers, { permission, at: page, site });
  return (
    <Allowing permission={permission} at={page} isQuiet>
      <fieldset disabled={!isPermitted} title={reason} aria-description={reason} className="contents">
        {children}
      </fieldset>
    </Allowing>
  );
}
