import { useDraggable } from '@dnd-kit/core';
import { Check, X } from 'lucide-react';
import { acceptPairs, declinePair } from '#core/carryover/settle.ts';
import { pathOfOldAddress } from '#core/carryover/old-address.ts';
import { maybeNodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import type { Edit } from '../../../api/site-store.ts';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { type Line, type OldPageWire, ROW, useCarryOverState } from './carry-over-context.ts';
import { confidenceWords, titleOfOld } from './old-words.ts';

/** One page of the old site, with what is proposed for it. */
export function OldRow({
  index,
  page,
  lines,
  top,
  isChosen,
  onChoose,
}: {
  readonly index: number;
  readonly page: OldPageWire;
  readonly lines: readonly Line[];
  readonly top: number;
  readonly isChosen: boolean;
  readonly onChoose: (address: string) => void;
}) {
  const { site, store, mayEdit } = useWorkbench();
  const { pairOf } = useCarryOverState();
  const { setNodeRef, listeners } = useDraggable({ id: page.address, disabled: !mayEdit });
  const proposal = lines.find((line) => line.pair !== null)?.pair ?? null;
  const isAccepted = lines.some((line) => line.look === 'accepted');
  const letGo = site.oldPages.get(page.address)?.letGo ?? null;
  const title = titleOfOld(page);
  const accept = () => store.apply(acceptPairs(site, [pairOf(proposal!.old, proposal!.planned)]) as Edit[]);
  const becomes = proposal && textIn(maybeNodeAt(site, proposal.planned)?.title ?? {}, site.settings.language);
  return (
    // The grid has the focus and names its chosen row, so rows take none themselves.
    // eslint-disable-next-line jsx-a11y/interactive-supports-focus, jsx-a11y/click-events-have-key-events
    <div
      ref={setNodeRef}
      role="row"
      aria-rowindex={index + 1}
      id={`old-${index}`}
      aria-selected={isChosen}
      onMouseDown={listeners?.onMouseDown as undefined}
      onTouchStart={listeners?.onTouchStart as undefined}
      onClick={() => onChoose(page.address)}
      className={`absolute inset-x-0 flex cursor-pointer items-center gap-2 border-b border-rule/60 px-3 ${isChosen ? 'bg-accent-soft' : 'hover:bg-sunken/60'}`}
      style={{ top, height: ROW }}
    >
      <div role="gridcell" className="min-w-0 flex-1 leading-tight">
        <p className={`truncate ${isAccepted || letGo !== null ? 'text-quiet' : 'font-medium'}`}>{title}</p>
        <p className="truncate font-mono text-tiny text-quiet" title={page.address}>
          {pathOfOldAddress(page.address)}
        </p>
      </div>
      <div role="gridcell" className="flex min-w-0 max-w-[60%] shrink-0 items-center gap-2 text-small">
        {letGo !== null ? (
          <span className="text-quiet">{letGo === 'gone' ? 'Let go' : 'Let go, leads on'}</span>
        ) : isAccepted ? (
          <span className="text-accent">Settled</span>
        ) : proposal === null ? (
          <span className="text-attention">No place</span>
        ) : (
          <>
            <span className="max-w-40 min-w-0 truncate text-quiet max-lg:hidden" title={becomes!}>
              {becomes}
            </span>
            <span className="shrink-0 whitespace-nowrap text-quiet">{confidenceWords(proposal.confidence)}</span>
            {mayEdit && (
              <span className="flex">
                <RowButton name={`Accept ‘${becomes!}’ for ‘${title}’`} onPress={accept}>
                  <Check size={15} aria-hidden />
                </RowButton>
                <RowButton
                  name={`Not ‘${becomes!}’ for ‘${title}’`}
                  onPress={() => store.apply(declinePair(site, page.address, proposal.planned) as Edit[])}
                >
                  <X size={15} aria-hidden />
                </RowButton>
              </span>
            )}
          </>
        )}
      </div>
    </div>
  );
}

/** A control in a row: pressing it neither chooses the row nor takes it up. */
function RowButton({
  name,
  onPress,
  children,
}: {
  readonly name: string;
  readonly onPress: () => void;
  readonly children: React.ReactNode;
}) {
  return (
    <button
      type="button"
      tabIndex={-1}
      aria-label={name}
      title={name}
      onMouseDown={(event) => event.stopPropagation()}
      onClick={(event) => {
        event.stopPropagation();
        onPress();
      }}
      className="inline-flex size-7 items-center justify-center rounded hover:bg-accent-soft hover:text-accent"
    >
      {children}
    </button>
  );
}
