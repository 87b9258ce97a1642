import { FRAME_CLASS, hostOfFrame } from '#core/sections/frame.ts';
import { FRAME_DATA, FRAME_SCRIPT, FRAME_SCRIPT_SOURCE } from './frame-script.ts';
import { markup, sound } from './html.ts';
import { elementsOf, withElements } from './html-elements.ts';
import type { LiveView } from './live-view.ts';
import { siteWords } from './site-words.ts';

/**
 * A text with its outside frames: each is a link that shows the frame in its place, where its host is among those that the site allows,
 * else one that leads there. Nothing is asked for from another host before.
 */
export function withFrames(text: string, { site }: LiveView): string {
  if (!text.includes(`class="${FRAME_CLASS} `)) return text;
  const words = siteWords(site.settings.language);
  const allowed = new Set(site.settings.hosts);
  let isAny = false;
  const figures = elementsOf(
    text,
    (name, attributes) => name === 'figure' && attributes.class?.startsWith(`${FRAME_CLASS} `) === true,
  );
  const made = withElements(text, figures, ({ attributes, words: title }, inner) => {
    const address = elementsOf(inner, (name) => name === 'a')[0]?.attributes.href ?? '';
    const host = hostOfFrame(address);
    if (host === null) return '';
    const name = title.trim() || host;
    if (!allowed.has(host)) return markup`<p><a href="${address}">${name}</a></p>`.text;
    isAny = true;
    return markup`<figure class="${attributes.class!}"><a href="${address}" ${sound(FRAME_DATA)}="${name}">${words.showFrame(name)}</a><figcaption>${words.fromHost(host)}</figcaption></figure>`
      .text;
  });
  return isAny ? made + FRAME_SCRIPT.text : made;
}

/** The hosts of the frames that a page can show. */
export function hostsOfFrames(html: string): string[] {
  if (!html.includes(` ${FRAME_DATA}="`)) return [];
  const links = elementsOf(html, (name, attributes) => name === 'a' && FRAME_DATA in attributes);
  return [...new Set(links.flatMap(({ attributes }) => hostOfFrame(attributes.href ?? '') ?? []))];
}

/** A content security policy that lets a page show its frames. */
export const policyWith = (policy: string, hosts: readonly string[]): string =>
  hosts.length === 0
    ? policy
    : `${policy.replace('script-src ', `script-src ${FRAME_SCRIPT_SOURCE} `)}; frame-src ${hosts.map((host) => `https://${host}`).join(' ')}`;
