import { memo } from 'react';
import type { MapRails } from '#core/drawing/map-rails.ts';
import { railColor } from '../tree/access-of.ts';

/** All rails of a map: one path for each look. `scale` keeps their width on the screen where the map is far away. */
export const RailsLayer = memo(function RailsLayer({
  rails,
  scale,
}: {
  readonly rails: readonly MapRails[];
  readonly scale: number;
}) {
  const wide = scale >= 0.8 ? 1 : 0.8 / scale;
  // From far away two lines would run into one: what is live with edits then has one heavier line.
  const isDouble = scale >= 0.45;
  return rails.map(({ state, isCovered, tint, path }) => {
    const stroke = isCovered || state === 'retired' ? 'var(--edge)' : railColor(tint);
    return (
      <g key={`${state}/${isCovered}/${tint}`} fill="none">
        <path
          d={path}
          stroke={stroke}
          strokeWidth={(state === 'edited' ? (isDouble ? 5 : 3) : state === 'retired' ? 1 : 2) * wide}
          strokeDasharray={state === 'draft' ? `${3.5 * wide} ${3 * wide}` : undefined}
        />
        {state === 'edited' && isDouble && <path d={path} stroke="var(--paper)" strokeWidth={2 * wide} />}
      </g>
    );
  });
});
