import { flextree } from 'd3-flextree';

/** The ways in which a map can grow from the site itself. */
export const DIRECTIONS = ['across', 'down'] as const;
export type Direction = (typeof DIRECTIONS)[number];

/** The nodes that a map draws, in tree order. The first one is the site itself, and its parent is -1. */
export interface MapShape {
  /** The place of each node's parent in these lists. */
  readonly parent: Int32Array;
  /** In pixels at full size. */
  readonly width: Float64Array;
  readonly height: Float64Array;
}

export interface MapLayout {
  readonly direction: Direction;
  /** The left and upper edges of each node, in pixels at full size. */
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly width: Float64Array;
  readonly height: Float64Array;
  readonly parent: Int32Array;
  /** All of it lies within (0, 0) and this. */
  readonly extent: { readonly width: number; readonly height: number };
}

/** A part of a map, in the same pixels. */
export interface Area {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** Whether a node lies in an area, or reaches into it. */
export const isIn = ({ x, y, width, height }: MapLayout, index: number, area: Area): boolean =>
  x[index]! <= area.right &&
  x[index]! + width[index]! >= area.left &&
  y[index]! <= area.bottom &&
  y[index]! + height[index]! >= area.top;

/** The room between a node and those below it, and between neighbours. */
const LEVEL_GAP: Readonly<Record<Direction, number>> = { across: 46, down: 42 };
const NEIGHBOUR_GAP: Readonly<Record<Direction, number>> = { across: 8, down: 16 };
const COUSIN_GAP = 10;

interface Box {
  readonly index: number;
  readonly children: Box[];
}

/**
 * Places nodes of different sizes as a tree, so that none overlaps another and each stands before the middle of those
 * below it. By the flexible tree layout of van der Ploeg (2014), as `d3-flextree` has it.
 */
export function layoutMap({ parent, width, height }: MapShape, direction: Direction): MapLayout {
  const count = parent.length;
  const boxes: Box[] = Array.from({ length: count }, (_, index) => ({ index, children: [] }));
  for (let index = 1; index < count; index++) boxes[parent[index]!]!.children.push(boxes[index]!);
  const across = direction === 'across';
  const layout = flextree<Box>({
    children: (box) => box.children,
    nodeSize: ({ data: { index } }) => {
      const [breadth, length] = across ? [height[index]!, width[index]!] : [width[index]!, height[index]!];
      return [breadth + NEIGHBOUR_GAP[direction], length + LEVEL_GAP[direction]];
    },
    spacing: (one, other) => (one.parent === other.parent ? 0 : COUSIN_GAP),
  });
  const x = new Float64Array(count);
  const y = new Float64Array(count);
  const tree = layout(layout.hierarchy(boxes[0]!));
  tree.each((node) => {
    const { index } = node.data;
    x[index] = across ? node.y : node.x - width[index]! / 2;
    y[index] = across ? node.x - height[index]! / 2 : node.y;
  });
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let index = 0; index < count; index++) {
    left = Math.min(left, x[index]!);
    top = Math.min(top, y[index]!);
    right = Math.max(right, x[index]! + width[index]!);
    bottom = Math.max(bottom, y[index]! + height[index]!);
  }
  for (let index = 0; index < count; index++) {
    x[index]! -= left;
    y[index]! -= top;
  }
  return { direction, x, y, width, height, parent, extent: { width: right - left, height: bottom - top } };
}
