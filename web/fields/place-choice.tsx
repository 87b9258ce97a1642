import type { PageId } from '#core/model/ids.ts';
import type { Side } from '#core/model/place.ts';
import { maybeNodeAt } from '#core/model/site.ts';
import { SIDES } from '../tree/words.ts';
import { Radios } from '../ui/field.tsx';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { PageField } from './page-field.tsx';

const AT_TOP = { value: 'top', words: 'The end of the top level' };
const STAYS = { value: 'stays', words: 'Where it stands now' };
const TOP_ALONE = [AT_TOP];
const BOTH = [STAYS, AT_TOP];

interface PlaceChoiceProps<Place extends PageId | null | undefined> {
  /** The page that the place is seen from; null for the end of the top level, undefined for where it stands now. */
  readonly page: Place;
  readonly side: Side;
  readonly onPage: (page: Place) => void;
  readonly onSide: (side: Side) => void;
  readonly isOffered?: (row: number, page: PageId) => boolean;
  /** Whether it may stay where it stands. */
  readonly mayStay?: undefined extends Place ? true : never;
}

/** Chooses where something lands: beside or inside a page, at first the selected one, or at the end of the top level. */
export function PlaceChoice<Place extends PageId | null | undefined = PageId | null>({
  page,
  side,
  onPage,
  onSide,
  isOffered,
  mayStay,
}: PlaceChoiceProps<Place>) {
  const { site } = useWorkbench();
  const node = page ? maybeNodeAt(site, page) : undefined;
  const other = page === undefined ? STAYS : AT_TOP;
  const choose = (value: string) =>
    onPage((value === STAYS.value ? undefined : value === AT_TOP.value ? null : (value as PageId)) as Place);
  return (
    <div className="grid items-start gap-3 sm:grid-cols-2">
      <PageField
        label="Place"
        value={node ? node.id : other.value}
        others={mayStay ? BOTH : TOP_ALONE}
        isOffered={isOffered}
        onChoose={choose}
      />
      {node && (
        <Radios
          legend="Where, relative to it"
          choices={SIDES.filter((one) => one.value !== 'inside' || node.type !== 'link')}
          value={side}
          onChoose={onSide}
        />
      )}
    </div>
  );
}
