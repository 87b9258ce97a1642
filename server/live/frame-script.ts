import { createHash } from 'node:crypto';
import { type Html, markup, sound } from './html.ts';

/** In a link: that it can show what it leads to in its place; its value is what that is. */
export const FRAME_DATA = 'data-frame';

/** Puts a frame in the place of the link that asks for it. Without it the link leads there. */
const SCRIPT =
  `addEventListener('click',e=>{const a=e.target.closest('a[${FRAME_DATA}]');if(!a||e.button||e.metaKey||e.ctrlKey||e.shiftKey||e.altKey)return;` +
  `e.preventDefault();const f=document.createElement('iframe');f.title=a.dataset.frame;f.referrerPolicy='strict-origin';f.allow='fullscreen; picture-in-picture';` +
  `f.setAttribute('sandbox','allow-scripts allow-same-origin allow-forms allow-popups allow-presentation');f.src=a.href;a.replaceWith(f);f.focus()})`;

export const FRAME_SCRIPT: Html = markup`<script>${sound(SCRIPT)}</script>`;

/** The script for the content security policy. */
export const FRAME_SCRIPT_SOURCE = `'sha256-${createHash('sha256').update(SCRIPT).digest('base64')}'`;
