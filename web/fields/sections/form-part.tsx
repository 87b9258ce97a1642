import type { ReactNodeViewProps } from '@tiptap/react';
import { FIELD_TYPE } from '#core/fields/all-types.ts';
import { stepsOf } from '#core/forms/reading.ts';
import type { FormField, FormId, SiteForm } from '#core/model/site-form.ts';
import { FORM } from '#core/sections/form.ts';
import { newFormId } from '../../api/site-store.ts';
import { Button } from '../../ui/button.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { OF_THE_DESK } from '../page-look.ts';
import { type SettingsProps, editorPart } from './editor-part.ts';
import { ChooseOne, SettingPlace, WhichOne } from './setting-place.tsx';

export const FORM_PART = editorPart(FORM.type, WhichForm);

function WhichForm({ attributes: { of }, set }: SettingsProps<{ readonly of: FormId | null }>) {
  const { site, setBeside } = useWorkbench();
  const form = site.settings.forms.find(({ id }) => id === of);
  if (!form) return null;
  return (
    <div className="flex w-full flex-wrap items-end gap-2">
      <WhichOne label="Which form" value={form.id} all={site.settings.forms} onChoose={(next) => set({ of: next })} />
      <Button onClick={() => setBeside({ kind: 'forms', id: form.id })}>Edit its fields…</Button>
    </div>
  );
}

/** A form where a page shows it: what it asks for, to be seen alone. */
export function FormView({ node, selected, editor, getPos, updateAttributes }: ReactNodeViewProps) {
  const { site, store, setBeside } = useWorkbench();
  const { of } = node.attrs as { readonly of: FormId | null };
  const { forms } = site.settings;
  const form = forms.find(({ id }) => id === of);
  const words = form
    ? `Form: ${form.name}`
    : of === null
      ? 'Form'
      : 'This form was removed. Visitors see nothing here.';
  const make = () => {
    const id = newFormId();
    if (store.apply([{ name: 'form.add', form: id, title: 'Form' }]) !== null) return;
    updateAttributes({ of: id });
    setBeside({ kind: 'forms', id });
  };
  return (
    <SettingPlace words={words} isMissing={!form && of !== null} selected={selected} editor={editor} getPos={getPos}>
      {of === null && editor.isEditable && (
        <ChooseOne
          label="Which form"
          all={forms}
          newOne="Make a new one…"
          onChoose={(id) => updateAttributes({ of: id })}
          onMake={make}
        />
      )}
      {form && <WhatItAsks form={form} />}
    </SettingPlace>
  );
}

/** The fields of a form by their steps, as a list: what each looks like is seen in the walk. */
function WhatItAsks({ form }: { readonly form: SiteForm }) {
  if (form.fields.length === 0)
    return <p className={`${OF_THE_DESK} text-quiet`}>It has no fields yet, so visitors do not see it.</p>;
  return (
    <div className={`${OF_THE_DESK} flex flex-col gap-2 py-1`}>
      {stepsOf(form.fields).map(({ heading, fields }, at) => (
        <div key={at}>
          {heading !== null && <p className="font-semibold">{heading}</p>}
          <ul className="flex flex-col gap-1">
            {fields.map((field) => (
              <li key={field.id} className="rounded-md border border-rule bg-raised px-2.5 py-1">
                <span className="font-medium">{field.name}</span>{' '}
                <span className="text-small text-quiet">{saysOf(field)}</span>
              </li>
            ))}
          </ul>
        </div>
      ))}
    </div>
  );
}

const saysOf = ({ type, isRequired, shownIf }: FormField): string =>
  [FIELD_TYPE[type].name, isRequired && 'required', shownIf && 'conditional'].filter(Boolean).join(' · ');
