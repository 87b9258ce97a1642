import { ClipboardList, Inbox } from 'lucide-react';
import { touchedByTexts } from '#core/derive/touched.ts';
import type { PageId } from '#core/model/ids.ts';
import { isMailAddress } from '#core/model/cut-text.ts';
import {
  type FormId,
  type FormSettings,
  MAX_FORM_BUTTON_LENGTH,
  MAX_FORM_MAILS,
  MAX_FORM_NAME_LENGTH,
  MAX_FORM_THANKS_LENGTH,
  MAX_KEPT_DAYS,
  type SiteForm,
} from '#core/model/site-form.ts';
import { useAnswers } from '../../../api/answers.ts';
import { newFormId } from '../../../api/site-store.ts';
import { DraftField } from '../../../fields/draft-field.tsx';
import { PageField } from '../../../fields/page-field.tsx';
import type { ListKind } from '../../../settings/settings-kind.ts';
import { pages } from '../../../tree/words.ts';
import { Button } from '../../../ui/button.tsx';
import { Tick } from '../../../ui/field.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { FormFields } from './form-fields.tsx';

/** What visitors fill in and send. */
export const FORMS: ListKind = {
  edits: 'write',
  title: 'Forms',
  one: 'form',
  Sign: ClipboardList,
  description:
    'Make a form here, then insert it into the text of any page. What visitors send is kept with the form, whatever happens to the page.',
  placeholder: 'Application',
  longest: MAX_FORM_NAME_LENGTH,
  items: (site) => site.settings.forms,
  says: (site) => (id) => {
    const form = site.settings.forms.find((one) => one.id === id);
    const live = site.liveSettings?.forms.find((one) => one.id === id);
    const count = form?.fields.length ?? 0;
    const says = count === 1 ? '1 field' : `${count} fields`;
    if (count === 0) return { says: '', waits: 'No fields yet' };
    if (!live) return { says, waits: 'Not live yet' };
    return JSON.stringify(live) === JSON.stringify(form) ? { says } : { says, waits: 'Changed since it went live' };
  },
  touched: (_site, { outline }, _id, { textUses }) => (textUses ? touchedByTexts(outline, textUses) : null),
  add: (title) => {
    const form = newFormId();
    return { id: form, edit: { name: 'form.add', form, title } };
  },
  rename: (id, title) => ({ name: 'form.set', form: id as FormId, fields: { title } }),
  remove: (id) => ({ name: 'form.remove', form: id as FormId }),
  Fields: OneForm,
};

function OneForm({ id }: { readonly id: string }) {
  const { site, store } = useWorkbench();
  const form = site.settings.forms.find((one) => one.id === id);
  if (!form) return null;
  const set = (fields: Partial<FormSettings>) => store.apply([{ name: 'form.set', form: form.id, fields }]) === null;
  return (
    <>
      <WhereAndWhat form={form} />
      <FormFields form={form} onSet={(fields) => set({ fields })} />
      <AfterSending form={form} onSet={set} />
    </>
  );
}

/** Where the form stands, and how many have answered. */
function WhereAndWhat({ form }: { readonly form: SiteForm }) {
  const { site, openSetting, setBeside, maySeeAnswers } = useWorkbench();
  const totals = useAnswers(maySeeAnswers ? site.key : null)?.totals;
  const total = totals?.find((one) => one.form === form.id);
  const touched = openSetting?.item.id === form.id ? openSetting.touched : null;
  return (
    <div className="flex flex-col gap-2">
      {touched !== null && (
        <p className="text-small text-quiet">
          {touched.size === 0
            ? 'It is not on any page yet. In the text of a page, choose Insert (Ctrl+Enter), then Form.'
            : `It is on ${pages(touched.size)}. Visitors get changes with the next release.`}
        </p>
      )}
      {maySeeAnswers && totals && (
        <Button className="self-start" onClick={() => setBeside({ kind: 'answers', id: null })}>
          <Inbox size={15} aria-hidden />
          {total ? answersWords(total) : 'No answers yet'}
        </Button>
      )}
    </div>
  );
}

const answersWords = ({ count, fresh }: { readonly count: number; readonly fresh: number }): string =>
  `${count === 1 ? '1 answer' : `${count} answers`}${fresh > 0 ? `, ${fresh} new` : ''}`;

const STAYS = { value: 'stay', words: 'Stay on the page' };

function AfterSending({
  form,
  onSet,
}: {
  readonly form: SiteForm;
  readonly onSet: (fields: Partial<FormSettings>) => boolean;
}) {
  return (
    <section aria-labelledby="after-sending" className="flex flex-col gap-3 border-t border-rule pt-4">
      <h3 id="after-sending" className="font-display text-large font-semibold">
        Sending
      </h3>
      <DraftField
        label="Button"
        saved={form.button}
        longest={MAX_FORM_BUTTON_LENGTH}
        placeholder="Send"
        onSave={(button) => onSet({ button: button.trim() })}
      />
      <PageField
        label="After sending, go to"
        value={form.leadsTo ?? STAYS.value}
        others={[STAYS]}
        onChoose={(next) => onSet({ leadsTo: next === STAYS.value ? null : (next as PageId) })}
      />
      {form.leadsTo === null && (
        <DraftField
          label="Message shown instead of the form"
          isLong
          saved={form.thanks}
          longest={MAX_FORM_THANKS_LENGTH}
          placeholder="Thank you. Your answer has been sent."
          onSave={(thanks) => onSet({ thanks: thanks.trim() })}
        />
      )}
      <MailsField saved={form.mailTo} onSet={(mailTo) => onSet({ mailTo })} />
      {form.mailTo.length > 0 && (
        <Tick
          label="Include the answer in the mail"
          hint="Otherwise the mail only says that there is one, with a link to it."
          checked={form.areMailsWhole}
          onChange={(event) => onSet({ areMailsWhole: event.target.checked })}
        />
      )}
      <DraftField
        label="Delete answers after (days)"
        saved={String(form.keptDays)}
        longest={4}
        hint={`1 to ${MAX_KEPT_DAYS}. Once live, this also applies to answers that are already here.`}
        onSave={(typed) => {
          const days = Number(typed.trim());
          if (Number.isInteger(days) && days >= 1 && days <= MAX_KEPT_DAYS) onSet({ keptDays: days });
        }}
      />
    </section>
  );
}

/** The addresses that are told of answers, a line each; lines that are none are left out. */
function MailsField({
  saved,
  onSet,
}: {
  readonly saved: readonly string[];
  readonly onSet: (mails: string[]) => void;
}) {
  return (
    <DraftField
      label="Notify by mail"
      isLong
      saved={saved.join('\n')}
      longest={MAX_FORM_MAILS * 255}
      placeholder="office@pellow-quay.example"
      hint={`Mail addresses, one per line, up to ${MAX_FORM_MAILS}. Lines that are not addresses are left out.`}
      onSave={(text) => {
        const mails = text
          .split(/[\s,;]+/)
          .map((line) => line.trim())
          .filter(isMailAddress);
        onSet([...new Set(mails)].slice(0, MAX_FORM_MAILS));
      }}
    />
  );
}
