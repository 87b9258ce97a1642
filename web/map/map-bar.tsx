import { ArrowDownFromLine, ArrowRightFromLine, Download, Focus, Maximize, Minus, Plus } from 'lucide-react';
import { useMemo } from 'react';
import { Button, IconButton } from '../ui/button.tsx';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { useDirection } from './use-direction.ts';

interface MapBarProps {
  readonly onZoom: (factor: number) => void;
  readonly onFitAll: () => void;
  readonly onFitBranch: () => void;
  readonly onExport: () => void;
}

/** How the map is seen: which way it grows, how deep it is open, how near. */
export function MapBar({ onZoom, onFitAll, onFitBranch, onExport }: MapBarProps) {
  const { derived, openTo, found } = useWorkbench();
  const [direction, setDirection] = useDirection();
  const levels = useMemo(() => derived.outline.depth.reduce((most, depth) => Math.max(most, depth + 1), 1), [derived]);
  const isAcross = direction === 'across';
  return (
    <div
      role="toolbar"
      aria-label="Map"
      className="flex flex-wrap items-center justify-end gap-0.5 border-b border-rule bg-raised px-2 py-0.5"
    >
      <Button
        look="quiet"
        isTight
        title={isAcross ? 'Let the map grow downwards' : 'Let the map grow across'}
        onClick={() => setDirection(isAcross ? 'down' : 'across')}
      >
        {isAcross ? <ArrowRightFromLine size={16} aria-hidden /> : <ArrowDownFromLine size={16} aria-hidden />}
        {isAcross ? 'Across' : 'Downwards'}
      </Button>
      <select
        aria-label="Open to level"
        value=""
        disabled={found !== null}
        onChange={(event) => openTo(Number(event.target.value))}
        className="h-8 rounded-md border border-transparent bg-transparent px-1 hover:bg-sunken"
      >
        <option value="" disabled hidden>
          Levels
        </option>
        {Array.from({ length: levels }, (_, level) => (
          <option key={level} value={level + 1}>
            {level + 1 === levels ? 'All levels' : level === 0 ? 'Level 1' : `Levels 1 to ${level + 1}`}
          </option>
        ))}
      </select>
      <IconButton name="Farther" keys="−" onClick={() => onZoom(1 / 1.35)}>
        <Minus size={16} aria-hidden />
      </IconButton>
      <IconButton name="Nearer" keys="+" onClick={() => onZoom(1.35)}>
        <Plus size={16} aria-hidden />
      </IconButton>
      <IconButton name="Show all of the tree" keys="0" onClick={onFitAll}>
        <Maximize size={16} aria-hidden />
      </IconButton>
      <IconButton name="Show the selected branch" keys="." onClick={onFitBranch}>
        <Focus size={16} aria-hidden />
      </IconButton>
      <IconButton name="Export the map…" onClick={onExport}>
        <Download size={16} aria-hidden />
      </IconButton>
    </div>
  );
}
