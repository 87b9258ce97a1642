import { CalendarClock } from 'lucide-react';
import { MomentField } from '../../fields/day-field.tsx';
import { fieldOfMoment, momentOfField } from '../../fields/site-moment.ts';
import type { WholeKind } from '../../settings/settings-kind.ts';
import { Button } from '../../ui/button.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';

/** Which moment access is looked at: now, or another one at which the clock may have opened and closed pages. */
export const MOMENT: WholeKind = {
  title: 'Another moment',
  Sign: CalendarClock,
  description: 'The Access lens shows who could open each page then, under the current rules.',
  Whole: Moment,
};

function Moment() {
  const { site, moment, setMoment } = useWorkbench();
  const { timeZone } = site.settings;
  return (
    <div className="flex flex-col items-start gap-3">
      <MomentField
        label="Choose a moment"
        value={moment === null ? '' : fieldOfMoment(new Date(moment), timeZone)}
        onSet={(next) => setMoment(momentOfField(next, timeZone)?.getTime() ?? null)}
      />
      <Button disabled={moment === null} onClick={() => setMoment(null)}>
        Back to now
      </Button>
    </div>
  );
}
