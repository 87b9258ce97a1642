import { useEffect, useRef, useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import { toSiteKey } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import { wordsOfFault } from '../api/client.ts';
import { useTreeOf } from '../api/sites.ts';
import { Tick } from '../ui/field.tsx';
import { Notice } from '../ui/notice.tsx';
import { Wordmark } from '../ui/wordmark.tsx';
import { ScreenFrame } from './screen-frame.tsx';
import { useStep } from './use-step.ts';
import { useWalk } from './use-walk.ts';
import { type Walking, WalkChoices } from './walk-choices.tsx';

/** The site as others have it: one walk, or two beside each other that go in step. */
export function WalkPage() {
  const { site: key = '' } = useParams();
  const [parameters] = useSearchParams();
  const { site, fault } = useTreeOf(toSiteKey(key));
  if (fault) return <Notice>{wordsOfFault(fault)}</Notice>;
  if (!site) return <p className="p-6 text-quiet">Loading …</p>;
  return <Walks site={site} from={parameters.get('from') ?? '/'} release={releaseIn(parameters)} />;
}

/** The release that the address of the page asks for, or null. */
function releaseIn(parameters: URLSearchParams): number | null {
  const number = Number(parameters.get('release'));
  return Number.isInteger(number) && number > 0 ? number : null;
}

function Walks({
  site,
  from,
  release,
}: {
  readonly site: Site;
  readonly from: string;
  readonly release: number | null;
}) {
  const [left, setLeft] = useState<Walking>(() => ({
    isDraft: release === null,
    release,
    who: 'everyone',
    moment: '',
    hasPassphrases: false,
    width: window.innerWidth < 768 ? 'telephone' : 'desktop',
  }));
  const [right, setRight] = useState<Walking | null>(null);
  const [isInStep, setInStep] = useState(true);
  /** The page that each walk was sent to; the frame goes on from there by itself. */
  const [sent, setSent] = useState({ left: from, right: from });
  useEffect(() => {
    document.title = `Walk – ${site.settings.name} – Spur`;
  }, [site.settings.name]);
  const second = right !== null;
  return (
    <div className="flex h-full flex-col">
      <header className="flex min-h-bar flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule bg-raised px-4 py-1">
        <Link to={`/sites/${site.key}`} aria-label="Spur, back to the workbench">
          <Wordmark size={20} />
        </Link>
        <h1 className="font-medium">Walk through {site.settings.name}</h1>
        <div className="ml-auto flex flex-wrap items-center gap-4">
          <Tick
            label="Add a second walk"
            checked={second}
            onChange={() => {
              // Beside each other two tablets can be read better than two desktops.
              if (!second) setLeft({ ...left, width: 'tablet' });
              setRight(second ? null : { ...left, width: 'tablet', who: site.settings.audiences[0]?.id ?? 'everyone' });
            }}
          />
          {second && <Tick label="Keep in step" checked={isInStep} onChange={() => setInStep(!isInStep)} />}
        </div>
      </header>
      <main className={`grid min-h-0 flex-1 ${second ? 'grid-cols-2 max-md:grid-cols-1 max-md:grid-rows-2' : ''}`}>
        <OneWalk
          name={second ? 'The walk on the left' : 'The walk'}
          site={site}
          walking={left}
          path={sent.left}
          asked={release}
          onSet={setLeft}
          onGo={(path) => second && isInStep && setSent((before) => ({ ...before, right: path }))}
        />
        {right && (
          <OneWalk
            name="The walk on the right"
            site={site}
            walking={right}
            path={sent.right}
            asked={release}
            onSet={setRight}
            onGo={(path) => isInStep && setSent((before) => ({ ...before, left: path }))}
          />
        )}
      </main>
    </div>
  );
}

function OneWalk({
  name,
  site,
  walking,
  path,
  asked,
  onSet,
  onGo,
}: {
  readonly name: string;
  readonly site: Site;
  readonly walking: Walking;
  readonly path: string;
  /** The release that the page was opened for, or null. */
  readonly asked: number | null;
  readonly onSet: (walking: Walking) => void;
  /** Is told each page that the walk comes to by itself. */
  readonly onGo: (path: string) => void;
}) {
  const { address, fault } = useWalk(site.key, walking);
  const frame = useRef<HTMLIFrameElement>(null);
  useStep(frame, address, path, onGo);
  return (
    <section aria-label={name} className="flex min-h-0 min-w-0 flex-col border-r border-rule last:border-0">
      <WalkChoices site={site} walking={walking} asked={asked} onSet={onSet} />
      {fault && <Notice>{fault}</Notice>}
      <ScreenFrame
        title={`${name}: the site`}
        address={address}
        width={walking.width}
        ref={frame}
        className="min-h-0 flex-1"
      />
    </section>
  );
}
