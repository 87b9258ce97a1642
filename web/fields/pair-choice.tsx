import { useId } from 'react';
import { TYPE_PAIRS, type TypePair, pairName, stackOf } from '#core/look/type-pairs.ts';
import { LookFaces } from './look-faces.tsx';

/** The families of headings and text, each in itself. */
export function PairChoice({
  value,
  onSet,
}: {
  readonly value: TypePair['id'];
  readonly onSet: (pair: TypePair['id']) => void;
}) {
  const name = useId();
  return (
    <fieldset className="min-w-0">
      <legend className="mb-1 font-medium">Families of headings and text</legend>
      {TYPE_PAIRS.map(({ id }) => (
        <LookFaces key={id} pair={id} />
      ))}
      <div className="max-h-80 divide-y divide-rule overflow-y-auto rounded-md border border-edge bg-raised">
        {TYPE_PAIRS.map((pair) => (
          <label
            key={pair.id}
            className="grid cursor-pointer grid-cols-[auto_1fr] items-center gap-x-3 px-3 py-2 hover:bg-sunken has-checked:bg-accent-soft"
          >
            <input
              type="radio"
              name={name}
              checked={pair.id === value}
              onChange={() => onSet(pair.id)}
              className="row-span-2"
            />
            <span className="text-large leading-snug font-semibold" style={{ fontFamily: stackOf(pair.headings) }}>
              {pairName(pair)}
            </span>
            <span className="text-quiet" style={{ fontFamily: stackOf(pair.text) }}>
              {pair.goodFor}
            </span>
          </label>
        ))}
      </div>
    </fieldset>
  );
}
