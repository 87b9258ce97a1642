import { type FormStep, stepsOf } from '#core/forms/reading.ts';
import { FIELD_TYPE } from '#core/fields/all-types.ts';
import { ruleOf } from '#core/model/access.ts';
import type { PageId } from '#core/model/ids.ts';
import { MAX_DETAIL_LENGTH } from '#core/model/kind-field.ts';
import type { SiteNode } from '#core/model/node.ts';
import { kindAmong } from '#core/model/page-label.ts';
import { type FormField, type FormId, type ShownIf, type SiteForm, asKindField } from '#core/model/site-form.ts';
import { textIn } from '#core/model/texts.ts';
import { FORM_DATA } from '#core/sections/form.ts';
import { fieldContext } from './details.ts';
import { ASKED_IF, FORM_SCRIPT, ONLY_IF } from './form-script.ts';
import { type Html, type Markup, markup, sound } from './html.ts';
import { elementsOf, withElements } from './html-elements.ts';
import { type FormsOnPage, type GivenForm, type LiveView, isOpenAt, pathOf } from './live-view.ts';
import { type FormWords, siteWords } from './site-words.ts';

/** Where a form is sent to, below the site. */
export const ANSWER_STEP = '~answer';
/** Where a page says that a form on it was accepted: in its query. */
export const SENT_QUERY = 'sent';
/** The names of what a form sends besides its fields. */
export const SENT_PAGE = 'page';
export const SENT_STAMP = 'stamp';
export const SENT_TRAP = 'website';
export const fieldName = (field: string): string => `f.${field}`;
/** Which text of a policy was there when the form was shown. */
export const policyName = (field: string): string => `v.${field}`;

/** So many choices are offered side by side at most; more of them in a list that opens. */
const MOST_BESIDE = 6;
/** So many pages are offered. */
const MAX_OFFERED_PAGES = 300;

/** A text with the site's forms in their places. @param page the page that the text is of */
export function withForms(text: Html | '', view: LiveView, page: PageId): Html | '' {
  if (text === '' || !text.text.includes(FORM_DATA)) return text;
  const places = elementsOf(text.text, (name, attributes) => name === 'div' && FORM_DATA in attributes);
  const shown = new Set<FormId>();
  const made = withElements(text.text, places, ({ attributes }) => {
    const form = view.site.settings.forms.find(({ id }) => id === attributes[FORM_DATA]);
    // A second one of the same would have the same ids.
    if (!form || form.fields.length === 0 || shown.has(form.id)) return '';
    shown.add(form.id);
    view.forms?.shown(form.id);
    return renderForm(view, page, form).text;
  });
  return sound(shown.size > 0 && view.forms ? made + FORM_SCRIPT.text : made);
}

/** The pages that can be chosen in a field, each with its title, in the order of the tree: those that the visitor can open. */
export function pagesOffered(view: LiveView, { of }: FormField): { readonly page: PageId; readonly title: string }[] {
  const { site, derived } = view;
  const { labels, language } = site.settings;
  const offered: { page: PageId; title: string }[] = [];
  derived.outline.nodes.forEach((node, row) => {
    if (node.type !== 'page' || offered.length >= MAX_OFFERED_PAGES || !isOpenAt(view, row)) return;
    if (derived.addresses[row] === null) return;
    if (of !== null && kindAmong(ruleOf(node).labels, labels)?.id !== of) return;
    offered.push({ page: node.id, title: textIn(node.title, language) });
  });
  return offered;
}

function renderForm(view: LiveView, page: PageId, form: SiteForm): Html {
  const { site, place, forms } = view;
  const words = siteWords(site.settings.language).form;
  const given = forms?.given?.form === form.id ? forms.given : null;
  const id = `form-${form.id}`;
  if (given?.isAccepted)
    return markup`<div class="answered" id="${id}" role="status">${lines(form.thanks || words.thanks)}</div>`;
  const drawing: Drawing = { view, words, form, given, forms: forms ?? null };
  const steps = stepsOf(form.fields);
  const parts = steps.map((step, at) => renderStep(drawing, step, at, steps.length));
  const button = form.button || words.send;
  if (!forms)
    return markup`<div class="form" id="${id}"><fieldset disabled class="unsent">${parts}</fieldset><p class="help">${words.notHere}</p></div>`;
  const isWithFiles = form.fields.some(({ type }) => type === 'file');
  return markup`<form class="form answer" id="${id}" method="post" action="${place.base}/${ANSWER_STEP}/${form.id}#${id}"${isWithFiles ? markup` enctype="multipart/form-data"` : ''} aria-label="${form.name}">${given ? renderFaults(drawing, given) : ''}<input type="hidden" name="${SENT_PAGE}" value="${page}"><input type="hidden" name="${SENT_STAMP}" value="${given?.stamp ?? forms.stampOf(form.id)}">${renderTrap(words, id, given?.isTrapped === true)}${parts}<p class="send"><button>${button}</button></p></form>`;
}

/** What the parts of a form are made with. */
interface Drawing {
  readonly view: LiveView;
  readonly words: FormWords;
  readonly form: SiteForm;
  readonly given: GivenForm | null;
  readonly forms: FormsOnPage | null;
}

/** A field that people do not see and leave empty. */
const renderTrap = (words: FormWords, form: string, isFilled: boolean): Html =>
  markup`<p class="${isFilled ? 'field' : 'trap'}"><label for="${form}-trap">${words.leaveEmpty}</label><input id="${form}-trap" name="${SENT_TRAP}" type="text" tabindex="${isFilled ? 0 : -1}" autocomplete="off"></p>`;

function renderFaults({ words, form }: Drawing, { faults, notice }: GivenForm): Html {
  const items = form.fields.flatMap((field) => {
    const fault = faults.get(field.id);
    return fault === undefined ? [] : [markup`<li><a href="#${idOf(form, field)}">${fault}</a></li>`];
  });
  return markup`<div class="faults" role="alert"><p>${words.notSent(items.length)}</p>${notice === '' ? '' : markup`<p>${notice}</p>`}${items.length > 0 ? markup`<ul>${items}</ul>` : ''}</div>`;
}

function renderStep(drawing: Drawing, { heading, fields }: FormStep, at: number, count: number): Html {
  const { view, words } = drawing;
  const inner = fields.map((field) => renderField(drawing, field));
  if (count === 1 && heading === null) return markup`${inner}`;
  const { next, previous } = siteWords(view.site.settings.language);
  const number = count === 1 ? '' : markup` <small>${words.step(at + 1, count)}</small>`;
  const turn = markup`<p class="turn" hidden><button type="button" data-turn="-1">${previous}</button><button type="button" data-turn="1">${next}</button></p>`;
  return markup`<fieldset class="step"><legend tabindex="-1">${heading ?? drawing.form.name}${number}</legend>${inner}${count === 1 ? '' : turn}</fieldset>`;
}

const idOf = ({ id }: SiteForm, field: FormField): string => `form-${id}-${field.id}`;

/** One field, with its name, its help, and what is wrong with what was sent. */
function renderField(drawing: Drawing, field: FormField): Html {
  const { form, given, words } = drawing;
  const id = idOf(form, field);
  const fault = given?.faults.get(field.id);
  const help: readonly Markup[] = [
    field.help === '' ? '' : markup`<span class="help" id="${id}-help">${field.help}</span>`,
    fault === undefined ? '' : markup`<span class="fault" id="${id}-fault">${fault}</span>`,
  ];
  const described = [field.help === '' ? '' : `${id}-help`, fault === undefined ? '' : `${id}-fault`].join(' ').trim();
  const about: About = {
    id,
    name: fieldName(field.id),
    described: described === '' ? '' : markup` aria-describedby="${described}"`,
    invalid: fault === undefined ? '' : markup` aria-invalid="true"`,
    // What may not be asked for at all is required by the script, once it is.
    required: !field.isRequired ? '' : field.shownIf === null ? markup` required` : markup` data-required`,
    said: saidOf(drawing, field),
  };
  const name = markup`${field.name}${field.isRequired ? markup` <small>${words.required}</small>` : ''}`;
  const condition = conditionOf(drawing, field);
  return markup`<div class="field"${condition ? markup` ${sound(ASKED_IF)}="${JSON.stringify(condition.asked)}"` : ''}>${condition ? markup`<p class="help ${ONLY_IF}">${condition.words}</p>` : ''}${renderControl(drawing, field, about, name, help)}</div>`;
}

interface About {
  readonly id: string;
  readonly name: string;
  readonly described: Markup;
  readonly invalid: Markup;
  readonly required: Markup;
  /** What stands in it at first, in the form in which it is sent. */
  readonly said: readonly string[];
}

/** What was sent; else what is known of whoever is signed in. */
function saidOf({ given, forms }: Drawing, { id, filledWith }: FormField): readonly string[] {
  const sent = given?.sent.get(id);
  if (given) return sent ?? [];
  const known = filledWith === null ? undefined : forms?.visitor?.[filledWith === 'mail' ? 'email' : 'name'];
  return known === undefined ? [] : [known];
}

/** By what a field is asked for, for the script and in words; null where it always is. */
function conditionOf(
  { form, words, view }: Drawing,
  { id, shownIf }: FormField,
): { readonly asked: object; readonly words: string } | null {
  const before = form.fields.slice(
    0,
    form.fields.findIndex((one) => one.id === id),
  );
  const of = shownIf && before.find((one) => one.id === shownIf.field);
  if (!of) return null;
  const { value, isSo } = testOf(shownIf!, of);
  const said = value === null ? null : FIELD_TYPE[of.type].words(value, asKindField(of), fieldContext(view));
  return { asked: { field: of.id, value, isSo }, words: words.onlyIf(of.name, said, isSo) };
}

/** What is asked of another field: a value, or any at all; and whether it has to be so. A box is ticked or it is not. */
function testOf({ test, value }: ShownIf, { type }: FormField): { value: string | null; isSo: boolean } {
  const isSo = test === 'is' || test === 'said';
  const isAny = test === 'said' || test === 'not said';
  if (type === 'yesNo') return { value: 'yes', isSo: isAny || value === 'yes' ? isSo : !isSo };
  return { value: isAny ? null : value, isSo };
}

function renderControl(drawing: Drawing, field: FormField, about: About, name: Html, help: readonly Markup[]): Markup {
  const { view, words } = drawing;
  const { id, described, invalid, required, said } = about;
  const attributes = markup` id="${id}" name="${about.name}"${described}${invalid}${required}`;
  const label = markup`<label for="${id}">${name}</label>${help}`;
  const [first = ''] = said;
  switch (field.type) {
    case 'yesNo':
      return markup`<label class="tick" for="${id}"><input type="checkbox" value="yes"${attributes}${said.includes('yes') ? markup` checked` : ''}> <span>${name}</span></label>${renderPolicy(drawing, field)}${help}`;
    case 'choice':
      return renderChoices(
        drawing,
        field,
        about,
        name,
        help,
        field.choices.map((one) => [one.id, one.name]),
      );
    case 'pages':
      return renderChoices(
        drawing,
        field,
        about,
        name,
        help,
        pagesOffered(view, field).map((one) => [one.page, one.title]),
      );
    case 'longText':
    case 'address':
      return markup`${label}<textarea rows="${field.type === 'address' ? 3 : 6}" maxlength="${MAX_DETAIL_LENGTH}"${field.type === 'address' ? markup` autocomplete="street-address"` : ''}${attributes}>
${first}</textarea>`;
    case 'period':
      return markup`<fieldset class="choices"${described}><legend id="${id}">${name}</legend>${help}<label>${words.first} <input type="date" name="${about.name}" value="${first}"${required}></label> <label>${words.last} <input type="date" name="${about.name}" value="${said[1] ?? ''}"${required}></label></fieldset>`;
    case 'number':
    case 'money': {
      const unit = field.type === 'number' ? field.unit : field.currency;
      return markup`${label}<span class="with-unit"><input type="text" inputmode="decimal" maxlength="60" value="${first}"${attributes}>${unit === '' ? '' : markup` <span>${unit}</span>`}</span>`;
    }
    case 'file':
      return markup`${label}${drawing.given && first !== '' ? markup`<span class="help">${words.chooseFileAgain}</span>` : ''}<input type="file"${attributes}>`;
    default:
      return markup`${label}<input type="${INPUT_TYPES[field.type] ?? 'text'}" maxlength="2000" value="${first}"${completion(field)}${attributes}>`;
  }
}

const INPUT_TYPES: { readonly [Type in FormField['type']]?: string } = {
  day: 'date',
  moment: 'datetime-local',
  telephone: 'tel',
  mail: 'email',
  link: 'url',
};

/** What browsers may fill in by what they know of whoever sits there: WCAG 2.2, 1.3.5. */
function completion({ type, filledWith }: FormField): Markup {
  const token =
    filledWith === 'name'
      ? 'name'
      : filledWith === 'mail' || type === 'mail'
        ? 'email'
        : type === 'telephone'
          ? 'tel'
          : '';
  return token === '' ? '' : markup` autocomplete="${token}"`;
}

/** What can be chosen: as buttons or boxes where it is little, else as a list. */
function renderChoices(
  { words }: Drawing,
  { isSeveral, isRequired }: FormField,
  { id, name: sentAs, described, invalid, required, said }: About,
  name: Html,
  help: readonly Markup[],
  choices: readonly (readonly [id: string, name: string])[],
): Html {
  // A button that was chosen cannot be let go of.
  if (!isSeveral && (!isRequired || choices.length > MOST_BESIDE)) {
    const options = choices.map(
      ([value, text]) =>
        markup`<option value="${value}"${said.includes(value) ? markup` selected` : ''}>${text}</option>`,
    );
    return markup`<label for="${id}">${name}</label>${help}<select id="${id}" name="${sentAs}"${described}${invalid}${required}><option value="">${words.chooseOne}</option>${options}</select>`;
  }
  const type = isSeveral ? 'checkbox' : 'radio';
  const boxes = choices.map(
    ([value, text]) =>
      markup`<label class="tick"><input type="${type}" name="${sentAs}" value="${value}"${isSeveral ? '' : required}${said.includes(value) ? markup` checked` : ''}> <span>${text}</span></label>`,
  );
  return markup`<fieldset class="choices" id="${id}" tabindex="-1"${described}><legend>${name}</legend>${help}${boxes}</fieldset>`;
}

/** The page whose text a field agrees to, if the visitor can read it; null where it agrees to none. */
export function policyOf(
  view: LiveView,
  { policy }: FormField,
): { readonly node: SiteNode; readonly address: string } | null {
  const { outline, addresses } = view.derived;
  const row = policy === null ? undefined : outline.rowOf.get(policy);
  const address = row === undefined || !isOpenAt(view, row) ? null : (addresses[row] ?? null);
  return address === null ? null : { node: outline.nodes[row!]!, address };
}

/** The way to what is agreed to, and which text of it that is. */
function renderPolicy({ view, words }: Drawing, field: FormField): Markup {
  const found = policyOf(view, field);
  if (!found) return '';
  const { node, address } = found;
  const title = textIn(node.title, view.site.settings.language);
  return markup`<input type="hidden" name="${policyName(field.id)}" value="${node.content ?? ''}"><a class="help" href="${pathOf(view.place, address)}" target="_blank" rel="noopener">${words.read(title)}</a>`;
}

const lines = (text: string): Html[] =>
  text
    .split(/\n+/)
    .filter((line) => line.trim() !== '')
    .map((line) => markup`<p>${line}</p>`);
