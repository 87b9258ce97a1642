import { X } from 'lucide-react';
import {
  type Repetition,
  partsOfRule,
  readRepetition,
  repetitionWords,
  writeRepetition,
} from '#core/fields/repeats.ts';
import { readTime } from '#core/model/typed-day.ts';
import { Button, IconButton } from '../../ui/button.tsx';
import { Choice, TextField, Tick } from '../../ui/field.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { DayField } from '../day-field.tsx';
import { DraftField } from '../draft-field.tsx';
import { todayOf } from './use-field-context.ts';

const WEEK = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'] as const;
const NAMES = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];
const UNITS = { DAILY: 'days', WEEKLY: 'weeks', MONTHLY: 'months', YEARLY: 'years' } as const;
type Unit = keyof typeof UNITS;

const dayOf = (iso: string): Date => new Date(`${iso}T00:00:00Z`);
const codeOf = (iso: string): string => WEEK[(dayOf(iso).getUTCDay() + 6) % 7]!;
const nthOf = (iso: string): number => Math.ceil(dayOf(iso).getUTCDate() / 7);
const NTH = ['', 'first', 'second', 'third', 'fourth', 'fifth'];

/** How the months or years go: by the number of the day, or by its place among the days of its name. */
const waysOf = (start: string, unit: Unit): { readonly rule: string; readonly words: string }[] => {
  const name = NAMES[WEEK.indexOf(codeOf(start) as (typeof WEEK)[number])]!;
  const month = unit === 'YEARLY' ? `;BYMONTH=${dayOf(start).getUTCMonth() + 1}` : '';
  const number = dayOf(start).getUTCDate();
  return [
    unit === 'YEARLY'
      ? { rule: '', words: 'On the same date' }
      : { rule: `;BYMONTHDAY=${number}`, words: `On day ${number}` },
    { rule: `;BYDAY=${nthOf(start)}${codeOf(start)}${month}`, words: `On the ${NTH[nthOf(start)]} ${name}` },
    { rule: `;BYDAY=-1${codeOf(start)}${month}`, words: `On the last ${name}` },
  ];
};

/** Days that repeat: the first one, how often, on which days, and which are left out or come besides. */
export function RepeatsField({
  label,
  help,
  value,
  onSet,
}: {
  readonly label: string;
  readonly help: string;
  readonly value: string | null;
  readonly onSet: (value: string | null) => void;
}) {
  const { site } = useWorkbench();
  const now = value === null ? null : readRepetition(value);
  if (now === null)
    return (
      <fieldset className="flex flex-col items-start gap-1">
        <legend className="mb-1 text-small font-medium">{label}</legend>
        <Button
          isTight
          onClick={() => {
            const today = todayOf(site);
            onSet(`${today} FREQ=WEEKLY;BYDAY=${codeOf(today)}`);
          }}
        >
          Set days that repeat…
        </Button>
        {help !== '' && <p className="text-small text-quiet">{help}</p>}
      </fieldset>
    );
  return <RepetitionFields label={label} help={help} now={now} onSet={onSet} />;
}

function RepetitionFields({
  label,
  help,
  now,
  onSet,
}: {
  readonly label: string;
  readonly help: string;
  readonly now: Repetition;
  readonly onSet: (value: string | null) => void;
}) {
  const parts = partsOfRule(now.rule);
  const unit = parts.FREQ as Unit;
  const put = (next: Partial<Repetition>) => {
    const written = writeRepetition({ ...now, ...next });
    if (written !== null) onSet(written);
  };
  const rule = (next: { unit?: Unit; every?: number; on?: string; ends?: string }, start = now.start): string => {
    const freq = next.unit ?? unit;
    const interval = next.every ?? Number(parts.INTERVAL ?? 1);
    const same = freq === unit && start === now.start ? onPart(parts) : onAtFirst(freq, start);
    const [count = '', until = ''] = (next.ends ?? `${parts.COUNT ?? ''}/${parts.UNTIL ?? ''}`).split('/');
    return [
      `FREQ=${freq}`,
      count === '' ? '' : `;COUNT=${count}`,
      interval === 1 ? '' : `;INTERVAL=${interval}`,
      next.on ?? same,
      until === '' ? '' : `;UNTIL=${until}`,
    ].join('');
  };
  const days = parts.BYDAY?.split(',') ?? [];
  const until = parts.UNTIL?.replace(/^(.{4})(..)(..)$/, '$1-$2-$3') ?? '';
  return (
    <fieldset className="flex flex-col gap-2">
      <legend className="mb-1 text-small font-medium">{label}</legend>
      {help !== '' && <p className="text-small text-quiet">{help}</p>}
      <p>{repetitionWords(writeRepetition(now) ?? '', 'en')}</p>
      <DayField
        label="From"
        value={now.start}
        onSet={(start) => start !== '' && put({ start, rule: rule({}, start) })}
      />
      <div className="grid grid-cols-2 gap-2">
        <TextField
          label="Every"
          type="number"
          min={1}
          max={99}
          value={parts.INTERVAL ?? '1'}
          onChange={(event) => {
            const every = Math.round(Number(event.target.value));
            if (every >= 1 && every <= 99) put({ rule: rule({ every }) });
          }}
        />
        <Choice
          label="Unit"
          value={unit}
          onChange={(event) => put({ rule: rule({ unit: event.target.value as Unit }) })}
        >
          {Object.entries(UNITS).map(([one, words]) => (
            <option key={one} value={one}>
              {words}
            </option>
          ))}
        </Choice>
      </div>
      {unit === 'WEEKLY' && (
        <div className="flex flex-wrap gap-x-4 gap-y-1">
          {WEEK.map((code, at) => (
            <Tick
              key={code}
              label={NAMES[at]!}
              checked={days.includes(code)}
              onChange={() => {
                const next = WEEK.filter((one) => (one === code ? !days.includes(one) : days.includes(one)));
                if (next.length > 0) put({ rule: rule({ on: `;BYDAY=${next.join(',')}` }) });
              }}
            />
          ))}
        </div>
      )}
      {(unit === 'MONTHLY' || unit === 'YEARLY') && (
        <Choice
          label="On which day"
          value={onPart(parts)}
          onChange={(event) => put({ rule: rule({ on: event.target.value }) })}
        >
          {waysOf(now.start, unit).map((way) => (
            <option key={way.rule} value={way.rule}>
              {way.words}
            </option>
          ))}
          {!waysOf(now.start, unit).some((way) => way.rule === onPart(parts)) && (
            <option value={onPart(parts)}>As it is</option>
          )}
        </Choice>
      )}
      <div className="grid grid-cols-2 items-start gap-2">
        <DayField
          label="Until"
          hint="Empty: without end."
          value={until}
          onSet={(day) => put({ rule: rule({ ends: `/${day.replaceAll('-', '')}` }) })}
        />
        <DraftField
          label="Time of day"
          hint="Such as 10:00-12:00. Empty: all day."
          saved={now.times?.join('-') ?? ''}
          longest={20}
          onSave={(text) => {
            const [from, to, ...more] = text.split(/ ?[-–] ?/).map((one) => readTime(one));
            if (text.trim() === '') put({ times: null });
            else if (from != null && to != null && more.length === 0) put({ times: [from, to] });
          }}
        />
      </div>
      <Days label="Not on" days={now.without} onSet={(without) => put({ without })} />
      <Days label="Also on" days={now.and} onSet={(and) => put({ and })} />
      <Button isTight className="self-start" onClick={() => onSet(null)}>
        Remove these days
      </Button>
    </fieldset>
  );
}

/** The part of a rule that says on which days of its weeks, months or years. */
const onPart = ({ BYDAY, BYMONTHDAY, BYMONTH }: Readonly<Record<string, string>>): string =>
  [BYDAY && `;BYDAY=${BYDAY}`, BYMONTHDAY && `;BYMONTHDAY=${BYMONTHDAY}`, BYMONTH && `;BYMONTH=${BYMONTH}`]
    .filter(Boolean)
    .join('');

const onAtFirst = (unit: Unit, start: string): string =>
  unit === 'WEEKLY' ? `;BYDAY=${codeOf(start)}` : unit === 'MONTHLY' ? waysOf(start, unit)[1]!.rule : '';

function Days({
  label,
  days,
  onSet,
}: {
  readonly label: string;
  readonly days: readonly string[];
  readonly onSet: (days: readonly string[]) => void;
}) {
  return (
    <div className="flex flex-col gap-1">
      {days.length > 0 && (
        <ul aria-label={label} className="flex flex-wrap gap-1 pl-0!">
          {days.map((day) => (
            <li key={day} className="inline-flex items-center rounded-md bg-sunken pl-2">
              {day}
              <IconButton
                name={`Remove ${day} from ‘${label}’`}
                onClick={() => onSet(days.filter((one) => one !== day))}
              >
                <X size={14} aria-hidden />
              </IconButton>
            </li>
          ))}
        </ul>
      )}
      <DayField label={label} value="" onSet={(day) => day !== '' && onSet([...new Set([...days, day])].sort())} />
    </div>
  );
}
