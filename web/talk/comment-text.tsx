import { Fragment } from 'react';
import type { SiteKey } from '#core/model/ids.ts';
import { type Mentionable, mentionsIn } from '#core/talk/mentions.ts';
import { useMentionable } from './use-mentionable.ts';

/** What somebody said, with those who are mentioned set apart. */
export function CommentText({ site, text }: { readonly site: SiteKey; readonly text: string }) {
  return <p className="whitespace-pre-wrap wrap-anywhere">{withMentions(text, useMentionable(site))}</p>;
}

function withMentions(text: string, people: readonly Mentionable[]) {
  const mentions = mentionsIn(text, people);
  let end = 0;
  return [
    ...mentions.map(({ from, to }) => {
      const before = text.slice(end, from);
      end = to;
      return (
        <Fragment key={from}>
          {before}
          <span className="font-medium text-accent">{text.slice(from, to)}</span>
        </Fragment>
      );
    }),
    text.slice(mentions.at(-1)?.to ?? 0),
  ];
}
