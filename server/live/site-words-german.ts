import type { SiteWords } from './site-words.ts';

const pages = (count: number): string => (count === 1 ? '1 Seite' : `${count} Seiten`);
const list = (names: readonly string[]): string => new Intl.ListFormat('de', { type: 'conjunction' }).format(names);

export const GERMAN: SiteWords = {
  toText: 'Zum Text',
  home: 'Zur Startseite',
  menu: 'Menü',
  pagesIn: (entry) => `Seiten unter ${entry}`,
  trail: 'Sie sind hier',
  slots: { utility: 'oben auf der Seite', header: 'Kopf', side: 'neben dem Text', footer: 'Fuß' },

  notSaid: 'Andere',
  page: 'Seite',
  description: 'Beschreibung',
  asCalendar: 'In den Kalender übernehmen',
  filter: 'Liste filtern',
  all: 'Alle',
  show: 'Anzeigen',
  showAll: 'Alle anzeigen',
  noneLeft: 'Kein Eintrag passt dazu.',
  left: (count) => (count === 1 ? '1 Eintrag' : `${count} Einträge`),
  partsOfList: 'Teile der Liste',
  inThisSection: 'In diesem Bereich',
  allPages: 'Alle Seiten',
  aToZ: 'A bis Z',
  turns: 'Zurück und weiter',
  previous: 'Zurück',
  next: 'Weiter',

  notFound: {
    title: 'Unter dieser Adresse gibt es keine Seite',
    text: 'Vielleicht ist sie umgezogen, oder die Adresse enthält einen Tippfehler.',
    short: 'Nicht gefunden',
  },
  gone: {
    title: 'Diese Seite gibt es nicht mehr',
    text: 'Sie wurde endgültig entfernt, und keine andere ist an ihre Stelle getreten.',
    short: 'Entfernt',
  },
  menuAbove: 'Die wichtigsten Seiten stehen oben im Menü.',
  near: 'Vielleicht suchen Sie',
  works: { title: 'Wegen Arbeiten geschlossen', text: 'An dieser Website wird gerade gearbeitet.' },
  opensAgain: (moment) => `Sie öffnet wieder am ${moment}.`,

  search: 'Suche',
  searchThisSite: 'Diese Website durchsuchen',
  searchFor: (words) => `Suche nach ${words}`,
  nothingFound: (words) => `Keine Seite enthält „${words}“. Versuchen Sie es mit weniger oder anderen Wörtern.`,
  found: (count, words) => `${pages(count)} mit „${words}“:`,
  nearlyFound: (count, words) => `Keine Seite enthält genau „${words}“. ${pages(count)} mit ähnlichen Wörtern:`,
  bestOf: (count) => `Aufgeführt sind die besten ${count}.`,
  results: 'Ergebnisse',
  previousTen: 'Vorige zehn',
  pages: (count) => (count === 1 ? '1 Seite' : `${count} Seiten`),
  showFrame: (title) => `Hier zeigen: ${title}`,
  fromHost: (host) => `Von ${host}. Erst wenn Sie es zeigen, wird etwas von dort geladen.`,
  openPicture: (name) => `Groß zeigen: ${name}`,
  close: 'Schließen',
  nextTen: 'Nächste zehn',
  part: (part, of) => `Teil ${part} von ${of}`,
  needsScript: 'Die Suche braucht JavaScript, das in diesem Browser ausgeschaltet ist.',

  signIn: 'Anmelden',
  signOut: 'Abmelden',
  signInFirst: 'erst anmelden',
  yourAccount: 'Ihr Konto',
  changePassword: 'Passwort ändern',
  signedIn: 'Sie sind angemeldet.',
  cannotOpen: 'Sie können diese Seite nicht öffnen',
  notOpenToYou: (page, toWhom) =>
    `„${page}“ ist für Sie nicht zugänglich. ${toWhom}Wenden Sie sich an die Betreuung der Website, wenn Sie Zugang haben sollten.`,
  notOpenToAll: (page, toWhom) =>
    `„${page}“ ist nicht für alle zugänglich. ${toWhom}Melden Sie sich an, um die Seite zu sehen. Wenn Sie kein Konto haben, wenden Sie sich an die Betreuung der Website.`,
  openTo: ({ signedOut, audiences, except }) => {
    const names = [...audiences.map(({ name }) => name), ...(signedOut ? ['alle, die nicht angemeldet sind'] : [])];
    if (names.length === 0) return '';
    const without = except.length === 0 ? '' : `, aber nicht für ${list(except.map(({ name }) => name))}`;
    return `Zugänglich ist sie für ${list(names)}${without}. `;
  },
  mailAddress: 'E-Mail-Adresse',
  password: 'Passwort',
  signInWrong: 'E-Mail-Adresse und Passwort passen nicht zusammen. Prüfen Sie beides und versuchen Sie es noch einmal.',
  forgotten: 'Passwort vergessen?',
  signInToGoOn: 'Melden Sie sich an, um fortzufahren.',
  done: {
    password: 'Ihr Passwort ist gesetzt.',
    joined: 'Sie sind beigetreten. Ihr Konto ist eingerichtet.',
  },

  passphrase: 'Kennwort',
  asksForPassphrase: 'mit Kennwort',
  opensWithPassphrase: (page) =>
    `${page === null ? 'Diese Seite öffnet' : `„${page}“ öffnet`} sich mit einem Kennwort. Wenn Sie es nicht haben, fragen Sie die Person, von der Sie die Adresse haben.`,
  passphraseWrong:
    'Das ist nicht das Kennwort. Prüfen Sie es, auch Groß- und Kleinschreibung, und versuchen Sie es noch einmal.',
  openPage: 'Seite öffnen',

  form: {
    send: 'Absenden',
    required: 'erforderlich',
    step: (step, of) => `Schritt ${step} von ${of}`,
    chooseOne: 'Bitte wählen',
    first: 'Erster Tag',
    last: 'Letzter Tag',
    onlyIf: (field, words, isSo) =>
      words === null
        ? `Nur, wenn „${field}“ ${isSo ? 'ausgefüllt' : 'leer'} ist.`
        : `Nur, wenn „${field}“ ${isSo ? '' : 'nicht '}„${words}“ ist.`,
    thanks: 'Vielen Dank. Ihre Antwort ist abgeschickt.',
    notSent: (faults) =>
      faults === 0
        ? 'Ihre Antwort ist noch nicht abgeschickt.'
        : `Ihre Antwort ist noch nicht abgeschickt. Bitte prüfen Sie ${faults === 1 ? 'ein Feld' : `${faults} Felder`}:`,
    faults: {
      required: (field) => `Füllen Sie „${field}“ aus.`,
      unreadable: (field, expected) => `Das passt nicht zu „${field}“. Erwartet wird ${expected}.`,
      changed: (page) =>
        `„${page}“ wurde geändert, seit Sie das Formular geöffnet haben. Lesen Sie die Seite und setzen Sie das Häkchen noch einmal.`,
      file: (field, largest) =>
        `Die Datei für „${field}“ kann nicht angenommen werden. Wählen Sie ein Bild, ein PDF oder ein Office-Dokument bis ${largest}.`,
    },
    expects: {
      text: 'eine Zeile mit bis zu 300 Zeichen',
      longText: 'ein Text mit bis zu 4.000 Zeichen',
      number: 'eine Zahl, zum Beispiel 12,5',
      money: 'ein Betrag, zum Beispiel 420',
      yesNo: 'ja oder nein',
      choice: 'eine der Möglichkeiten',
      day: 'ein Tag, zum Beispiel 5. März 2027',
      moment: 'ein Tag mit Uhrzeit, zum Beispiel 5. März 2027 18:30',
      period: 'zwei Tage, der erste zuerst',
      telephone: 'eine Telefonnummer, zum Beispiel +44 1632 960 001',
      mail: 'eine E-Mail-Adresse, zum Beispiel name@pellow-quay.example',
      link: 'eine Adresse, die mit https:// beginnt',
      address: 'bis zu 500 Zeichen, eine Zeile für jeden Teil',
      place: 'Grad Nord und Ost, zum Beispiel 54.12, -3.21',
      file: 'eine Datei',
      pages: 'eine der Möglichkeiten',
    },
    quick: 'Das ging sehr schnell. Prüfen Sie Ihre Angaben und senden Sie sie noch einmal ab.',
    late: 'Das Formular war lange geöffnet. Prüfen Sie Ihre Angaben und senden Sie sie noch einmal ab.',
    filledTrap:
      'Das Feld „Dieses Feld leer lassen“ wurde ausgefüllt. Leeren Sie es und senden Sie das Formular noch einmal ab.',
    tooMany: (minutes) =>
      `Aus Ihrem Netz kamen zu viele Antworten. Warten Sie ${minutes === 1 ? 'eine Minute' : `${minutes} Minuten`} und senden Sie noch einmal ab.`,
    leaveEmpty: 'Dieses Feld leer lassen',
    read: (page) => `Lesen: ${page}`,
    chooseFileAgain: 'Wählen Sie die Datei noch einmal.',
    notHere: 'Dieses Formular kann nur auf der Website selbst abgeschickt werden.',
    gone: {
      title: 'Dieses Formular gibt es nicht mehr',
      text: 'Es wurde geändert oder entfernt, seit Sie es geöffnet haben.',
    },
  },

  thisSite: 'dieser Website',
  join: (audience) => `Beitreten: ${audience}`,
  joinButton: 'Beitreten',
  approvedFirst: (site) => `Anfragen, ${site} beizutreten, werden von der Betreuung der Website freigegeben.`,
  typeToJoin:
    'Geben Sie Ihre E-Mail-Adresse ein. Wir schicken Ihnen eine E-Mail mit einem Link, über den es weitergeht.',
  sendMail: 'E-Mail senden',
  newPassword: 'Ein neues Passwort',
  typeForPassword:
    'Geben Sie die E-Mail-Adresse Ihres Kontos ein. Wir schicken Ihnen einen Link, über den Sie ein neues Passwort wählen.',
  sendLink: 'Link senden',
  askedToJoin: 'Ihre Anfrage ist angekommen',
  waitsForApproval: [
    'Die Betreuung der Website wird Ihre Anfrage prüfen. Sie können sich schon ',
    'anmelden',
    '; nach der Freigabe öffnen sich weitere Seiten.',
  ],
  linkEnded: {
    title: 'Dieser Link gilt nicht mehr',
    text: 'Er wurde benutzt oder zurückgezogen, oder er ist abgelaufen. Bitten Sie die Person, von der Sie ihn haben, um einen neuen.',
  },
  checkMail: 'Sehen Sie in Ihre E-Mails',
  mailSent: (email) => `Wir haben eine E-Mail an ${email} geschickt. Folgen Sie dem Link darin innerhalb eines Tages.`,
  typeName: 'Geben Sie Ihren Namen ein.',
  typeMail: 'Geben Sie eine E-Mail-Adresse ein, etwa sie@schule.example.',
  longerPassword: (least) => `Das Passwort braucht mindestens ${least} Zeichen.`,
  yourName: 'Ihr Name',
  aPassword: (least) => `Ein Passwort mit mindestens ${least} Zeichen`,
  theNewPassword: (least) => `Das neue Passwort mit mindestens ${least} Zeichen`,
  forAccount: (email) => `Für das Konto von ${email}.`,
  setPassword: 'Passwort setzen',
  letters: {
    join: {
      subject: ({ audience, site }) => `${audience}: Beitritt bei ${site}`,
      text: ({ audience, site, address }) =>
        `Sie möchten bei ${site} der Gruppe „${audience}“ beitreten.\n\nHier geht es weiter: ${address}\n\nDer Link gilt einmal und einen Tag lang. Wenn Sie nicht darum gebeten haben, lassen Sie diese E-Mail einfach liegen.`,
    },
    password: {
      subject: ({ site }) => `Ein neues Passwort für ${site}`,
      text: ({ address }) =>
        `Wählen Sie hier ein neues Passwort: ${address}\n\nDer Link gilt einmal und einen Tag lang. Bis dahin gilt Ihr bisheriges Passwort. Wenn Sie nicht darum gebeten haben, lassen Sie diese E-Mail einfach liegen.`,
    },
    noAccount: {
      subject: ({ site }) => `Ihr Konto bei ${site}`,
      text: ({ site }) =>
        `Jemand hat um ein neues Passwort für ${site} gebeten. Zu dieser E-Mail-Adresse gibt es kein Konto. Wenn Sie es waren, haben Sie sich vielleicht mit einer anderen Adresse angemeldet; fragen Sie die Betreuung der Website.`,
    },
    welcome: {
      subject: ({ site }) => `Ihr Konto bei ${site}`,
      text: ({ site, address }) =>
        `Sie haben jetzt ein Konto bei ${site}.\n\nWählen Sie hier ein Passwort: ${address}\n\nDer Link gilt einen Tag lang. Danach fordern Sie auf der Anmeldeseite einen neuen an.`,
    },
  },
};
