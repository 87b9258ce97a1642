import { DayPicker } from 'react-day-picker';

const STEP = 'inline-flex size-8 items-center justify-center rounded-md hover:bg-sunken disabled:opacity-40';
/** The parts of the calendar in the colours of Spur. */
const CALENDAR = {
  months: 'relative',
  month_caption: 'flex h-8 items-center font-medium',
  nav: 'absolute top-0 right-0 flex gap-1',
  button_previous: STEP,
  button_next: STEP,
  chevron: 'size-4 fill-current',
  weekday: 'size-9 text-small font-normal text-quiet',
  day: 'size-9 p-0 text-center',
  day_button: 'size-9 rounded-md hover:bg-sunken',
  today: 'font-bold text-accent',
  selected: '[&>button]:bg-accent [&>button]:text-on-accent',
  outside: 'text-quiet',
} as const;

/** A month at a time, to choose a day from. */
export function Calendar({
  day,
  onSelect,
}: {
  readonly day: Date | undefined;
  readonly onSelect: (day: Date | undefined) => void;
}) {
  return (
    <DayPicker
      mode="single"
      selected={day}
      {...(day && { defaultMonth: day })}
      autoFocus
      weekStartsOn={1}
      onSelect={onSelect}
      classNames={CALENDAR}
    />
  );
}
