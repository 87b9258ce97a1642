import { createHash } from 'node:crypto';
import { type Html, markup, sound } from './html.ts';

/** On a part of a form: by what another field says it is asked for, as JSON. */
export const ASKED_IF = 'data-if';
/** On the parts that say the same in words, for those without scripts. */
export const ONLY_IF = 'only-if';

/**
 * Shows what is asked for by what is said, and the steps of a form one at a time. Without it all stands below each other, and
 * the server passes over what was not asked for.
 */
const SCRIPT = `for(const f of document.querySelectorAll('form.answer')){
const steps=[...f.querySelectorAll('fieldset.step')],send=f.querySelector('.send');let at=0;
const said=i=>new FormData(f).getAll('f.'+i).map(v=>v instanceof File?v.name:v.trim()).filter(Boolean);
const look=()=>{for(const e of f.querySelectorAll('[${ASKED_IF}]')){const c=JSON.parse(e.getAttribute('${ASKED_IF}')),v=said(c.field),
is=c.value===null?v.length>0:v.includes(c.value),on=is===c.isSo;e.hidden=!on;
for(const x of e.querySelectorAll('input,select,textarea')){x.disabled=!on;if(x.hasAttribute('data-required'))x.required=on}}};
const asks=s=>[...s.elements].some(x=>!x.disabled&&x.type!=='button'&&x.type!=='hidden');
const show=(n,isMoved)=>{at=n;steps.forEach((s,i)=>{s.hidden=i!==n});send.hidden=next(n,1)!==-1;
for(const b of f.querySelectorAll('[data-turn]')){const by=Number(b.dataset.turn);b.hidden=next(n,by)===-1}
if(isMoved){const l=steps[n].querySelector('legend');l.focus();l.scrollIntoView({block:'nearest'})}};
const next=(n,by)=>{for(let i=n+by;i>=0&&i<steps.length;i+=by)if(asks(steps[i]))return i;return -1};
const isFit=s=>[...s.elements].every(x=>x.type==='button'||x.reportValidity());
for(const e of f.querySelectorAll('.${ONLY_IF}'))e.hidden=true;
look();for(const t of ['input','change'])f.addEventListener(t,()=>{look();if(steps.length>1)show(at)});
if(steps.length>1){f.noValidate=true;for(const p of f.querySelectorAll('.turn'))p.hidden=false;
const wrong=steps.findIndex(s=>s.querySelector('.fault'));show(wrong===-1?0:wrong);
f.addEventListener('click',e=>{const b=e.target.closest('[data-turn]');if(!b)return;const by=Number(b.dataset.turn),to=next(at,by);
if(to!==-1&&(by<0||isFit(steps[at])))show(to,true)});
f.addEventListener('submit',e=>{const to=next(at,1);if(to!==-1){e.preventDefault();if(isFit(steps[at]))show(to,true);return}
const bad=steps.findIndex(s=>asks(s)&&[...s.elements].some(x=>x.willValidate&&!x.checkValidity()));
if(bad!==-1){e.preventDefault();show(bad);isFit(steps[bad])}})}}`.replace(/\n/g, '');

export const FORM_SCRIPT: Html = markup`<script>${sound(SCRIPT)}</script>`;

const SOURCE = `'sha256-${createHash('sha256').update(SCRIPT).digest('base64')}'`;

/** A content security policy that lets a page run the script of its forms, where it has one. */
export const withFormScript = (policy: string, body: string): string =>
  body.includes(FORM_SCRIPT.text) ? policy.replace('script-src ', `script-src ${SOURCE} `) : policy;
