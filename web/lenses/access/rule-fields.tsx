import { fieldOfMoment, momentOfField } from '../../fields/site-moment.ts';
import type { Finder } from '#core/derive/access.ts';
import type { ClosedLook, HeldBack } from '#core/model/access.ts';
import { MomentField } from '../../fields/day-field.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { Choice } from '../../ui/field.tsx';

/** What those get who may not open a page. */
export function ClosedLookChoice({
  value,
  hint,
  onSet,
}: {
  readonly value: ClosedLook | null;
  readonly hint?: string | undefined;
  readonly onSet: (value: ClosedLook | null) => void;
}) {
  return (
    <Choice
      label="Visitors without access get"
      hint={hint}
      value={value ?? ''}
      onChange={(event) => onSet(event.target.value === '' ? null : (event.target.value as ClosedLook))}
    >
      <option value="">Same as the page above</option>
      <option value="out-of-sight">Nothing: it is out of sight</option>
      <option value="locked">A locked entry and the sign-in page</option>
      <option value="locked-for">The same, saying to whom it is open</option>
    </Choice>
  );
}

/** Whether a finder is kept from a page, or from its branch. */
export function HeldBackChoice({
  finder,
  value,
  onSet,
}: {
  readonly finder: Finder;
  readonly value: HeldBack;
  readonly onSet: (value: HeldBack) => void;
}) {
  const [label, offer] =
    finder === 'search'
      ? ['Site search', 'Found by those who can open it']
      : ['Search engines', 'Offered, if everyone can open it'];
  return (
    <Choice label={label} value={value} onChange={(event) => onSet(event.target.value as HeldBack)}>
      <option value="no">{offer}</option>
      <option value="page">Leave out this page</option>
      <option value="branch">Leave out the branch</option>
    </Choice>
  );
}

/** A moment by the clock of the site; kept in UTC. */
export function Moment({
  label,
  value,
  onSet,
}: {
  readonly label: string;
  readonly value: string | null;
  readonly onSet: (value: string | null) => void;
}) {
  const { timeZone } = useWorkbench().site.settings;
  return (
    <MomentField
      label={label}
      value={value === null ? '' : fieldOfMoment(new Date(value), timeZone)}
      onSet={(moment) => onSet(momentOfField(moment, timeZone)?.toISOString() ?? null)}
    />
  );
}
