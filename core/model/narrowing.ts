import type { AccessChange, AccessRule, LabelId } from './access.ts';
import { type PageLabel, rulesOfLabels } from './page-label.ts';

const namesAudiences = ({ only, except }: Pick<AccessRule, 'only' | 'except'>): boolean =>
  only !== null || except.length > 0;

/** Whether a label says who may open what bears it; one that the site does not know lets nobody pass. */
function labelNarrows(label: LabelId, labels: readonly PageLabel[]): boolean {
  const rule = rulesOfLabels(labels).get(label);
  return rule === undefined || namesAudiences(rule);
}

/** Whether access narrows at a page of this rule: by audiences, a passphrase or a label that names audiences. */
export const narrowsWho = (rule: AccessRule, labels: readonly PageLabel[]): boolean =>
  namesAudiences(rule) || rule.passphrase !== null || rule.labels.some((label) => labelNarrows(label, labels));

/** Whether a rule says anything of who may open its page, be it that it stands alone. */
export const saysWho = (rule: AccessRule, labels: readonly PageLabel[]): boolean =>
  rule.standsAlone || narrowsWho(rule, labels);

/** The change that leaves nothing which a rule says of who may open its page. Labels that say nothing of it stay, as kinds often do. */
export const withoutNarrowing = (borne: readonly LabelId[], labels: readonly PageLabel[]) =>
  ({
    only: null,
    except: [],
    standsAlone: false,
    passphrase: null,
    labels: borne.filter((label) => !labelNarrows(label, labels)),
  }) satisfies AccessChange;
