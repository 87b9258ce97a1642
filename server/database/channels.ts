import type { Database } from './connect.ts';
import { Statement, withConnection } from './statement.ts';

/** The channels of PostgreSQL's NOTIFY by which Spur's processes tell each other what has happened. */

/** On each edit: the site's key, a space, the new revision. */
export const EDIT_CHANNEL = 'spur_edit';
/** On each release: the site's key. */
export const RELEASE_CHANNEL = 'spur_release';
/** When a site was deleted or brought back: the key. */
export const SITE_CHANNEL = 'spur_site';
/** When a session has ended: its id. */
export const SESSION_CHANNEL = 'spur_session';
/** When colleagues or roles of a site have changed: the site's key. */
export const PEOPLE_CHANNEL = 'spur_people';
/** When a visitor's account has changed or is gone: its id. */
export const VISITOR_CHANNEL = 'spur_visitor';
/** When something was said of a shared plan, or settled: the site's key. */
export const FEEDBACK_CHANNEL = 'spur_feedback';
/** When an answer to a form has come: the site's key, and `files` behind it where files came with it. */
export const ANSWER_CHANNEL = 'spur_answer';
/** While a long release is made: `ReleaseProgress` with the site's key, as JSON. */
export const PROGRESS_CHANNEL = 'spur_progress';
/** Somebody writes in a text, or has left it: `WritingNews` with the site's key, as JSON. */
export const WRITING_CHANNEL = 'spur_writing';
/** Something was written in a text that several write in, or its page has it now: `JointNews` with the site's key, as JSON. */
export const JOINT_CHANNEL = 'spur_joint';
/** Somebody is on a page, or has gone: `HereNews` with the site's key, as JSON. */
export const HERE_CHANNEL = 'spur_here';
/** A release was set for a moment to come. The payload is the site's key. */
export const SCHEDULE_CHANNEL = 'spur_schedule';

/** To the visitors' processes, that one of them is to confirm what it was told before: `<question> <site's key>`. */
export const ASK_CHANNEL = 'spur_ask';
/** A visitors' process confirms: `<question> <its listening connection>`. */
export const TAKEN_CHANNEL = 'spur_taken';

/** The name that the listening connections of visitors' processes bear in the database. */
export const VISITORS_SIDE = 'spur visitors';

/** Tells all processes that listen to a channel. */
export const tell = async (database: Database, channel: string, told: readonly string[]): Promise<void> => {
  const statement = new Statement();
  const values = statement.value(told);
  await withConnection(database, (connection) =>
    statement.run(connection, `SELECT pg_notify('${channel}', told) FROM unnest(${values}::text[]) AS told`),
  );
};
