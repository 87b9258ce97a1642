import type { WhoOpens } from '#core/derive/who-opens.ts';
import type { FormFieldType } from '#core/model/site-form.ts';
import type { MenuSlot } from '#core/model/layout.ts';
import { ENGLISH } from './site-words-english.ts';
import { GERMAN } from './site-words-german.ts';

/** A heading and a sentence below it. */
export interface Said {
  readonly title: string;
  readonly text: string;
}

/** What visitors' pages say by themselves, beside what the site's own pages do; in one language. */
export interface SiteWords {
  readonly toText: string;
  readonly home: string;
  readonly menu: string;
  /** What opens the pages below an entry of a menu; not seen, for screen readers. */
  readonly pagesIn: (entry: string) => string;
  readonly trail: string;
  readonly slots: Readonly<Record<MenuSlot, string>>;

  /** What heads a group of pages that say nothing of what others are grouped by. */
  readonly notSaid: string;
  /** What heads the columns of a table of pages. */
  readonly page: string;
  readonly description: string;
  /** The way to a file for calendars. */
  readonly asCalendar: string;
  /** What a list is filtered by. */
  readonly filter: string;
  readonly all: string;
  readonly show: string;
  readonly showAll: string;
  readonly noneLeft: string;
  readonly left: (count: number) => string;
  readonly partsOfList: string;
  readonly inThisSection: string;
  readonly allPages: string;
  readonly aToZ: string;
  readonly turns: string;
  readonly previous: string;
  readonly next: string;

  readonly notFound: Said & { readonly short: string };
  readonly gone: Said & { readonly short: string };
  readonly menuAbove: string;
  readonly near: string;
  readonly works: Said;
  readonly opensAgain: (moment: string) => string;

  readonly search: string;
  readonly searchThisSite: string;
  readonly searchFor: (words: string) => string;
  /** Said of results by the server, and by the search of a site that stands as files. */
  readonly nothingFound: (words: string) => string;
  readonly found: (count: number, words: string) => string;
  readonly nearlyFound: (count: number, words: string) => string;
  readonly bestOf: (count: number) => string;
  readonly results: string;
  readonly previousTen: string;
  /** Of a document: how many pages it has. */
  readonly pages: (count: number) => string;
  /** What shows a frame of another host. */
  readonly showFrame: (title: string) => string;
  readonly fromHost: (host: string) => string;
  readonly openPicture: (name: string) => string;
  readonly close: string;
  readonly nextTen: string;
  readonly part: (part: number, of: number) => string;
  readonly needsScript: string;

  readonly signIn: string;
  readonly signOut: string;
  readonly signInFirst: string;
  readonly yourAccount: string;
  readonly changePassword: string;
  readonly signedIn: string;
  readonly cannotOpen: string;
  readonly notOpenToYou: (page: string, toWhom: string) => string;
  readonly notOpenToAll: (page: string, toWhom: string) => string;
  readonly openTo: (who: WhoOpens) => string;
  readonly mailAddress: string;
  readonly password: string;
  readonly signInWrong: string;
  readonly forgotten: string;
  readonly signInToGoOn: string;
  readonly done: Readonly<Record<'password' | 'joined', string>>;

  readonly passphrase: string;
  readonly asksForPassphrase: string;
  /** `page` is null where it is not named. */
  readonly opensWithPassphrase: (page: string | null) => string;
  readonly passphraseWrong: string;
  readonly openPage: string;

  readonly form: FormWords;

  readonly thisSite: string;
  readonly join: (audience: string) => string;
  readonly joinButton: string;
  readonly approvedFirst: (site: string) => string;
  readonly typeToJoin: string;
  readonly sendMail: string;
  readonly newPassword: string;
  readonly typeForPassword: string;
  readonly sendLink: string;
  readonly askedToJoin: string;
  /** In three parts: what stands before the link, the link's words, and what stands behind it. */
  readonly waitsForApproval: readonly [string, string, string];
  readonly linkEnded: Said;
  readonly checkMail: string;
  readonly mailSent: (email: string) => string;
  readonly typeName: string;
  readonly typeMail: string;
  readonly longerPassword: (least: number) => string;
  readonly yourName: string;
  readonly aPassword: (least: number) => string;
  readonly theNewPassword: (least: number) => string;
  readonly forAccount: (email: string) => string;
  readonly setPassword: string;

  readonly letters: Readonly<Record<'join' | 'password' | 'noAccount' | 'welcome', LetterWords>>;
}

/** What a form says beside the names and the help of its fields. */
export interface FormWords {
  readonly send: string;
  readonly required: string;
  readonly step: (step: number, of: number) => string;
  readonly chooseOne: string;
  readonly first: string;
  readonly last: string;
  /** Said without scripts of a field that is asked for only if another one says something. */
  readonly onlyIf: (field: string, words: string | null, isSo: boolean) => string;
  readonly thanks: string;
  readonly notSent: (faults: number) => string;
  readonly faults: {
    readonly required: (field: string) => string;
    readonly unreadable: (field: string, expected: string) => string;
    /** What is agreed to is another text than when the form was opened. */
    readonly changed: (page: string) => string;
    readonly file: (field: string, largest: string) => string;
  };
  /** What is expected in a field, after "Type". */
  readonly expects: Readonly<Record<FormFieldType, string>>;
  readonly quick: string;
  readonly late: string;
  readonly filledTrap: string;
  readonly tooMany: (minutes: number) => string;
  readonly leaveEmpty: string;
  readonly read: (page: string) => string;
  readonly chooseFileAgain: string;
  readonly notHere: string;
  readonly gone: Said;
}

/** What a letter to a visitor says; each gets what the letter is about. */
export interface LetterWords {
  readonly subject: (about: LetterAbout) => string;
  readonly text: (about: LetterAbout) => string;
}
export interface LetterAbout {
  readonly site: string;
  /** The audience to join; '' where it is about none. */
  readonly audience: string;
  /** Where it goes on, once. */
  readonly address: string;
}

const TABLE: Readonly<Record<string, SiteWords>> = { en: ENGLISH, de: GERMAN };

/** The languages that the words are there in. */
export const WORD_LANGUAGES: readonly string[] = Object.keys(TABLE);

/** The words in a site's language (a tag such as `de` or `de-AT`); in English where they are not there in it. */
export const siteWords = (language: string): SiteWords => TABLE[language.split('-')[0]!.toLowerCase()] ?? ENGLISH;
