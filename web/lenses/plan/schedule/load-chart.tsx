import { scaleBand, scaleLinear } from 'd3-scale';
import { format, parseISO } from 'date-fns';
import { useEffect, useRef } from 'react';
import { type Schedule, WORDS_A_WEEK, type WeekLoad, mondayOf } from '#core/derive/schedule.ts';
import { dayWords } from '../../../tree/plan-words.tsx';
import { pages } from '../../../tree/words.ts';
import type { ChosenWeek } from './schedule-view.tsx';
import { numberWords } from '../../../ui/number-words.ts';

const WEEK = 62;
const OWNER = 84;
const NAMES = 128;
const HEAD = 34;
const BAR_TOP = 12;
/** Bars of more words than this are cut, with their number above. */
const TALLEST = 2 * WORDS_A_WEEK;

const shortDay = (day: string): string => format(parseISO(day), 'd MMM');

/** Owners by weeks: a bar of what is still to be written, and the line that it should stay under. */
export function LoadChart({
  schedule,
  today,
  chosen,
  onChoose,
}: {
  readonly schedule: Schedule;
  readonly today: string;
  readonly chosen: ChosenWeek | null;
  readonly onChoose: (chosen: ChosenWeek) => void;
}) {
  const { weeks, owners } = schedule;
  const scroller = useRef<HTMLDivElement>(null);
  const thisWeek = mondayOf(today);
  const x = scaleBand(weeks, [0, weeks.length * WEEK]);
  const y = scaleBand(
    owners.map(({ name }) => name),
    [HEAD, HEAD + owners.length * OWNER],
  );
  const height = scaleLinear([0, TALLEST], [0, OWNER - BAR_TOP - 20]).clamp(true);
  const limit = OWNER - 20 - height(WORDS_A_WEEK);
  useEffect(() => {
    const at = weeks.indexOf(thisWeek);
    if (scroller.current && at > 2) scroller.current.scrollLeft = (at - 1) * WEEK;
  }, [weeks, thisWeek]);
  return (
    <div className="flex min-h-0 min-w-0 flex-1 overflow-y-auto bg-raised">
      <div className="sticky left-0 shrink-0 self-start bg-raised" style={{ width: NAMES, paddingTop: HEAD }}>
        {owners.map(({ name, weeks: mine }) => {
          const words = [...mine.values()].reduce((sum, load) => sum + load.words, 0);
          return (
            <div
              key={name}
              className="flex flex-col justify-center border-b border-rule px-3"
              style={{ height: OWNER }}
            >
              <span className={`truncate ${name === '' ? 'text-quiet italic' : 'font-medium'}`}>
                {name || 'Nobody yet'}
              </span>
              <span className="text-small text-quiet">{numberWords(words)} words</span>
            </div>
          );
        })}
      </div>
      <div
        ref={scroller}
        // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex -- it scrolls, so the keyboard must reach it
        tabIndex={0}
        className="min-w-0 flex-1 self-start overflow-x-auto overflow-y-hidden"
        role="region"
        aria-label="Weeks"
      >
        <svg
          width={weeks.length * WEEK}
          height={HEAD + owners.length * OWNER}
          role="group"
          aria-label="Words to write, by owner and week"
        >
          {weeks.map((week) => (
            <g key={week} transform={`translate(${x(week)} 0)`}>
              {week === thisWeek && (
                <rect width={WEEK} height={HEAD + owners.length * OWNER} className="fill-accent-soft" />
              )}
              <text x={6} y={15} className="fill-quiet text-tiny">
                {shortDay(week)}
              </text>
              {week === thisWeek && (
                <text x={6} y={28} className="fill-accent text-tiny font-semibold">
                  now
                </text>
              )}
              <line x1={0} x2={0} y1={HEAD} y2={HEAD + owners.length * OWNER} className="stroke-rule" />
            </g>
          ))}
          {owners.map(({ name, weeks: mine }) => (
            <g key={name} transform={`translate(0 ${y(name)})`}>
              <line x2={weeks.length * WEEK} y1={OWNER - 0.5} y2={OWNER - 0.5} className="stroke-rule" />
              <line
                x2={weeks.length * WEEK}
                y1={limit}
                y2={limit}
                className="stroke-attention"
                strokeDasharray="2 5"
                opacity={0.7}
              />
              {[...mine].map(([week, load]) => (
                <Week
                  key={week}
                  owner={name}
                  week={week}
                  load={load}
                  left={x(week)!}
                  height={height(load.words)}
                  isPast={week < thisWeek}
                  isChosen={chosen?.owner === name && chosen.week === week}
                  onChoose={onChoose}
                />
              ))}
            </g>
          ))}
        </svg>
      </div>
    </div>
  );
}

function Week({
  owner,
  week,
  load,
  left,
  height,
  isPast,
  isChosen,
  onChoose,
}: {
  readonly owner: string;
  readonly week: string;
  readonly load: WeekLoad;
  readonly left: number;
  readonly height: number;
  readonly isPast: boolean;
  readonly isChosen: boolean;
  readonly onChoose: (chosen: ChosenWeek) => void;
}) {
  const isLate = isPast && load.words > 0;
  const base = OWNER - 20;
  const flag = isLate ? ' late' : load.isTooMuch ? ' too much' : '';
  const amount = load.words === 0 ? 'ready' : numberWords(load.words);
  const top = base - Math.max(height, 2);
  const words = `${owner || 'Nobody yet'}, week of ${dayWords(week)}, ${pages(load.tasks.length)}: ${amount}${flag}`;
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={words}
      aria-pressed={isChosen}
      onClick={() => onChoose({ owner, week })}
      onKeyDown={(event) => {
        if (event.key !== 'Enter' && event.key !== ' ') return;
        event.preventDefault();
        onChoose({ owner, week });
      }}
      transform={`translate(${left} 0)`}
      className="cursor-pointer outline-none focus-visible:[&>rect:first-of-type]:stroke-accent"
    >
      <title>{words}</title>
      <rect
        x={2}
        y={2}
        width={WEEK - 4}
        height={OWNER - 4}
        rx={5}
        strokeWidth={2}
        className={
          isChosen ? 'fill-accent-soft stroke-accent' : 'fill-transparent stroke-transparent hover:fill-sunken'
        }
      />
      <rect
        x={14}
        y={top}
        width={WEEK - 28}
        height={Math.max(height, 2)}
        rx={2}
        className={load.words === 0 ? 'fill-rule' : load.isTooMuch || isLate ? 'fill-attention' : 'fill-accent'}
      />
      <text textAnchor="middle" className="fill-quiet text-tiny">
        <tspan x={WEEK / 2} y={base + 14}>
          {amount}
        </tspan>
        {flag !== '' && (
          <tspan x={WEEK / 2} y={top - 3} className="fill-attention font-semibold">
            {flag}
          </tspan>
        )}
      </text>
    </g>
  );
}
