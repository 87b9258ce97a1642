import type { Side } from '#core/arrange/landing.ts';
import type { PageId } from '#core/model/ids.ts';
import { maybeNodeAt } from '#core/model/site.ts';
import { PageField } from '../fields/page-field.tsx';
import { SIDES } from '../tree/words.ts';
import { Radios } from '../ui/field.tsx';
import { useWorkbench } from '../workbench/workbench-context.tsx';

const AT_TOP = { value: 'top', words: 'The end of the top level' };

/** Chooses where something lands: beside or inside a page, at first the selected one, or at the end of the top level (null). */
export function PlaceChoice({
  page,
  side,
  onPage,
  onSide,
}: {
  readonly page: PageId | null;
  readonly side: Side;
  readonly onPage: (page: PageId | null) => void;
  readonly onSide: (side: Side) => void;
}) {
  const { site } = useWorkbench();
  const node = page === null ? undefined : maybeNodeAt(site, page);
  return (
    <div className="grid items-start gap-3 sm:grid-cols-2">
      <PageField
        label="Place"
        value={node ? node.id : AT_TOP.value}
        others={[AT_TOP]}
        onChoose={(value) => onPage(value === AT_TOP.value ? null : (value as PageId))}
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
