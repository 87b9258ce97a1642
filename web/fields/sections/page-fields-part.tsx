import type { ReactNodeViewProps } from '@tiptap/react';
import { FIELD_TYPE } from '#core/fields/all-types.ts';
import { detailOf, fieldsFor } from '#core/fields/values.ts';
import { ruleOf } from '#core/model/access.ts';
import { maybeNodeAt } from '#core/model/site.ts';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { useFieldContext } from '../details/use-field-context.ts';
import { OF_THE_DESK } from '../page-look.ts';
import { useTextOfKind } from '../text-of-kind.ts';
import { SettingPlace } from './setting-place.tsx';

/** The fields of a page where its text has them; in the outline of a kind, those that each of its pages has. */
export function PageFieldsView({ selected, editor, getPos }: ReactNodeViewProps) {
  const { site, selection } = useWorkbench();
  const kind = useTextOfKind();
  const context = useFieldContext();
  const { labels } = site.settings;
  const node = kind === null && selection.active !== null ? maybeNodeAt(site, selection.active) : undefined;
  const fields = fieldsFor(kind === null ? ruleOf(node ?? { access: null }).labels : [kind], labels).filter(
    ({ isForVisitors }) => isForVisitors,
  );
  const said = (field: (typeof fields)[number]): string => {
    const value = node ? detailOf(node.details, field, context) : null;
    if (value === null) return node ? 'nothing yet' : FIELD_TYPE[field.type].name.toLowerCase();
    return FIELD_TYPE[field.type].words(value, field, context);
  };
  return (
    <SettingPlace
      words="Fields of the page"
      says={
        fields.length === 0
          ? 'Fields of the page: its kind has none, so visitors see nothing here.'
          : 'Fields of the page'
      }
      isMissing={false}
      selected={selected}
      editor={editor}
      getPos={getPos}
    >
      <dl className={`${OF_THE_DESK} grid grid-cols-[auto_1fr] gap-x-4 gap-y-1 py-1`}>
        {fields.map((field) => (
          <div key={field.id} className="col-span-2 grid grid-cols-subgrid">
            <dt className="font-medium">{field.name}</dt>
            <dd className="text-quiet">{said(field)}</dd>
          </div>
        ))}
      </dl>
    </SettingPlace>
  );
}
