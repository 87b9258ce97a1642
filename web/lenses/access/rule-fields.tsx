import { format, parseISO } from 'date-fns';
import type { Finder } from '#core/derive/access.ts';
import type { ClosedLook, HeldBack } from '#core/model/access.ts';
import { MomentField } from '../../fields/day-field.tsx';
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

/** A moment by the clock of where the person is; kept in UTC. */
export function Moment({
  label,
  value,
  onSet,
}: {
  readonly label: string;
  readonly value: string | null;
  readonly onSet: (value: string | null) => void;
}) {
  return (
    <MomentField
      label={label}
      value={value === null ? '' : format(parseISO(value), "yyyy-MM-dd'T'HH:mm")}
      onSet={(moment) => onSet(moment === '' ? null : new Date(moment).toISOString())}
    />
  );
}
