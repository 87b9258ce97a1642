import { ArrowDown, ArrowUp, Columns3 } from 'lucide-react';
import { Button, IconButton } from '../ui/button.tsx';
import { Popover } from '../ui/popover.tsx';
import { COLUMNS_BUTTON } from '../workbench/use-workbench-actions.ts';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { useColumnLayout } from './column-layout.ts';

/** Chooses which columns the lens shows and in which order; kept for the person. */
export function ColumnsButton() {
  const { lensParts, site, filter } = useWorkbench();
  const { all, layout, setLayout } = useColumnLayout(lensParts.columns, site, filter);
  const move = (key: string, by: -1 | 1) => {
    const order = all.map((one) => one.key);
    const at = order.indexOf(key);
    [order[at], order[at + by]] = [order[at + by]!, order[at]!];
    setLayout({ ...layout, order });
  };
  const toggle = (key: string) =>
    setLayout({
      ...layout,
      hidden: layout.hidden.includes(key) ? layout.hidden.filter((one) => one !== key) : [...layout.hidden, key],
    });
  return (
    <Popover
      label="Columns"
      align="end"
      className="w-72 p-3"
      trigger={
        <IconButton id={COLUMNS_BUTTON} name="Columns">
          <Columns3 size={17} aria-hidden />
        </IconButton>
      }
    >
      <p className="mb-2 text-small text-quiet">
        Columns of this lens, for your account. The title always comes first.
      </p>
      <ul>
        {all.map((one, index) => (
          <li key={one.key} className="flex items-center gap-1">
            <label className="flex h-8 flex-1 items-center gap-2">
              <input
                type="checkbox"
                className="size-4 accent-accent"
                checked={!layout.hidden.includes(one.key)}
                onChange={() => toggle(one.key)}
              />
              {one.name}
            </label>
            <IconButton name={`Move ${one.name} left`} disabled={index === 0} onClick={() => move(one.key, -1)}>
              <ArrowUp size={15} aria-hidden />
            </IconButton>
            <IconButton
              name={`Move ${one.name} right`}
              disabled={index === all.length - 1}
              onClick={() => move(one.key, 1)}
            >
              <ArrowDown size={15} aria-hidden />
            </IconButton>
          </li>
        ))}
      </ul>
      <Button className="mt-2 w-full" onClick={() => setLayout({ order: [], hidden: [], widths: {} })}>
        Reset to default
      </Button>
    </Popover>
  );
}
