import type { RefusalCode } from '#core/model/refusal.ts';
import { type ProblemWords, page, sentence } from './problem-words.ts';

/** What the rules of the tree refuse, in words. */
export const OF_THE_TREE = {
  'page-unknown': {
    status: 404,
    title: 'No such page',
    detail: (p) => `There is no ${page(p)} in this site. It may have been undone by whoever added it.`,
  },
  'page-removed': {
    status: 409,
    title: 'The page was removed',
    detail: (p) => `${sentence(page(p))} was removed from the tree. Put it back first.`,
  },
  'page-exists': {
    status: 409,
    title: 'The id is taken',
    detail: (p) => `There is a node with the id '${p.page}' already. Make a new id.`,
  },
  'page-not-removed': {
    status: 409,
    title: 'The page was not removed on its own',
    detail: (p) =>
      `${sentence(page(p))} is not a page that was removed by itself. Put back the page it was removed with.`,
  },
  'copy-without-id': {
    status: 422,
    title: 'The copy needs an id',
    detail: (p) => `There is no id for the copy of ${page(p)}. Send one for it under "ids".`,
  },
  'still-live': {
    status: 409,
    title: 'Visitors still have the page',
    detail: (p) => `${sentence(page(p))} is still live. Make its removal live first, then delete it for good.`,
  },
  'parent-unknown': {
    status: 422,
    title: 'No such parent',
    detail: (p) => `There is no ${page(p)} to hang a page under. Choose another place.`,
  },
  'parent-is-link': {
    status: 422,
    title: 'A link cannot hold pages',
    detail: (p) => `${sentence(page(p))} is a link. Choose a page or a heading, or make it a heading first.`,
  },
  'moved-inside-itself': {
    status: 422,
    title: 'A page cannot be inside itself',
    detail: (p) => `${sentence(page(p))} cannot be moved into its own branch. Choose a place outside of it.`,
  },
  'too-deep': {
    status: 422,
    title: 'Too deep',
    detail: (p) =>
      `The tree has at most ${p.deepest} levels, and ${page(p)} would be deeper. Choose a place nearer the top.`,
  },
  'title-empty': {
    status: 422,
    title: 'A title is needed',
    detail: (p) => `${sentence(page(p))} cannot be without a title. Type at least one letter.`,
  },
  'slug-shape': {
    status: 422,
    title: 'That cannot be part of an address',
    detail: (p) => `‘${p.slug}’ does not fit in an address. Use letters and digits, with single hyphens between words.`,
  },
  'slug-reserved': {
    status: 422,
    title: 'That slug is reserved',
    detail: (p) =>
      `‘${p.slug}’ is needed by the site itself, or cannot be the name of a file or folder. Choose another slug.`,
  },
  'target-missing': {
    status: 422,
    title: 'A link needs somewhere to lead',
    detail: (p) => `${sentence(page(p))} is a link without a target. Choose a page, or give an outside address.`,
  },
  'target-not-for-this': {
    status: 422,
    title: 'Only a link leads elsewhere',
    detail: (p) => `${sentence(page(p))} is not a link. Make it a link first, or leave the target out.`,
  },
  'target-unknown': {
    status: 422,
    title: 'The link leads nowhere',
    detail: (p) =>
      `${sentence(page(p))} would lead to '${p.target}', which is no page of this tree. Choose another page.`,
  },
  'home-not-a-page': {
    status: 422,
    title: 'Home must be a page',
    detail: (p) => `${sentence(page(p))} is a heading or a link. Choose a page as home.`,
  },
  'practice-link': {
    status: 422,
    title: 'A link is no practice page',
    detail: (p) => `${sentence(page(p))} is a link. Choose a page or a heading.`,
  },
  'practice-home': {
    status: 409,
    title: 'The home page is not for practice',
    detail: (p) => `${sentence(page(p))} is the home page of the site. Choose another home page first.`,
  },
  'practice-live': {
    status: 409,
    title: 'Nothing in the practice branch is live',
    detail: (p) =>
      `${sentence(page(p))} would be live in the practice branch, which never goes live. Take it down first, or leave it where it is.`,
  },
  'two-homes': {
    status: 422,
    title: 'A site has one home page',
    detail: () => 'The request names two home pages. Nothing was changed. Name one.',
  },
  'pages-below': {
    status: 409,
    title: 'There are pages below',
    detail: (p) => `${sentence(page(p))} has ${p.below} below it. Move or remove those first.`,
  },
  'has-text': {
    status: 422,
    title: 'Only pages have text',
    detail: (p) => `${sentence(page(p))} has a text, which only a page can have. Clear the text first.`,
  },
  'name-empty': {
    status: 422,
    title: 'A name is needed',
    detail: () => 'The site cannot be without a name. Type at least one letter.',
  },
  'audience-unknown': {
    status: 404,
    title: 'There is no such audience',
    detail: (p) =>
      `The site has no audience '${p.audience}'; somebody may have removed it. Undo that, or add it again.`,
  },
  'audience-exists': {
    status: 409,
    title: 'The audience is there already',
    detail: (p) => `The site has an audience '${p.audience}' already. Make another id for the new one.`,
  },
  'audience-unnamed': {
    status: 422,
    title: 'An audience needs a name',
    detail: () => 'Type a name for the audience, such as Staff.',
  },
  'audience-in-itself': {
    status: 422,
    title: 'An audience cannot include itself',
    detail: () => 'It would include itself through the audiences it includes. Leave one of them out.',
  },
  'audience-used': {
    status: 409,
    title: 'The audience is still named',
    detail: (p) =>
      `It is named ${p.count === 1 ? 'once' : `${p.count} times`} by rules of pages or entries of menus, drafted or live, or by other audiences. Take it out of these first; then nobody is shut out or let in by surprise.`,
  },
  'label-unknown': {
    status: 422,
    title: 'There is no such label',
    detail: (p) => `The site has no label '${p.label}'; somebody may have removed it. Undo that, or add it again.`,
  },
  'label-exists': {
    status: 409,
    title: 'The label is there already',
    detail: (p) => `The site has a label '${p.label}' already. Make another id for the new one.`,
  },
  'label-unnamed': {
    status: 422,
    title: 'A label needs a name',
    detail: () => 'Type a name for the label, such as Handbook.',
  },
  'label-used': {
    status: 409,
    title: 'Pages still have the label',
    detail: (p) =>
      `It is on ${p.count === 1 ? 'a page' : `${p.count} pages`}, drafted, live or removed. Take it off first; then nothing is opened by surprise.`,
  },
  'label-too-many': {
    status: 422,
    title: 'There are too many labels',
    detail: (p) => `A site has at most ${p.limit} labels. Remove one that is not used.`,
  },
  'kind-twice': {
    status: 409,
    title: 'A page has one kind',
    detail: (p) =>
      `Page '${p.page}' would have two of them. Take the one off first; labels that are no kinds can stand beside it.`,
  },
  'field-unknown': {
    status: 422,
    title: 'There is no such field',
    detail: (p) =>
      `No kind of the site has a field '${p.field}'; somebody may have removed it. Undo that, or add it again.`,
  },
  'field-exists': {
    status: 409,
    title: 'The field is there already',
    detail: (p) => `A kind of the site has a field '${p.field}' already. Make another id for the new one.`,
  },
  'field-unnamed': {
    status: 422,
    title: 'A field needs a name',
    detail: () => 'Type a name for the field, such as Price.',
  },
  'field-too-many': {
    status: 422,
    title: 'There are too many fields',
    detail: (p) =>
      `A kind has at most ${p.limit} fields, with those that were removed. Use one of them for something else.`,
  },
  'field-value': {
    status: 422,
    title: 'The field cannot hold that',
    detail: (p) => `That does not fit ‘${p.field}’. Type ${p.expects}.`,
  },
  'choice-twice': {
    status: 422,
    title: 'A choice is there twice',
    detail: (p) => `Two choices of ‘${p.field}’ have the same name. Rename one of them.`,
  },
  'audience-too-many': {
    status: 422,
    title: 'There are too many audiences',
    detail: (p) => `A site has at most ${p.limit} audiences. Remove one that is not used.`,
  },
  'menu-unknown': {
    status: 404,
    title: 'There is no such menu',
    detail: (p) => `The site has no menu '${p.menu}'; somebody may have removed it. Undo that, or add it again.`,
  },
  'menu-exists': {
    status: 409,
    title: 'The menu is there already',
    detail: (p) => `The site has a menu '${p.menu}' already. Make another id for the new one.`,
  },
  'menu-unnamed': {
    status: 422,
    title: 'A menu needs a name',
    detail: () => 'Type a name for the menu, such as Footer. Screen readers announce it to visitors.',
  },
  'menu-too-many': {
    status: 422,
    title: 'There are too many menus',
    detail: (p) => `A site has at most ${p.limit} menus. Remove one that no layout shows.`,
  },
  'entry-unknown': {
    status: 404,
    title: 'The menu has no such entry',
    detail: (p) =>
      `The menu '${p.menu}' has no entry '${p.entry}' that can be arranged; somebody may have taken it out, or the menu follows the tree.`,
  },
  'entry-exists': {
    status: 409,
    title: 'The entry is there already',
    detail: (p) => `The menu '${p.menu}' has an entry '${p.entry}' already, and each page has one entry in a menu.`,
  },
  'entry-too-many': {
    status: 422,
    title: 'The menu has too many entries',
    detail: (p) => `A menu has at most ${p.limit} entries of its own. Let it follow the tree, or take some out.`,
  },
  'entry-too-deep': {
    status: 422,
    title: 'The menu would be too deep',
    detail: (p) => `A menu has at most ${p.limit} levels. Put the entry higher up.`,
  },
  'entry-inside-itself': {
    status: 422,
    title: 'An entry cannot be inside itself',
    detail: () => 'The place is below the entry that is moved. Choose another one.',
  },
  'entry-unnamed': {
    status: 422,
    title: 'The entry needs words',
    detail: () => 'An entry that leads to no page of the tree has no title to be called by. Type what it says.',
  },
  'layout-unknown': {
    status: 404,
    title: 'There is no such layout',
    detail: (p) => `The site has no layout '${p.layout}'; somebody may have removed it. Undo that, or add it again.`,
  },
  'layout-exists': {
    status: 409,
    title: 'The layout is there already',
    detail: (p) => `The site has a layout '${p.layout}' already. Make another id for the new one.`,
  },
  'layout-used': {
    status: 409,
    title: 'Pages still use the layout',
    detail: (p) =>
      `It is the layout of ${p.count === 1 ? 'a page' : `${p.count} pages`}, drafted, live or removed. Give them another one first; then no page loses its frame by surprise.`,
  },
  'layout-last': {
    status: 409,
    title: 'A site needs at least one layout',
    detail: () => 'It is the only one, and pages need a frame. Add another layout first.',
  },
  'layout-too-many': {
    status: 422,
    title: 'There are too many layouts',
    detail: (p) => `A site has at most ${p.limit} layouts. Remove one that is not used.`,
  },
  'fact-unknown': {
    status: 404,
    title: 'There is no such fact',
    detail: (p) => `The site has no fact '${p.fact}'; somebody may have removed it. Undo that, or add it again.`,
  },
  'fact-exists': {
    status: 409,
    title: 'The fact is there already',
    detail: (p) => `The site has a fact '${p.fact}' already. Make another id for the new one.`,
  },
  'fact-unnamed': {
    status: 422,
    title: 'A fact needs a name',
    detail: () => 'Type what the fact is, such as Telephone.',
  },
  'fact-too-many': {
    status: 422,
    title: 'There are too many facts',
    detail: (p) => `A site has at most ${p.limit} facts. Remove one that is not used.`,
  },
  'layout-unnamed': {
    status: 422,
    title: 'A layout needs a name',
    detail: () => 'Type a name for the layout, such as Standard.',
  },
  'window-empty': {
    status: 422,
    title: 'The page would never be open',
    detail: (p) => `It would close before it opens: ${page(p)}. Let it open earlier, or close later.`,
  },
  'shared-unknown': {
    status: 404,
    title: 'There is no such shared section',
    detail: (p) =>
      `The site has no shared section '${p.shared}'; somebody may have removed it. Undo that, or add it again.`,
  },
  'shared-exists': {
    status: 409,
    title: 'The shared section is there already',
    detail: (p) => `The site has a shared section '${p.shared}' already. Make another id for the new one.`,
  },
  'shared-unnamed': {
    status: 422,
    title: 'A shared section needs a name',
    detail: () => 'Type what it is about, such as Opening hours.',
  },
  'shared-too-many': {
    status: 409,
    title: 'There are too many shared sections',
    detail: (p) => `A site has at most ${p.limit} shared sections. Remove one that no page shows.`,
  },
  'form-unknown': {
    status: 404,
    title: 'There is no such form',
    detail: (p) => `The site has no form '${p.form}'; somebody may have removed it. Undo that, or add it again.`,
  },
  'form-exists': {
    status: 409,
    title: 'The form is there already',
    detail: (p) => `The site has a form '${p.form}' already. Make another id for the new one.`,
  },
  'form-unnamed': {
    status: 422,
    title: 'A form needs a name',
    detail: () => 'Type what it is for, such as Application.',
  },
  'form-too-many': {
    status: 409,
    title: 'There are too many forms',
    detail: (p) => `A site has at most ${p.limit} forms. Remove one that no page shows.`,
  },
  'form-field-twice': {
    status: 422,
    title: 'The form has the field already',
    detail: (p) => `The form would have the field ‘${p.field}’ twice. Give one of them another name.`,
  },
  'redirect-unknown': {
    status: 404,
    title: 'There is no such redirect',
    detail: (p) =>
      `The site has no redirect '${p.redirect}'; somebody may have removed it. Undo that, or make it again.`,
  },
  'redirect-exists': {
    status: 409,
    title: 'The redirect is there already',
    detail: (p) => `The site has a redirect '${p.redirect}' already. Make another id for the new one.`,
  },
  'redirect-twice': {
    status: 409,
    title: 'The address has a redirect',
    detail: (p) => `A redirect from ${p.address} was made by hand already. Make that one lead elsewhere instead.`,
  },
  'redirect-in-use': {
    status: 409,
    title: 'A page has the address',
    detail: (p) =>
      `The address ${p.address} is that of ${page(p)}, and a page is never redirected. Move the page, or take another address.`,
  },
  'redirect-to-no-page': {
    status: 422,
    title: 'A redirect leads to a page',
    detail: (p) =>
      `There is no ${page(p)} in the tree that a redirect could lead to. Choose a page, not a heading or a link.`,
  },
  'redirect-too-many': {
    status: 422,
    title: 'There are too many redirects',
    detail: (p) => `A site has at most ${p.limit} redirects by hand. Remove some, or combine several into a pattern.`,
  },
  'time-zone-unknown': {
    status: 422,
    title: 'There is no such time zone',
    detail: (p) => `There is no time zone '${p.timeZone}'. Give its name, such as Europe/London.`,
  },
  'goal-unknown': {
    status: 404,
    title: 'There is no such goal',
    detail: (p) => `The site has no goal '${p.goal}'; somebody may have removed it. Undo that, or add it again.`,
  },
  'goal-exists': {
    status: 409,
    title: 'The goal is there already',
    detail: (p) => `The site has a goal '${p.goal}' already. Make another id for the new one.`,
  },
  'goal-empty': {
    status: 422,
    title: 'A goal needs a statement',
    detail: () => 'Say in a few words what the site is to achieve, or remove the goal.',
  },
  'sketch-unknown': {
    status: 404,
    title: 'There is no such sketch',
    detail: (p) => `The site has no sketch '${p.sketch}'; somebody may have removed it. Undo that, or add it again.`,
  },
  'sketch-exists': {
    status: 409,
    title: 'The sketch is there already',
    detail: (p) => `The site has a sketch '${p.sketch}' already. Make another id for the new one.`,
  },
  'sketch-unnamed': {
    status: 422,
    title: 'A sketch needs a name',
    detail: () => 'Give the sketch a name, or remove it.',
  },
  'sketch-too-many': {
    status: 422,
    title: 'Too many sketches',
    detail: (p) => `A site has at most ${p.limit} sketches. Remove some, or use one for several pages.`,
  },
  'variant-unknown': {
    status: 404,
    title: 'There is no such variant',
    detail: (p) =>
      `The sketch has no variant '${p.variant}'; somebody may have removed it. Undo that, or add it again.`,
  },
  'variant-exists': {
    status: 409,
    title: 'The variant is there already',
    detail: (p) => `The sketch has a variant '${p.variant}' already. Make another id for the new one.`,
  },
  'variant-unnamed': {
    status: 422,
    title: 'A variant needs a name',
    detail: () => 'Give the variant a name, or remove it.',
  },
  'variant-too-many': {
    status: 422,
    title: 'Too many variants',
    detail: (p) => `A sketch has at most ${p.limit} variants. Remove one first.`,
  },
  'box-twice': {
    status: 422,
    title: 'Two boxes have one id',
    detail: (p) => `Two boxes of the variant are called '${p.box}'. Make an id of its own for each.`,
  },
  'box-unknown': {
    status: 404,
    title: 'There is no such box',
    detail: (p) => `The variant has no box '${p.box}'; somebody may have removed it. Look at the sketch again.`,
  },
  'box-too-many': {
    status: 422,
    title: 'The variant is full',
    detail: (p) => `A variant has at most ${p.limit} boxes. Remove some first.`,
  },
  'board-unknown': {
    status: 404,
    title: 'There is no such board',
    detail: (p) => `The site has no board '${p.board}'; somebody may have removed it. Undo that, or add it again.`,
  },
  'board-exists': {
    status: 409,
    title: 'The board is there already',
    detail: (p) => `The site has a board '${p.board}' already. Make another id for the new one.`,
  },
  'board-unnamed': {
    status: 422,
    title: 'A board needs a name',
    detail: () => 'Give the board a name, or remove it.',
  },
  'board-too-many': {
    status: 422,
    title: 'Too many boards',
    detail: (p) => `A site has at most ${p.limit} boards. Remove one first.`,
  },
  'piece-unknown': {
    status: 404,
    title: 'It is not on the board',
    detail: (p) => `The board has no piece '${p.piece}'; somebody may have removed it. Undo that, or add it again.`,
  },
  'piece-twice': {
    status: 422,
    title: 'Two pieces have one id',
    detail: (p) => `Two pieces of the board are called '${p.piece}'. Make an id of its own for each.`,
  },
  'piece-kind': {
    status: 422,
    title: 'It is something else',
    detail: (p) => `The piece '${p.piece}' is of another kind. Remove it, and add what you want in its place.`,
  },
  'piece-too-many': {
    status: 422,
    title: 'The board is full',
    detail: (p) => `A board has at most ${p.limit} pieces. Remove some, or begin another board.`,
  },
  'not-live': {
    status: 409,
    title: 'The page is not live',
    detail: (p) => `${sentence(page(p))} is not live, so it cannot be taken down.`,
  },
  'parent-not-live': {
    status: 409,
    title: 'The page above is not live',
    detail: (p) => `${sentence(page(p))} would be live under a page that is not. Include the page above it.`,
  },
} as const satisfies Record<RefusalCode, ProblemWords>;
