import { format } from 'date-fns';
import { ArrowLeftRight, Bot, CalendarClock, Footprints, Tag, UserRound, UsersRound } from 'lucide-react';
import { MomentField } from '../../fields/day-field.tsx';
import { Button } from '../../ui/button.tsx';
import { Popover } from '../../ui/popover.tsx';
import { KEYS } from '../../workbench/keys.ts';
import { useWorkbench } from '../../workbench/workbench-context.tsx';

/** Who the site is for; it stands above the tree in the Access lens. */
export function AccessBar() {
  const { site, mayEdit, setDialog, run } = useWorkbench();
  const { audiences } = site.settings;
  return (
    <div className="flex min-h-9 flex-wrap items-center gap-x-3 gap-y-1 border-b border-rule bg-paper px-4 py-1 text-small max-md:px-2">
      <p className="text-quiet max-md:hidden">
        {audiences.length === 0
          ? 'Everything is open to everyone. Add an audience to restrict pages to it.'
          : 'Two bars: the page has its own rule.'}
      </p>
      <div className="ml-auto flex flex-wrap items-center gap-0.5">
        <Button look="quiet" isTight onClick={() => setDialog('audiences')}>
          <UsersRound size={15} aria-hidden /> Audiences{audiences.length > 0 && ` (${audiences.length})`}
        </Button>
        <Button look="quiet" isTight onClick={() => setDialog('labels')}>
          <Tag size={15} aria-hidden /> Labels{site.settings.labels.length > 0 && ` (${site.settings.labels.length})`}
        </Button>
        <MomentChoice />
        <Button look="quiet" isTight onClick={() => run('walk')} title={`${KEYS.walk.words} (${KEYS.walk.keys})`}>
          <Footprints size={15} aria-hidden /> Walk
        </Button>
        {audiences.length > 0 && (
          <Button look="quiet" isTight onClick={() => setDialog('compare')}>
            <ArrowLeftRight size={15} aria-hidden /> Compare
          </Button>
        )}
        <Button look="quiet" isTight onClick={() => setDialog('engine')}>
          <Bot size={15} aria-hidden /> Engine’s eye
        </Button>
        {mayEdit && (
          <Button look="quiet" isTight onClick={() => setDialog('visitors')}>
            <UserRound size={15} aria-hidden /> Visitors
          </Button>
        )}
      </div>
    </div>
  );
}

/** Which moment the lens looks at: now, or another one at which the clock may have opened and closed pages. */
function MomentChoice() {
  const { moment, setMoment } = useWorkbench();
  return (
    <Popover
      label="Moment"
      align="end"
      className="w-72 p-4"
      trigger={
        <Button look="quiet" isTight>
          <CalendarClock size={15} aria-hidden /> {moment === null ? 'Now' : format(moment, 'd MMM, HH:mm')}
        </Button>
      }
    >
      <div className="flex flex-col gap-3">
        <MomentField
          label="Choose a moment"
          value={moment === null ? '' : format(moment, "yyyy-MM-dd'T'HH:mm")}
          hint="Who could open each page then, under the current rules."
          onSet={(next) => setMoment(next === '' ? null : new Date(next).getTime())}
        />
        <div>
          <Button onClick={() => setMoment(null)} disabled={moment === null}>
            Back to now
          </Button>
        </div>
      </div>
    </Popover>
  );
}
