import { whoOpensWords } from '#core/derive/who-opens.ts';
import type { SiteWords } from './site-words.ts';

const pages = (count: number): string => (count === 1 ? '1 page' : `${count} pages`);

export const ENGLISH: SiteWords = {
  toText: 'Go to the text',
  home: 'Go to the home page',
  menu: 'Menu',
  pagesIn: (entry) => `Pages in ${entry}`,
  trail: 'Breadcrumb',
  slots: { utility: 'top of the page', header: 'header', side: 'beside the text', footer: 'footer' },

  notSaid: 'Others',
  page: 'Page',
  description: 'Description',
  asCalendar: 'Add to your calendar',
  filter: 'Filter the list',
  all: 'All',
  show: 'Show',
  showAll: 'Show all',
  noneLeft: 'Nothing in the list matches.',
  left: (count) => (count === 1 ? '1 entry' : `${count} entries`),
  partsOfList: 'Parts of the list',
  inThisSection: 'In this section',
  allPages: 'All pages',
  aToZ: 'A to Z',
  turns: 'Previous and next',
  previous: 'Previous',
  next: 'Next',

  notFound: {
    title: 'There is no page at this address',
    text: 'It may have moved, or the address may have a typing mistake.',
    short: 'Not found',
  },
  gone: {
    title: 'This page is no longer there',
    text: 'It was removed permanently, and no other page has replaced it.',
    short: 'Gone',
  },
  menuAbove: 'The menu above lists the main pages.',
  near: 'You may be looking for',
  works: { title: 'Closed for works', text: 'This site is being worked on.' },
  opensAgain: (moment) => `It opens again on ${moment}.`,

  search: 'Search',
  searchThisSite: 'Search this site',
  searchFor: (words) => `Search for ${words}`,
  nothingFound: (words) => `No page contains ‘${words}’. Try fewer or different words.`,
  found: (count, words) => `${pages(count)} with ‘${words}’:`,
  nearlyFound: (count, words) => `No page contains exactly ‘${words}’. ${pages(count)} with similar words:`,
  bestOf: (count) => `The best ${count} are listed.`,
  results: 'Results',
  previousTen: 'Previous ten',
  pages: (count) => (count === 1 ? '1 page' : `${count} pages`),
  showFrame: (title) => `Show here: ${title}`,
  fromHost: (host) => `From ${host}. Nothing is loaded from there until you show it.`,
  openPicture: (name) => `Show large: ${name}`,
  close: 'Close',
  nextTen: 'Next ten',
  part: (part, of) => `Part ${part} of ${of}`,
  needsScript: 'The search needs JavaScript, which is switched off in this browser.',

  signIn: 'Sign in',
  signOut: 'Sign out',
  signInFirst: 'sign in first',
  yourAccount: 'Your account',
  changePassword: 'Change password',
  signedIn: 'You are signed in.',
  cannotOpen: 'You cannot open this page',
  notOpenToYou: (page, toWhom) => `‘${page}’ is not open to you. ${toWhom}If it should be, ask the site’s managers.`,
  notOpenToAll: (page, toWhom) =>
    `‘${page}’ is not open to everyone. ${toWhom}Sign in to see it. If you have no account, ask the site’s managers.`,
  openTo: (who) => {
    const words = whoOpensWords(who);
    return words === null ? '' : `It is open to ${words}. `;
  },
  mailAddress: 'Mail address',
  password: 'Password',
  signInWrong: 'The mail address and password do not match. Check both and try again.',
  forgotten: 'Forgotten your password?',
  signInToGoOn: 'Sign in to go on.',
  done: { password: 'Your password is set.', joined: 'You have joined. Your account is ready.' },

  passphrase: 'Passphrase',
  asksForPassphrase: 'asks for a passphrase',
  opensWithPassphrase: (page) =>
    `${page === null ? 'This page opens' : `‘${page}’ opens`} with a passphrase. If you do not have it, ask whoever gave you the address.`,
  passphraseWrong: 'This is not the passphrase. Check it, capital letters too, and try again.',
  openPage: 'Open the page',

  form: {
    send: 'Send',
    required: 'required',
    step: (step, of) => `Step ${step} of ${of}`,
    chooseOne: 'Choose one',
    first: 'First day',
    last: 'Last day',
    onlyIf: (field, words, isSo) =>
      words === null
        ? `Only if ‘${field}’ is ${isSo ? 'filled in' : 'left empty'}.`
        : `Only if ‘${field}’ is ${isSo ? '' : 'not '}‘${words}’.`,
    thanks: 'Thank you. Your answer has been sent.',
    notSent: (faults) =>
      faults === 0
        ? 'Your answer has not been sent yet.'
        : `Your answer has not been sent yet. Correct ${faults === 1 ? 'one field' : `${faults} fields`}:`,
    faults: {
      required: (field) => `Fill in ‘${field}’.`,
      unreadable: (field, expected) => `That does not fit ‘${field}’. Type ${expected}.`,
      changed: (page) => `‘${page}’ has changed since you opened this form. Read it and tick the box again.`,
      file: (field, largest) =>
        `The file for ‘${field}’ cannot be accepted. Choose a picture, a PDF or an office document of up to ${largest}.`,
    },
    expects: {
      text: 'up to 300 letters on one line',
      longText: 'up to 4,000 letters',
      number: 'a number, such as 12.5',
      money: 'an amount, such as 420',
      yesNo: 'yes or no',
      choice: 'one of the choices',
      day: 'a day, such as 5 March 2027',
      moment: 'a day and a time, such as 5 March 2027 18:30',
      period: 'two days, the first one first',
      telephone: 'a telephone number, such as +44 1632 960 001',
      mail: 'a mail address, such as name@pellow-quay.example',
      link: 'an address that begins with https://',
      address: 'up to 500 letters, a line for each part',
      place: 'degrees north and east, such as 54.12, -3.21',
      file: 'a file',
      pages: 'one of the choices',
    },
    quick: 'That was very quick. Check what you wrote, and send it again.',
    late: 'This form was open for a long time. Check what you wrote, and send it again.',
    filledTrap: 'The field ‘Leave this field empty’ was filled in. Empty it, and send the form again.',
    tooMany: (minutes) =>
      `Too many answers came from your network. Wait ${minutes === 1 ? 'a minute' : `${minutes} minutes`}, and send it again.`,
    leaveEmpty: 'Leave this field empty',
    read: (page) => `Read: ${page}`,
    chooseFileAgain: 'Choose the file again.',
    notHere: 'This form can be sent only on the site itself.',
    gone: { title: 'This form is no longer there', text: 'It was changed or removed since you opened it.' },
  },

  thisSite: 'this site',
  join: (audience) => `Join ${audience}`,
  joinButton: 'Join',
  approvedFirst: (site) => `The site’s managers approve each request to join ${site}.`,
  typeToJoin: 'Type your mail address. We will send you a mail with a link to continue.',
  sendMail: 'Send me the mail',
  newPassword: 'A new password',
  typeForPassword: 'Type the mail address of your account. We send you a link to choose a new password.',
  sendLink: 'Send me the link',
  askedToJoin: 'You have asked to join',
  waitsForApproval: [
    'The site’s managers will approve your request. You can ',
    'sign in',
    ' already; more pages open once they have.',
  ],
  linkEnded: {
    title: 'This link has ended',
    text: 'It has been used or withdrawn, or it has expired. Ask whoever gave it to you for a new one.',
  },
  checkMail: 'Check your mail',
  mailSent: (email) => `We have sent a mail to ${email}. Follow its link within a day.`,
  typeName: 'Type your name.',
  typeMail: 'Type a mail address, such as you@school.example.',
  longerPassword: (least) => `Use at least ${least} characters for the password.`,
  yourName: 'Your name',
  aPassword: (least) => `A password, at least ${least} characters`,
  theNewPassword: (least) => `The new password, at least ${least} characters`,
  forAccount: (email) => `For the account of ${email}.`,
  setPassword: 'Set the password',
  letters: {
    join: {
      subject: ({ audience, site }) => `Join ${audience} at ${site}`,
      text: ({ audience, site, address }) =>
        `You asked to join ‘${audience}’ at ${site}.\n\nContinue here: ${address}\n\nThe link works once, within a day. If you did not ask for this, ignore this mail.`,
    },
    password: {
      subject: ({ site }) => `A new password for ${site}`,
      text: ({ address }) =>
        `Choose a new password here: ${address}\n\nThe link works once, within a day. Your current password works until then. If you did not ask for this, ignore this mail.`,
    },
    noAccount: {
      subject: ({ site }) => `Your account at ${site}`,
      text: ({ site }) =>
        `Somebody asked for a new password for ${site}. There is no account for this mail address. If you asked, you may have joined with another address; ask the site’s managers.`,
    },
    welcome: {
      subject: ({ site }) => `Your account at ${site}`,
      text: ({ site, address }) =>
        `You now have an account at ${site}.\n\nChoose a password here: ${address}\n\nThe link works for a day. After that, ask for a new one on the sign-in page.`,
    },
  },
};
