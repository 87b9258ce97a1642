import { fileIdSchema } from '#core/files/file.ts';
import { visitorView } from '#core/derive/visitor-view.ts';
import { SCHEME_NAMES, type SchemeName } from '#core/model/look.ts';
import type { Settings } from '#core/model/site.ts';
import type { FieldId } from '#core/model/kind-field.ts';
import { EVERYONE } from '#core/model/audience.ts';
import type { FormId } from '#core/model/site-form.ts';
import { SAMPLE_PAGE, WRONG_FIELDS, sampleForms, sampleSite } from '#core/sample/sample-site.ts';
import { SAMPLE_FILE, SAMPLE_SHARED, SHARED_SAMPLE, formText, sampleText } from '#core/sample/sample-text.ts';
import type { TextDocument } from '#core/model/content.ts';
import { renderDocument } from '../texts/render-document.ts';
import { FORM_SCRIPT } from './form-script.ts';
import { withForms } from './forms.ts';
import { type Html, type Markup, markup, sound } from './html.ts';
import type { LiveFile } from './live-files.ts';
import { type FormsOnPage, type LiveView, pathOf } from './live-view.ts';
import { renderMenu } from './render-menus.ts';
import { renderPage } from './render-page.ts';
import { SAMPLE_ADDRESS, SAMPLE_CONTENT, SAMPLE_DRAWING } from './sample-drawing.ts';
import { withShared } from './shared-sections.ts';
import { withParts } from './standing-pages.ts';
import { textFor } from './text-for.ts';

const FILE: LiveFile = {
  id: fileIdSchema.parse(SAMPLE_FILE),
  name: 'The quay',
  type: 'image/svg+xml',
  content: SAMPLE_CONTENT,
  length: SAMPLE_DRAWING.length,
  width: 960,
  height: 600,
  pages: null,
  hasPicture: false,
  focalX: 0.5,
  focalY: 0.5,
  alternative: 'A boat at the quay',
  isDecoration: false,
  isReady: true,
};

const SCHEME_HEADINGS: Readonly<Record<SchemeName, string>> = {
  plain: 'Plain',
  tinted: 'Tinted',
  strong: 'Strong',
  dark: 'Dark',
};

/**
 * The sample page: every type of section, every field of forms, menus and their states, once in each scheme of a look. Nothing of the
 * site is in it but its look and its name.
 * @param at in milliseconds since 1970
 */
export function samplePage(
  { look, name }: Pick<Settings, 'look' | 'name'>,
  where: Pick<LiveView, 'place' | 'walk' | 'query'>,
  at: number,
): Html {
  const site = sampleSite(look, name, at);
  const view: LiveView = {
    ...visitorView(site, new Set([EVERYONE]), at, false),
    ...where,
    files: new Map([[FILE.id, FILE]]),
  };
  const heads = SCHEME_NAMES.map(
    (scheme) =>
      markup`<div class="head head-band in-${scheme}"><span class="name">${SCHEME_HEADINGS[scheme]}</span>${named(renderMenu(view, 'header', SAMPLE_PAGE), scheme)}</div>`,
  );
  const ways = SCHEME_NAMES.map((scheme) => markup`<a href="#in-${scheme}">${SCHEME_HEADINGS[scheme]}</a> `);
  const bands = SCHEME_NAMES.map(
    (scheme) =>
      markup`<div class="band is-wide in-${scheme}" id="in-${scheme}"><p><strong>${SCHEME_HEADINGS[scheme]}</strong></p>${ofScheme(view, scheme)}</div>`,
  );
  const text = textFor(markup`<p>All in one scheme: ${ways}</p>${bands}`.text, view);
  const page = renderPage(view, SAMPLE_PAGE, withParts(text, view, SAMPLE_PAGE));
  const own = pathOf(view.place, view.derived.addresses[view.derived.outline.rowOf.get(SAMPLE_PAGE)!]!);
  return sound(
    page.text
      .replace('<main', markup`<aside aria-label="Headers">${heads}</aside><main`.text)
      // The ways to other states of its lists lead to itself.
      .replaceAll(`"${own}`, `"${view.place.base}${SAMPLE_ADDRESS}`),
  );
}

/** A menu under a name of its own, where the page has it several times. */
const named = (menu: Markup, name: string): Markup =>
  menu === '' ? '' : sound(menu.text.replace(/ aria-label="[^"]*"/, ` aria-label="Menu, ${name}"`));

/** All samples in one scheme, with a form that came back and one that was accepted. */
function ofScheme(view: LiveView, scheme: SchemeName): Html {
  const drawn = (document: TextDocument): Html =>
    sound(withShared(renderDocument(document), new Map([[SAMPLE_SHARED, renderDocument(SHARED_SAMPLE)]])));
  const given = (form: FormId, document: TextDocument, isAccepted: boolean) =>
    withForms(drawn(document), { ...view, forms: givenForm(form, isAccepted) }, SAMPLE_PAGE);
  const { refused, accepted } = sampleForms(scheme);
  const html = [given(refused, sampleText(refused), false), given(accepted, formText(accepted), true)];
  // Nothing is sent from here.
  return sound(markup`${html}`.text.replaceAll(FORM_SCRIPT.text, ''));
}

const givenForm = (form: FormId, isAccepted: boolean): FormsOnPage => ({
  stampOf: () => '',
  shown: () => undefined,
  visitor: null,
  given: {
    form,
    isAccepted,
    stamp: '',
    sent: new Map([['number' as FieldId, ['4']]]),
    faults: new Map(
      [...WRONG_FIELDS].map((field) => [field as string as FieldId, 'What is wrong with it is said here.']),
    ),
    notice: '',
    isTrapped: false,
  },
});
