import { memo } from 'react';
import { NAME_SIZE, type SectionName } from '#core/drawing/section-names.ts';
import { MAP_TYPE } from './measure.ts';

/** The names of sections on a map that is seen from far away: as large on the screen at any scale, each on its rail. */
export const NamesLayer = memo(function NamesLayer({
  names,
  scale,
}: {
  readonly names: readonly SectionName[];
  readonly scale: number;
}) {
  return names.map(({ index, text, x, y }) => (
    <text
      key={index}
      x={x}
      y={y - 3 / scale}
      fontFamily={MAP_TYPE.title.family}
      fontSize={NAME_SIZE / scale}
      fontWeight={600}
      fill="var(--ink)"
      stroke="var(--paper)"
      strokeWidth={4 / scale}
      strokeLinejoin="round"
      paintOrder="stroke"
    >
      {text}
    </text>
  ));
});
