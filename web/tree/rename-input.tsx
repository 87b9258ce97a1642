import type { PageId } from '#core/model/ids.ts';
import type { Workbench } from '../workbench/workbench-context.tsx';
import { TitleInput } from './title-input.tsx';

/** A title being changed in place; the trail strip shows meanwhile what that changes. */
export function RenameInput({
  page,
  title,
  latest,
}: {
  readonly page: PageId;
  readonly title: string;
  readonly latest: () => Workbench;
}) {
  const fields = (text: string) => ({ title: { [latest().site.settings.language]: text } });
  const end = () => {
    latest().setPreview('rename', null);
    latest().setEditing(null);
  };
  const rename = (text: string) => {
    if (text.trim() !== '' && text.trim() !== title)
      latest().store.apply([{ name: 'page.set', page, fields: fields(text) }]);
    end();
  };
  return (
    <TitleInput
      label={`New title of ${title}`}
      start={title}
      onTyping={(text) =>
        latest().setPreview(
          'rename',
          text.trim() === '' || text.trim() === title ? null : [{ name: 'page.set', page, fields: fields(text) }],
        )
      }
      onEnter={(text) => {
        rename(text);
        latest().focusTree();
      }}
      onLeave={rename}
      onCancel={() => {
        end();
        latest().focusTree();
      }}
    />
  );
}
