import { CalendarDays } from 'lucide-react';
import { Popover as Radix } from 'radix-ui';
import { type ReactNode, useId, useState } from 'react';
import { dayIn } from '#core/model/moment-words.ts';
import { readTime } from '#core/model/typed-day.ts';
import { BOX, Labelled } from '../ui/field.tsx';
import { later } from '../ui/later.tsx';
import { readOwnDay, writtenDay } from './own-days.ts';

const Calendar = later(() => import('./calendar.tsx').then((file) => file.Calendar));

interface FieldProps {
  readonly label: string;
  readonly hint?: ReactNode;
  readonly fault?: string | undefined;
  /** Whether the label is for those alone who do not see the field. */
  readonly isBare?: boolean;
}

interface DayProps extends FieldProps {
  /** A day as ISO 8601 has it; '' for none. */
  readonly value: string;
  readonly onSet: (day: string) => void;
}

/** A day: typed as the person writes days, or chosen in a calendar. */
export function DayField({ label, hint, fault, isBare = false, value, onSet }: DayProps) {
  const id = useId();
  const [wrong, setWrong] = useState(false);
  const said = fault ?? (wrong ? `This is no day. Type it like ${writtenDay('2027-03-05')}.` : undefined);
  return (
    <Labelled id={id} label={label} hint={hint} fault={said} isBare={isBare}>
      <DayInput id={id} label={label} value={value} onSet={onSet} onWrong={setWrong} isWrong={said !== undefined} />
    </Labelled>
  );
}

interface MomentProps extends FieldProps {
  /** A day and a time as a field has them (`2027-03-03T06:00`); '' for none. */
  readonly value: string;
  readonly onSet: (moment: string) => void;
}

/** A day and a time of day, each typed or chosen; midnight where no time is named. */
export function MomentField({ label, hint, fault, isBare = false, value, onSet }: MomentProps) {
  const id = useId();
  const [wrong, setWrong] = useState<'day' | 'time' | null>(null);
  const [day = '', time = ''] = value.split('T');
  const said =
    fault ??
    (wrong === 'day'
      ? `This is no day. Type it like ${writtenDay('2027-03-05')}.`
      : wrong === 'time'
        ? 'This is no time. Type it like 17:30.'
        : undefined);
  return (
    <Labelled id={id} label={label} hint={hint} fault={said} isBare={isBare}>
      <div className={`flex gap-1.5 ${isBare ? '' : 'min-w-64'}`}>
        <DayInput
          id={id}
          label={label}
          value={day}
          onSet={(next) => onSet(next === '' ? '' : `${next}T${time || '00:00'}`)}
          onWrong={(is) => setWrong(is ? 'day' : null)}
          isWrong={said !== undefined}
        />
        <div className="w-20 shrink-0">
          <Typed
            aria-label={`${label}, time`}
            disabled={day === ''}
            saved={time}
            read={readTime}
            onRead={(next) => onSet(`${day}T${next || '00:00'}`)}
            onWrong={(is) => setWrong(is ? 'time' : null)}
          />
        </div>
      </div>
    </Labelled>
  );
}

interface DayInputProps {
  readonly id: string;
  readonly label: string;
  readonly value: string;
  readonly onSet: (day: string) => void;
  readonly onWrong: (is: boolean) => void;
  readonly isWrong: boolean;
}

function DayInput({ id, label, value, onSet, onWrong, isWrong }: DayInputProps) {
  const [isOpen, setOpen] = useState(false);
  return (
    <div className="relative min-w-0 flex-1">
      <Typed
        id={id}
        aria-invalid={isWrong || undefined}
        className="pr-9"
        saved={writtenDay(value)}
        read={readOwnDay}
        onRead={onSet}
        onWrong={onWrong}
      />
      <Radix.Root open={isOpen} onOpenChange={setOpen}>
        <Radix.Trigger
          aria-label={`Choose a day: ${label}`}
          className="absolute top-1/2 right-1 inline-flex size-7 -translate-y-1/2 items-center justify-center rounded-md hover:bg-sunken"
        >
          <CalendarDays size={16} aria-hidden />
        </Radix.Trigger>
        <Radix.Portal>
          <Radix.Content
            align="end"
            sideOffset={4}
            collisionPadding={8}
            aria-label="Calendar"
            className="z-50 rounded-lg border border-rule bg-raised p-3 shadow-sheet"
          >
            <Calendar
              day={value === '' ? undefined : new Date(`${value}T00:00`)}
              onSelect={(next) => {
                onWrong(false);
                onSet(next ? dayIn(undefined, next) : '');
                setOpen(false);
              }}
            />
          </Radix.Content>
        </Radix.Portal>
      </Radix.Root>
    </div>
  );
}

interface TypedProps {
  readonly saved: string;
  /** What a text means; null where it means nothing. */
  readonly read: (text: string) => string | null;
  readonly onRead: (value: string) => void;
  readonly onWrong: (is: boolean) => void;
  readonly id?: string;
  readonly className?: string;
  readonly disabled?: boolean;
  readonly 'aria-label'?: string;
  readonly 'aria-invalid'?: true | undefined;
}

/** A text that is read when its field is left, or by Enter; one that means nothing stays as it was typed. */
function Typed({ saved, read, onRead, onWrong, className = '', ...rest }: TypedProps) {
  // What was typed over another value than the one that stands here now is done with: a day was chosen meanwhile.
  const [draft, setDraft] = useState<{ readonly text: string; readonly over: string } | null>(null);
  const typed = draft?.over === saved ? draft.text : null;
  const take = () => {
    if (typed === null) return;
    const value = typed.trim() === '' ? '' : read(typed);
    onWrong(value === null);
    if (value === null) return;
    setDraft(null);
    if (typed !== saved) onRead(value);
  };
  return (
    <input
      type="text"
      autoComplete="off"
      inputMode="text"
      className={`${BOX} ${className}`}
      value={typed ?? saved}
      onChange={(event) => setDraft({ text: event.target.value, over: saved })}
      onBlur={take}
      onKeyDown={(event) => event.key === 'Enter' && take()}
      {...rest}
    />
  );
}
