import { useState } from 'react';
import { pageLink, pageOfLink } from '#core/model/content.ts';
import type { PageId } from '#core/model/ids.ts';
import { linkSchema } from '#core/sections/link.ts';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { DraftField } from '../draft-field.tsx';
import { PageField } from '../page-field.tsx';
import { type SettingsProps, editorPart } from './editor-part.ts';

export const BUTTON_PART = editorPart('button', LeadsTo);

const OUTSIDE = { value: 'outside', words: 'An outside address' };

function LeadsTo({ attributes: { to }, set }: SettingsProps<{ readonly to: string }>) {
  const { derived } = useWorkbench();
  const page = pageOfLink(to);
  const [isOutside, setOutside] = useState(to !== '' && page === null);
  const [fault, setFault] = useState<string | null>(null);
  return (
    <>
      <PageField
        label="Leads to"
        value={isOutside ? OUTSIDE.value : (page ?? '')}
        placeholder="Choose a page"
        others={[OUTSIDE]}
        isOffered={(row) => derived.outline.nodes[row]!.type === 'page'}
        onChoose={(next) => {
          setOutside(next === OUTSIDE.value);
          if (next !== OUTSIDE.value) set({ to: pageLink(next as PageId) });
        }}
      />
      {isOutside && (
        <DraftField
          label="Address"
          saved={page === null ? to : ''}
          longest={2000}
          placeholder="https://"
          hint={fault ?? 'Starts with https://, mailto: or tel:'}
          onSave={(address) => {
            const { data, error } = linkSchema.safeParse(address.trim());
            setFault(error ? error.issues[0]!.message : null);
            if (data !== undefined) set({ to: data });
          }}
        />
      )}
    </>
  );
}
