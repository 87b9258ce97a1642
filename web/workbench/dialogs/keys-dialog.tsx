import { Dialog } from '../../ui/dialog.tsx';
import { KEYS, MAP_KEYS, TREE_KEYS, TYPING_KEYS } from '../keys.ts';

/** The list of keys, from the table that the keys themselves are read from. */
export function KeysDialog({ onClose }: { readonly onClose: () => void }) {
  return (
    <Dialog title="Keys" description="In the tree and anywhere outside of a field." isOpen isWide onClose={onClose}>
      <div className="grid gap-x-8 pb-4 md:grid-cols-2">
        <KeyList heading="Commands" keys={Object.values(KEYS)} />
        <div className="flex flex-col gap-5">
          <KeyList heading="In the tree" keys={TREE_KEYS} />
          <KeyList heading="While a new page is typed" keys={TYPING_KEYS} />
          <KeyList heading="In the map" keys={MAP_KEYS} />
        </div>
      </div>
    </Dialog>
  );
}

function KeyList({
  heading,
  keys,
}: {
  readonly heading: string;
  readonly keys: readonly { readonly keys: string; readonly words: string }[];
}) {
  return (
    <section>
      <h3 className="mb-1 font-display text-large font-semibold">{heading}</h3>
      <dl className="grid grid-cols-[auto_minmax(0,1fr)] gap-x-3 gap-y-1.5">
        {keys.map((one) => (
          <div key={one.keys} className="contents">
            <dt>
              <kbd className="rounded border border-edge bg-paper px-1.5 py-0.5 font-mono text-tiny">{one.keys}</kbd>
            </dt>
            <dd>{one.words}</dd>
          </div>
        ))}
      </dl>
    </section>
  );
}
