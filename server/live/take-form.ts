import type { Said } from '#core/forms/answer.ts';
import { nodeAt } from '#core/model/site.ts';
import { type FormId, type SiteForm, formIdSchema } from '#core/model/site-form.ts';
import { textIn } from '#core/model/texts.ts';
import { HTML, NO_INDEX, NO_STORE } from './answer-headers.ts';
import { LATEST_MS, QUICKEST_MS, makeStamp, readStamp } from './form-stamp.ts';
import { SENT_QUERY } from './forms.ts';
import { type PostedForm, checkAnswer } from './given-answer.ts';
import type { Html } from './html.ts';
import { type GivenForm, type LiveView, isOpenAt, pathOf } from './live-view.ts';
import { ReadyAnswer } from './ready-answer.ts';
import { siteWords } from './site-words.ts';

/** A form that was sent and accepted: what is to be kept of it, and where its sender goes on to. */
export interface AcceptedForm {
  readonly form: SiteForm;
  readonly siteName: string;
  readonly pageTitle: string;
  readonly said: readonly Said[];
  readonly to: string;
}

/** What becomes of a form that was sent: it is accepted, or its page comes again with what is wrong. */
export type TakenForm = { readonly accepted: AcceptedForm } | { readonly again: ReadyAnswer };

/** What a form that was sent is held against. */
export interface FormTaking {
  /** The site as whoever sent it has it now. */
  readonly view: LiveView;
  /** The number of the release that visitors have. */
  readonly release: number;
  /** What forms are signed with. */
  readonly secret: string;
  /** The page of a row, with a form as it was sent, and the forms that stand on it. */
  readonly pageWith: (
    row: number,
    given: GivenForm | null,
  ) => Promise<{ readonly html: Html; readonly shown: ReadonlySet<FormId> }>;
}

/**
 * Holds a form that was sent against what visitors have: whether it stands on a page that whoever sent it can open, and whether all
 * is said as it asks. Gives undefined where there is no such form.
 * @param tooMany in how many minutes it can be sent, where too many came from its sender's network; else null
 */
export async function takeForm(
  { view, release, secret, pageWith }: FormTaking,
  id: FormId,
  posted: PostedForm,
  tooMany: number | null,
): Promise<TakenForm | undefined> {
  const { site, derived, at } = view;
  const form = site.settings.forms.find((one) => one.id === id);
  const row = derived.outline.rowOf.get(posted.page);
  const address = row === undefined ? null : (derived.addresses[row] ?? null);
  if (!form || row === undefined || address === null || !isOpenAt(view, row)) return undefined;

  const { faults, said } = checkAnswer(view, form, posted, release);
  const shownAt = readStamp(secret, site.key, id, posted.stamp);
  const isLate = shownAt === null || at - shownAt > LATEST_MS || shownAt > at;
  const words = siteWords(site.settings.language).form;
  const notice =
    tooMany !== null
      ? words.tooMany(tooMany)
      : posted.trap !== ''
        ? words.filledTrap
        : isLate
          ? words.late
          : faults.size === 0 && at - shownAt < QUICKEST_MS
            ? words.quick
            : '';
  const isAccepted = notice === '' && faults.size === 0;
  const given: GivenForm = {
    form: id,
    isAccepted: false,
    stamp: isLate ? makeStamp(secret, site.key, id, at) : posted.stamp,
    sent: posted.sent,
    faults,
    notice,
    isTrapped: posted.trap !== '',
  };
  const { html, shown } = await pageWith(row, isAccepted ? null : given);
  if (!shown.has(id)) return undefined;
  if (!isAccepted)
    return { again: new ReadyAnswer(tooMany === null ? 422 : 429, HTML, html.text, [...NO_STORE, ...NO_INDEX]) };
  const { name: siteName, language } = site.settings;
  const pageTitle = textIn(nodeAt(site, posted.page).title, language);
  return { accepted: { form, siteName, pageTitle, said, to: goesOnTo(view, form, address) } };
}

/** Where whoever sent a form goes on to: the page that it names, if they can open it, else where it stands. */
function goesOnTo(view: LiveView, { id, leadsTo }: SiteForm, address: string): string {
  const row = leadsTo === null ? undefined : view.derived.outline.rowOf.get(leadsTo);
  const to = row === undefined || !isOpenAt(view, row) ? null : view.derived.addresses[row]!;
  return to === null ? `${pathOf(view.place, address)}?${SENT_QUERY}=${id}#form-${id}` : pathOf(view.place, to);
}

/** The form that a query says was accepted; null where it says nothing of that. */
export function acceptedIn(query: string): GivenForm | null {
  if (!query.includes(`${SENT_QUERY}=`)) return null;
  const form = formIdSchema.safeParse(new URLSearchParams(query).get(SENT_QUERY)).data;
  if (form === undefined) return null;
  return { form, isAccepted: true, stamp: '', sent: new Map(), faults: new Map(), notice: '', isTrapped: false };
}
