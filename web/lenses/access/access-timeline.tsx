import { scaleTime } from 'd3-scale';
import { addWeeks, startOfWeek } from 'date-fns';
import { X } from 'lucide-react';
import { useMemo } from 'react';
import { type Turn, turnsAhead } from '#core/derive/turns.ts';
import { momentWords, shortDayWords } from '#core/model/moment-words.ts';
import { nodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { pages } from '../../tree/words.ts';
import { Button } from '../../ui/button.tsx';
import { useNow } from '../../ui/use-now.ts';
import { useWidth } from '../../ui/use-width.ts';
import { useWorkbench } from '../../workbench/workbench-context.tsx';

const WEEKS = 8;
const HEIGHT = 46;
const LINE = 26;
const EDGE = 14;
/** The room that a day needs below the line, in pixels. */
const DAY_WIDTH = 56;

/** What the clock opens and closes in the weeks to come; a turn is looked at by choosing it. Nothing where no window stands ahead. */
export function AccessTimeline() {
  const { site, moment, setMoment } = useWorkbench();
  const now = useNow();
  const end = addWeeks(now, WEEKS).getTime();
  const turns = useMemo(() => turnsAhead(site, now, end), [site, now, end]);
  const [ref, width] = useWidth();
  if (turns.length === 0 && moment === null) return null;
  const x = scaleTime([now, end], [EDGE, Math.max(EDGE + 1, width - EDGE)]).clamp(true);
  const weeks = Array.from({ length: WEEKS }, (_, at) => addWeeks(startOfWeek(now, { weekStartsOn: 1 }), at + 1));
  return (
    <section
      aria-label={`The next ${WEEKS} weeks`}
      className={`flex flex-wrap items-center gap-x-3 border-rule px-4 text-small not-in-data-folded:border-b not-in-data-folded:bg-paper in-data-folded:px-2 ${moment === null ? 'compact:hidden' : ''}`}
    >
      <div ref={ref} className="relative min-w-60 flex-1 compact:hidden" style={{ height: HEIGHT }}>
        <svg width={width} height={HEIGHT} aria-hidden className="absolute inset-0">
          <path d={`M${EDGE} ${LINE}H${width - EDGE}`} className="stroke-edge" strokeWidth={1.5} />
          {weeks.map((week, at) => (
            <g key={week.getTime()} transform={`translate(${x(week)} 0)`}>
              <path d={`M0 ${LINE - 4}v8`} className="stroke-edge" />
              {at % Math.ceil((WEEKS * DAY_WIDTH) / width) === 0 && (
                <text y={HEIGHT - 3} textAnchor="middle" className="fill-quiet text-tiny">
                  {shortDayWords(week.getTime(), site.settings.timeZone)}
                </text>
              )}
            </g>
          ))}
          {moment !== null && <path d={`M${x(moment)} 2V${LINE + 8}`} className="stroke-attention" strokeWidth={2} />}
        </svg>
        {turns.map((turn) => (
          <button
            key={turn.at}
            type="button"
            aria-pressed={moment === turn.at}
            aria-label={`Look at ${turnWords(turn, site)}`}
            title={turnWords(turn, site)}
            onClick={() => setMoment(moment === turn.at ? null : turn.at)}
            className="absolute flex size-6 -translate-x-1/2 -translate-y-1/2 items-center justify-center rounded-full border-2 border-accent bg-raised text-accent aria-pressed:bg-accent aria-pressed:text-on-accent"
            style={{ left: x(turn.at), top: LINE - 8 }}
          >
            <TurnSign turn={turn} />
          </button>
        ))}
      </div>
      {moment !== null && (
        <p className="flex items-center gap-2 font-medium text-attention">
          You look at {momentWords(moment, site.settings.timeZone)}
          <Button look="quiet" isTight onClick={() => setMoment(null)}>
            <X size={15} aria-hidden /> Back to now
          </Button>
        </p>
      )}
    </section>
  );
}

/** Two bars apart where pages open, closed up where they close, as gates do. */
function TurnSign({ turn: { opens, closes } }: { readonly turn: Turn }) {
  return (
    <svg width="12" height="12" aria-hidden fill="none" stroke="currentColor" strokeWidth="1.75" strokeLinecap="round">
      {opens.length > 0 && <path d="M6 4V1M3.5 3 6 0.9 8.5 3" />}
      {closes.length > 0 && <path d="M6 8v3M3.5 9 6 11.1 8.5 9" />}
      <path d="M2 6h8" />
    </svg>
  );
}

function turnWords({ at, opens, closes }: Turn, site: Parameters<typeof nodeAt>[0]): string {
  const named = (verb: string, ids: Turn['opens']) =>
    ids.length === 0
      ? null
      : ids.length === 1
        ? `‘${textIn(nodeAt(site, ids[0]!).title, site.settings.language)}’ ${verb}s`
        : `${pages(ids.length)} ${verb}, ‘${textIn(nodeAt(site, ids[0]!).title, site.settings.language)}’ first`;
  const words = [named('open', opens), named('close', closes)].filter(Boolean).join('; ');
  return `${momentWords(at, site.settings.timeZone)}: ${words}`;
}
