import { markup } from '../live/html.ts';
import type { StandInGroup, StandInPerson } from './directory-repository.ts';

/** The page on which the people of the stand-in are changed. */
export function directoryPage(people: readonly StandInPerson[], groups: readonly StandInGroup[]): string {
  const nobody: StandInPerson = { id: '', name: '', email: '', is_active: true, groups: [] };
  return markup`<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>Directory (a stand-in)</title><style>
body { font: 15px/1.5 system-ui, sans-serif; margin: 2rem auto; max-width: 70rem; padding: 0 1rem; color: #1d2b33; background: #f7f5f0 }
form { display: grid; grid-template-columns: 12rem 16rem 1fr auto; gap: .3rem 1rem; align-items: center; padding: .5rem 0; border-bottom: 1px solid #dad5c9 }
input[type=text], input[type=email] { font: inherit; padding: .25rem .5rem; width: 100%; box-sizing: border-box }
label { margin-right: .8rem; white-space: nowrap } button { font: inherit }
@media (max-width: 60rem) { form { grid-template-columns: 1fr } }
</style></head><body><h1>Directory</h1>
<p>A stand-in for the directory of an organisation. What you change here reaches Spur when it is synchronised, by hand or at night.</p>
${people.map((person) => formOf(person, groups))}<h2>Somebody new</h2>${formOf(nobody, groups)}</body></html>`.text;
}

function formOf({ id, name, email, is_active: isActive, groups: own }: StandInPerson, groups: readonly StandInGroup[]) {
  const who = name === '' ? 'somebody new' : name;
  const ticks = groups.map(
    (group) =>
      markup`<label><input type="checkbox" name="group" value="${group.id}"${own.includes(group.id) ? ' checked' : ''}> ${group.name}</label>`,
  );
  return markup`<form method="post" action="/" aria-label="${who}"><input type="hidden" name="id" value="${id}">
<input type="text" name="name" required maxlength="100" aria-label="Name of ${who}" value="${name}">
<input type="email" name="email" required maxlength="200" aria-label="Mail address of ${who}" value="${email}">
<span>${ticks}<label><input type="checkbox" name="active"${isActive ? ' checked' : ''}> active</label></span>
<span><button>${id === '' ? 'Add' : 'Save'}</button>${id === '' ? '' : markup` <button name="what" value="remove">Remove</button>`}</span></form>`;
}
