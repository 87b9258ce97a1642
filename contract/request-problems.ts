import type { ProblemWords } from './problem-words.ts';

/** What can be wrong with a request, besides what the rules of the tree refuse. */
export const OF_REQUESTS = {
  'file-unknown': {
    status: 404,
    title: 'No such file',
    detail: (p) =>
      `There is no file '${p.file}' in the library. It may have been removed: look into the library again.`,
  },
  'file-type': {
    status: 415,
    title: 'Files of this type are not kept',
    detail: (p) =>
      `‘${p.name}’ is ${p.type} by its bytes. The library takes pictures, PDF and office documents, plain text, films (MP4, WebM), sound and subtitles. Save it as one of these and send it again.`,
  },
  'file-empty': {
    status: 422,
    title: 'The file is empty',
    detail: (p) => `‘${p.name}’ has no bytes. Look whether it is whole on your computer, and send it again.`,
  },
  'file-broken': {
    status: 422,
    title: 'The file cannot be used',
    detail: (p) => `‘${p.name}’ cannot be used: ${p.reason}. Nothing of it was kept.`,
  },
  'file-kind': {
    status: 409,
    title: 'Another kind of file',
    detail: (p) =>
      `‘${p.name}’ is a ${p.kind}, and what it is to replace is a ${p.wanted}. Nothing was replaced. Add it as a file of its own.`,
  },
  'upload-unknown': {
    status: 404,
    title: 'No such upload',
    detail: () => 'This upload was begun by somebody else, or too long ago. Send the file again.',
  },
  'text-unknown': {
    status: 404,
    title: 'No such text',
    detail: (p) =>
      `There is no text '${p.text}'. A text is named by what it belongs to (page, notes, shared or outline) and the id of that.`,
  },
  'text-began-anew': {
    status: 409,
    title: 'The text began anew',
    detail: () =>
      'What is written here belongs to an older version of the text. Open the text again and put in what is missing.',
  },
  'update-invalid': {
    status: 422,
    title: 'Not a change of this text',
    detail: () =>
      'What was sent cannot be read as a change of this text, or builds on a change that is missing. Open the text again and write it there.',
  },
  'body-invalid': {
    status: 422,
    title: 'The request has values that cannot be used',
    detail: () => 'Nothing was changed. Correct the values listed under "errors" and send the request again.',
  },
  'body-not-json': {
    status: 400,
    title: 'The request is not JSON',
    detail: (p) => `The body cannot be read as JSON (${p.reason}). Nothing was changed. Send a JSON body.`,
  },
  'body-too-large': {
    status: 413,
    title: 'The request is too large',
    detail: (p) =>
      `The body is larger than the ${p.limit} allowed here. Nothing was changed. Send it in smaller parts.`,
  },
  'body-type': {
    status: 415,
    title: 'Only JSON is accepted',
    detail: () => 'Nothing was changed. Send the body with "Content-Type: application/json".',
  },
  'wrong-origin': {
    status: 403,
    title: 'The request comes from another site',
    detail: (p) =>
      `Only this workbench may make changes, and the Origin header says ‘${p.origin}’. Nothing was changed. Send the workbench's own address as Origin.`,
  },
  'not-signed-in': {
    status: 401,
    title: 'You are not signed in',
    detail: () => 'Sign in, then try again. What you typed is still on your screen.',
  },
  'not-allowed': {
    status: 403,
    title: 'Your account may not do this',
    detail: (p) => `${p.reason}`,
  },
  'installation-only': {
    status: 403,
    title: 'This is for those who look after the installation',
    detail: () =>
      'Sites are made, restored and deleted by people who look after this installation of Spur. Ask one of them.',
  },
  'colleague-unknown': {
    status: 404,
    title: 'No such colleague',
    detail: () => 'Nobody with that id works on this site. They may have been removed: look at the list again.',
  },
  'colleague-there': {
    status: 409,
    title: 'Already a colleague',
    detail: (p) =>
      `Somebody with the address ${p.email} is a colleague of this site already. Open them in the list to change their roles.`,
  },
  'colleague-self': {
    status: 409,
    title: 'Not for yourself',
    detail: () =>
      'You cannot change your own roles, suspend or remove yourself, so that nobody locks themselves out. Ask another colleague.',
  },
  'colleague-looks-after-all': {
    status: 409,
    title: 'They look after the installation',
    detail: (p) => `‘${p.name}’ looks after this installation of Spur, and may do everything on every site.`,
  },
  'role-unknown': {
    status: 404,
    title: 'No such role',
    detail: (p) => `This site has no role ‘${p.role}’. Choose one of its roles.`,
  },
  'role-shipped': {
    status: 409,
    title: 'This role stays as it is',
    detail: (p) => `‘${p.name}’ is a role of every site. Make a role of your own that does what you need.`,
  },
  'role-in-use': {
    status: 409,
    title: 'Somebody has this role',
    detail: (p) =>
      `The role ‘${p.name}’ is held by ${p.count} ${p.count === 1 ? 'colleague' : 'colleagues'}. Give them another one first.`,
  },
  'role-of-group': {
    status: 409,
    title: 'A group has this role',
    detail: (p) =>
      `The role ‘${p.name}’ is given to members of a group in the organisation’s directory. Give that group another role first, under Colleagues.`,
  },
  'role-from-directory': {
    status: 409,
    title: 'The role comes from the directory',
    detail: (p) =>
      `The role ${p.place} comes from a group of the organisation’s directory and would come back. Choose another role for that place, or change what the group gives, under Colleagues.`,
  },
  'role-too-many': {
    status: 409,
    title: 'Too many roles',
    detail: (p) => `A site has at most ${p.limit} roles of its own. Remove one that nobody has.`,
  },
  'role-beyond-own': {
    status: 403,
    title: 'The role may do more than you',
    detail: (p) =>
      `‘${p.name}’ gives permissions that you do not have there yourself, so you can neither give it nor take it away. Somebody who has them can.`,
  },
  'account-link-ended': {
    status: 404,
    title: 'The link no longer works',
    detail: () =>
      'It was used already, has run out, or a newer one was sent. Ask for another: an invitation from whoever invited you, a new password at the sign-in.',
  },
  'password-wrong': {
    status: 403,
    title: 'That is not your password',
    detail: () => 'The current password does not match. Nothing was changed.',
  },
  'password-known': {
    status: 422,
    title: 'The password is too well known',
    detail: () => 'This password is among those that are tried first, or has your name in it. Choose another one.',
  },
  'code-wrong': {
    status: 403,
    title: 'The code does not match',
    detail: () => 'The code is wrong, has been used or has run out. Wait for the next one and type it.',
  },
  'code-not-asked-for': {
    status: 409,
    title: 'No code is asked for',
    detail: () => 'It has been too long since the password was typed. Sign in again.',
  },
  'codes-not-begun': {
    status: 409,
    title: 'Nothing to confirm',
    detail: () => 'Begin with one-time codes first, then type the code that your authenticator shows.',
  },
  'passkey-refused': {
    status: 403,
    title: 'The passkey was not accepted',
    detail: () =>
      'This passkey is not known here, or its answer came too late. Try again, or sign in with your password.',
  },
  'passkey-unknown': {
    status: 404,
    title: 'No such passkey',
    detail: () => 'It has been removed already. Look at the list again.',
  },
  'passkey-too-many': {
    status: 409,
    title: 'Too many passkeys',
    detail: (p) => `An account has at most ${p.limit} passkeys. Remove one that you no longer use.`,
  },
  'second-step-needed': {
    status: 403,
    title: 'This site asks for a second step',
    detail: () =>
      'This site opens to those who have signed in with a passkey, or with a one-time code besides the password. Set one up under ‘Account’, or sign in again with the one that you have.',
  },
  'second-step-own': {
    status: 409,
    title: 'You signed in without a second step',
    detail: () =>
      'You would shut yourself out. Set up a passkey or one-time codes under ‘Account’ first, or sign in again with the one that you have.',
  },
  'provider-none': {
    status: 404,
    title: 'No provider of identities',
    detail: () => 'This installation has no provider by which people sign in. Sign in with your password or a passkey.',
  },
  'provider-away': {
    status: 503,
    title: 'The provider does not answer',
    detail: (p) =>
      `Signing in with ‘${p.name}’ does not work just now. Try again later, or sign in with your password.`,
  },
  'provider-refused': {
    status: 403,
    title: 'The provider did not confirm who you are',
    detail: () => 'Its answer was incomplete, came too late, or had no confirmed mail address in it. Try again.',
  },
  'provider-unknown-person': {
    status: 403,
    title: 'You are no colleague here yet',
    detail: () =>
      'Nobody here has the mail address that your organisation gives for you. Ask for an invitation to a site.',
  },
  'session-unknown': {
    status: 404,
    title: 'No such session',
    detail: () => 'It has ended already. Look at the list again.',
  },
  'sign-in-failed': {
    status: 401,
    title: 'The sign-in did not match',
    detail: () => 'The mail address and password do not match. Check both and try again.',
  },
  'too-many-attempts': {
    status: 429,
    title: 'Too many attempts',
    detail: (p) => `There were too many wrong attempts. Wait ${p.seconds} seconds, then try again.`,
  },
  'setup-closed': {
    status: 410,
    title: 'This link has been used or has expired',
    detail: () =>
      'The first account can be created once. Sign in with it, or restart Spur for a new link if there is no account yet.',
  },
  'answer-unknown': {
    status: 404,
    title: 'There is no such answer',
    detail: () =>
      'It was deleted, by somebody or since it was kept long enough. Look through the list of answers again.',
  },
  'share-unknown': {
    status: 404,
    title: 'This link leads nowhere',
    detail: () => 'No plan is shared by this link. Check that it was copied whole, or ask whoever sent it.',
  },
  'share-over': {
    status: 410,
    title: 'This link has expired',
    detail: (p) =>
      `It worked until ${p.at}. What you said is kept. Ask ${p.by} for a new link if there is more to say.`,
  },
  'share-withdrawn': {
    status: 410,
    title: 'This link was withdrawn',
    detail: (p) => `${p.by} has closed it, so the plan is not shown any more. What you said is kept.`,
  },
  'share-locked': {
    status: 401,
    title: 'This plan asks for a passphrase',
    detail: (p) => `Type the passphrase that ${p.by} told you.`,
  },
  'passphrase-unknown': {
    status: 422,
    title: 'The passphrase is not one of this site',
    detail: () =>
      'A rule names a passphrase that this site does not have; it may be one of another site. Nothing was changed. Set a passphrase here.',
  },
  'passphrase-wrong': {
    status: 401,
    title: 'That is not the passphrase',
    detail: (p) => `Capitals and spaces count. Try again, or ask ${p.by} for it.`,
  },
  'share-too-many': {
    status: 422,
    title: 'There are too many links',
    detail: (p) => `A site can have ${p.limit} links that work. Withdraw one that is not needed first.`,
  },
  'share-not-open': {
    status: 409,
    title: 'The link does not work any more',
    detail: () => 'It was withdrawn or has expired, so nobody can be invited to it. Make a new link.',
  },
  'guest-unnamed': {
    status: 409,
    title: 'A name is needed',
    detail: () => 'Give a name first; what you say is shown under it. Nothing was kept.',
  },
  'guest-name-taken': {
    status: 409,
    title: 'That name is taken',
    detail: (p) =>
      `Somebody has already commented as ‘${p.name}’ in another browser. Add your family name, or something else that tells you apart.`,
  },
  'feedback-full': {
    status: 422,
    title: 'There is no room for more',
    detail: (p) => `By one link up to ${p.limit} people and comments are taken. Ask whoever sent it for a new one.`,
  },
  'comment-about-nothing': {
    status: 422,
    title: 'Say what it is about',
    detail: () => 'A comment is about a page of the plan, or about a board, and not about both.',
  },
  'comment-unknown': {
    status: 404,
    title: 'There is no such comment',
    detail: () => 'It was deleted, or it belongs to another site. Look at the page’s comments again.',
  },
  'comment-answered': {
    status: 409,
    title: 'The comment has an answer',
    detail: (p) => `${p.by} has answered it, so it stays. Add another comment if you think otherwise now.`,
  },
  'thread-unknown': {
    status: 404,
    title: 'There is no such comment',
    detail: () => 'It was deleted, or it stands on a page that you may not read. Look at the page’s comments again.',
  },
  'comment-of-another': {
    status: 403,
    title: 'This comment is not yours',
    detail: (p) => `${p.by} wrote it. Answer it, or settle it.`,
  },
  'talk-full': {
    status: 422,
    title: 'There is no room for more',
    detail: (p) => `The most is ${p.limit}. Settle, withdraw or remove some of them first.`,
  },
  'approval-missing': {
    status: 409,
    title: 'Not everything is approved',
    detail: (p) =>
      `${p.count === 1 ? `‘${p.pageTitle}’ needs approval first` : `‘${p.pageTitle}’ and ${Number(p.count) - 1} more need approval first`}. Propose what is missing, leave it out, or let a manager do it with a reason.`,
  },
  'approval-unknown-person': {
    status: 422,
    title: 'Somebody is no colleague here',
    detail: () => 'Those who decide are colleagues of this site. Look at the list of colleagues again.',
  },
  'proposal-unknown': {
    status: 404,
    title: 'There is no such proposal',
    detail: () => 'It belongs to another site. Look at the proposals again.',
  },
  'proposal-closed': {
    status: 409,
    title: 'The proposal is closed',
    detail: () => 'It was returned, withdrawn or made live meanwhile. Look at the proposals again.',
  },
  'proposal-not-yours': {
    status: 403,
    title: 'This proposal is not yours to decide',
    detail: (p) => `${p.reason}`,
  },
  'proposal-changed': {
    status: 409,
    title: 'It was changed while you looked',
    detail: (p) => `‘${p.pageTitle}’ is not as you saw it any more. Look at it again, and decide then.`,
  },
  'proposal-nothing': {
    status: 422,
    title: 'There is nothing to propose',
    detail: () => 'Visitors have these pages as they are drafted. Choose pages that differ from what is live.',
  },
  'proposal-changes-nothing': {
    status: 409,
    title: 'It is so already',
    detail: () => 'The page has this title and stands in this place. Nothing was kept. Look at the page again.',
  },
  'comment-no-proposal': {
    status: 409,
    title: 'There is nothing to accept',
    detail: () => 'This is a comment or a question. Answer it or settle it instead.',
  },
  'visitor-exists': {
    status: 409,
    title: 'That mail address has an account',
    detail: (p) => `A visitor of this site has ${p.email} already. One mail address has one account; change that one.`,
  },
  'visitor-unknown': {
    status: 404,
    title: 'There is no such visitor',
    detail: () => 'The account was removed, or it belongs to another site. Look at the list of visitors again.',
  },
  'visitors-too-many': {
    status: 422,
    title: 'The list is too long',
    detail: (p) => `It has ${p.count} visitors; at most ${p.limit} can be imported at once. Import it in parts.`,
  },
  'nothing-live': {
    status: 409,
    title: 'Nothing is live yet',
    detail: () => 'Visitors and search engines have nothing of this site yet. Make pages live first.',
  },
  'joining-link-unknown': {
    status: 404,
    title: 'There is no such joining link',
    detail: () => 'It was withdrawn already, or it belongs to another site. Look at the list again.',
  },
  'route-unknown': {
    status: 404,
    title: 'No such route',
    detail: (p) => `${p.method} ${p.path} is not part of this API. GET /api/openapi.json lists what is.`,
  },
  'server-fault': {
    status: 500,
    title: 'Something went wrong in Spur',
    detail: (p) =>
      `Spur could not finish the request. Reload to see what is there now, then try again. If it happens again, look for ${p.request} in the server's log.`,
  },
  'outcome-unknown': {
    status: 503,
    title: 'Spur cannot tell whether this was saved',
    detail: (p) =>
      `The database went away while it was saving. ${p.request === '' ? 'Look in the history before you try again.' : 'Send the same request again, with the same id: it is done once. Or look in the history.'}`,
  },
  'site-unknown': {
    status: 404,
    title: 'No such site',
    detail: (p) => `There is no site with the key '${p.site}'. The list of sites shows those that there are.`,
  },
  'name-differs': {
    status: 409,
    title: 'Another name was typed',
    detail: (p) => `The site is called ‘${p.name}’. Type this name to delete it.`,
  },
  'deleted-site-unknown': {
    status: 404,
    title: 'No such deleted site',
    detail: () => 'It was brought back, or it is gone for good. Look at the list of deleted sites again.',
  },
  'site-exists': {
    status: 409,
    title: 'The key is taken',
    detail: (p) => `Another site has the key '${p.site}' already. Choose another key.`,
  },
  'request-reused': {
    status: 409,
    title: 'This request id was used before, for something else',
    detail: () => 'A request with this id was sent before, with other content. Nothing was changed. Use a new id.',
  },
  'stale-revision': {
    status: 409,
    title: 'The site has changed meanwhile',
    detail: (p) =>
      `You sent revision ${p.sent} and the site is at ${p.revision}. Nothing was changed. Fetch the tree again and send the change for that revision.`,
  },
  'preference-name': {
    status: 422,
    title: 'That is no name for a setting',
    detail: (p) => `‘${p.name}’ cannot name a setting. Use up to 60 small letters, digits, dots and hyphens.`,
  },
  'content-unknown': {
    status: 422,
    title: 'The text is not there',
    detail: (p) => `The text '${p.content}' is neither in the request nor in the site. Send it under "contents".`,
  },
  'content-mismatch': {
    status: 422,
    title: 'A text does not match its id',
    detail: (p) => `The text sent as '${p.content}' has the id '${p.expected}'. Send it under that id.`,
  },
  'content-invalid': {
    status: 422,
    title: 'A text cannot be read',
    detail: (p) => `The text '${p.content}' is not a document of the editor: ${p.reason}. Nothing was changed.`,
  },
  'revision-unknown': {
    status: 404,
    title: 'No such moment',
    detail: (p) => `The history has no revision ${p.revision}; it goes from 0 to ${p.latest}. Choose one of those.`,
  },
  'go-back-blocked': {
    status: 409,
    title: 'That state cannot be restored',
    detail: (p) => `${p.reason} Nothing was changed. Choose a later moment.`,
  },
  'nothing-to-go-back': {
    status: 409,
    title: 'Nothing to go back to',
    detail: () => 'The draft is the same as it was then.',
  },
  'undo-nothing': {
    status: 409,
    title: 'Nothing to undo',
    detail: () => 'You have made no changes on this site that are not already undone.',
  },
  'redo-nothing': {
    status: 409,
    title: 'Nothing to redo',
    detail: () => 'You have no undone change to redo.',
  },
  'undo-blocked': {
    status: 409,
    title: 'Somebody changed it after you',
    detail: (p) =>
      `${p.by} ${p.words} at ${p.at}, after your change. Undoing yours would undo that too. Nothing was changed.`,
  },
  'site-full': {
    status: 422,
    title: 'The site is full',
    detail: (p) =>
      `A site holds at most ${p.limit} pages, removed ones included. Nothing was changed. Delete removed pages for good, or plan this part as a separate site.`,
  },
  'site-too-large': {
    status: 507,
    title: 'The site is too large to open',
    detail: (p) =>
      `This site has more than ${p.limit} pages, the most that Spur can open. Nothing in it was changed. Ask whoever runs Spur to delete removed pages for good, or to split it into several sites.`,
  },
  'archive-too-large': {
    status: 409,
    title: 'The files are too large for one archive',
    detail: (p) =>
      `An archive holds up to ${p.limit} of files. Take it without them, and keep the folder of the files beside it.`,
  },
  'old-page-unknown': {
    status: 404,
    title: 'The inventory has no such page',
    detail: (p) => `The old site’s inventory has no page at ${p.address}. Bring its address first.`,
  },
  'old-page-unread': {
    status: 422,
    title: 'The old page cannot be read',
    detail: (p) => `The old page ${p.address} cannot be read: ${p.reason}`,
  },
  'not-an-address': {
    status: 422,
    title: 'This is not a web address',
    detail: (p) => `‘${p.address}’ cannot be opened. Type it whole, such as https://old.school.example/.`,
  },
  'address-unreadable': {
    status: 422,
    title: 'The address cannot be read',
    detail: (p) => `The address ${p.address} cannot be read. ${p.reason} Nothing was imported.`,
  },
  'file-unreadable': {
    status: 422,
    title: 'The file cannot be read',
    detail: (p) => `‘${p.name}’ cannot be read, line ${p.line}: ${p.reason} Nothing was imported.`,
  },
  'file-too-large': {
    status: 413,
    title: 'The file is too large',
    detail: (p) => `‘${p.name}’ has, or unpacks to, more than ${p.limit} MB. Nothing was imported. Import it in parts.`,
  },
  'too-many-old-pages': {
    status: 422,
    title: 'The inventory is full',
    detail: (p) =>
      `An inventory holds at most ${p.limit} addresses. Nothing was imported. Remove what does not matter first.`,
  },
  'starter-unknown': {
    status: 404,
    title: 'There is no such starter',
    detail: (p) => `There is no starter '${p.starter}' that could be deleted. Those that Spur ships stay.`,
  },
  'starter-empty': {
    status: 422,
    title: 'There is nothing to save',
    detail: () => 'What was chosen holds no page, only links or nothing. Choose a page or a branch.',
  },
  'starter-too-large': {
    status: 422,
    title: 'The starter is too large',
    detail: () => 'A starter has at most 2,000 pages on at most 40 levels. Nothing was saved. Choose a smaller branch.',
  },
  'starter-too-many': {
    status: 422,
    title: 'There are too many starters',
    detail: (p) => `At most ${p.limit} starters are kept. Nothing was saved. Delete some first.`,
  },
  'import-empty': {
    status: 422,
    title: 'There is nothing to import',
    detail: () => 'The file or the text is empty. Nothing was changed. Send `bytes` or `text` with something in it.',
  },
  'import-too-large': {
    status: 422,
    title: 'The import is too large',
    detail: (p) =>
      `It asks for ${p.count} changes, and at most ${p.limit} are made at once. Nothing was changed. Take it in parts.`,
  },
  'format-unknown': {
    status: 404,
    title: 'There is no such format',
    detail: (p) => `There is no export format ‘${p.format}’. The formats are listed in the documentation of the API.`,
  },
  'crawl-running': {
    status: 409,
    title: 'A crawl is under way',
    detail: () => 'The old site is being read already. Wait until it is done, or stop it first.',
  },
  'crawl-unknown': {
    status: 404,
    title: 'There is no crawl',
    detail: () => 'The old site has not been read yet. Start by giving the address where it begins.',
  },
  'directory-missing': {
    status: 409,
    title: 'No directory is connected',
    detail: () =>
      'Spur knows no directory of your organisation. Start it with SPUR_DIRECTORY_URL and SPUR_DIRECTORY_TOKEN.',
  },
  'directory-unreadable': {
    status: 502,
    title: 'The directory cannot be read',
    detail: (p) => `The directory cannot be read: ${p.reason}. Nothing was changed. Ask whoever manages it.`,
  },
  'directory-doubtful': {
    status: 409,
    title: 'Too many accounts would be suspended',
    detail: (p) =>
      `The directory would suspend ${p.count} accounts; the nightly run suspends at most ${p.limit}. Nothing was changed. Check the list, and synchronise by hand if it is right.`,
  },
  'nothing-to-release': {
    status: 409,
    title: 'Nothing would go live',
    detail: () => 'Nothing of what was chosen differs from what visitors have. Choose pages or settings that differ.',
  },
  'release-unknown': {
    status: 404,
    title: 'There is no such release',
    detail: (p) => `The site has no release ${p.release} that is kept. Look at the list of its releases.`,
  },
  'take-back-blocked': {
    status: 409,
    title: 'Something stands in the way',
    detail: (p) =>
      `Of what release ${p.release} did, ${p.count} cannot be taken back, since later releases build on it. Nothing was changed. Take those back first, or take back the rest.`,
  },
  'nothing-to-take-back': {
    status: 409,
    title: 'Nothing of the release can be taken back',
    detail: (p) =>
      `Nothing that release ${p.release} brought is still live, or later releases build on all of it. Take those back first.`,
  },
  'moment-past': {
    status: 422,
    title: 'The time has passed',
    detail: () => 'Choose a later time, or make the release now.',
  },
  'schedule-unknown': {
    status: 404,
    title: 'No such scheduled release',
    detail: () => 'No release is waiting under this id: it was made or cancelled. Look at the list.',
  },
} as const satisfies Record<string, ProblemWords>;
