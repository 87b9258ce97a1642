import { Button, IconButton } from '../ui/button.tsx';
import type { BarAction } from './bar-action.ts';

/** An action on a bar: its sign, its label, what waits. */
export function ActionButton({
  action,
  isFolded = false,
}: {
  readonly action: BarAction;
  readonly isFolded?: boolean;
}) {
  const { label, count = 0, attention, words, keys, Sign, shows, isOn, isOff, run } = action;
  if (isFolded || shows === 'sign')
    return (
      <IconButton
        name={label}
        keys={keys}
        aria-pressed={isOn}
        disabled={isOff}
        onClick={run}
        className={isOn ? 'bg-accent-soft text-accent' : ''}
      >
        <Sign size={16} aria-hidden />
      </IconButton>
    );
  return (
    <Button
      look={isOn ? 'chosen' : 'quiet'}
      isTight
      aria-pressed={isOn}
      disabled={isOff}
      title={keys === undefined ? words : `${words} (${keys})`}
      onClick={run}
    >
      {shows !== 'label' && <Sign size={15} aria-hidden />} {label}
      {count > 0 && ` (${count})`}
      {attention !== undefined && <span className="text-attention">({attention})</span>}
    </Button>
  );
}
