import { MomentField } from '../../fields/day-field.tsx';
import { fieldOfMoment, momentOfField } from '../../fields/site-moment.ts';
import { Button } from '../../ui/button.tsx';
import { Dialog } from '../../ui/dialog.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';

/** Which moment the lens looks at: now, or another one at which the clock may have opened and closed pages. */
export function MomentDialog({ onClose }: { readonly onClose: () => void }) {
  const { site, moment, setMoment } = useWorkbench();
  const { timeZone } = site.settings;
  return (
    <Dialog
      title="Another moment"
      description="The Access lens shows who could open each page then, under the current rules."
      isOpen
      onClose={onClose}
      actions={
        <>
          <Button
            disabled={moment === null}
            onClick={() => {
              setMoment(null);
              onClose();
            }}
          >
            Back to now
          </Button>
          <Button look="main" onClick={onClose}>
            Done
          </Button>
        </>
      }
    >
      <MomentField
        label="Choose a moment"
        value={moment === null ? '' : fieldOfMoment(new Date(moment), timeZone)}
        onSet={(next) => setMoment(momentOfField(next, timeZone)?.getTime() ?? null)}
      />
    </Dialog>
  );
}
