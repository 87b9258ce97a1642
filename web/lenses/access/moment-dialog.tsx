import { format } from 'date-fns';
import { MomentField } from '../../fields/day-field.tsx';
import { Button } from '../../ui/button.tsx';
import { Dialog } from '../../ui/dialog.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';

/** Which moment the lens looks at: now, or another one at which the clock may have opened and closed pages. */
export function MomentDialog({ onClose }: { readonly onClose: () => void }) {
  const { moment, setMoment } = useWorkbench();
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
        value={moment === null ? '' : format(moment, "yyyy-MM-dd'T'HH:mm")}
        onSet={(next) => setMoment(next === '' ? null : new Date(next).getTime())}
      />
    </Dialog>
  );
}
