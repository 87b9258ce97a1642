import { createHash } from 'node:crypto';
import { type Html, sound, markup } from './html.ts';

/** Closes what is open of the menu in the header by Escape, and by a click elsewhere. Without it the menu opens and closes all the same. */
const SCRIPT =
  `{const all=()=>document.querySelectorAll('.menu details[name][open]');` +
  `addEventListener('keydown',e=>{if(e.key==='Escape')for(const d of all()){if(d.contains(document.activeElement))d.firstElementChild.focus();d.open=false}});` +
  `addEventListener('click',e=>{if(!e.target.closest('.menu'))for(const d of all())d.open=false})}`;

export const MENU_SCRIPT: Html = markup`<script>${sound(SCRIPT)}</script>`;

/** The script for the content security policy: it alone may run, as it is and by no other words. */
export const MENU_SCRIPT_SOURCE = `'sha256-${createHash('sha256').update(SCRIPT).digest('base64')}'`;
