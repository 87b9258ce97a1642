import { select } from 'd3-selection';
import { type ZoomBehavior, type ZoomTransform, zoom, zoomIdentity } from 'd3-zoom';
import type { Area } from '#core/drawing/map-layout.ts';

const FARTHEST = 0.01;
const NEAREST = 2.5;
const FIT_MARGIN = 36;
/** So much of what comes into the window, in pixels of the screen, shows around it. */
const REVEAL_MARGIN = 48;
/** What lies so far outside of the window, in windows, is drawn too, so that moving a little draws nothing anew. */
const AROUND = 0.6;

/** What is drawn: the part of the map, and how near it is seen, in steps. */
export interface MapView {
  readonly area: Area;
  readonly scale: number;
}

/**
 * Pans and zooms a map. Moving sets one attribute of the group that holds the map; drawing anew is asked for only where
 * other things come into sight, or where the map has come so near that other things are to be shown.
 */
export class MapCamera {
  #svg: SVGSVGElement | null = null;
  #world: SVGGElement | null = null;
  #transform: ZoomTransform = zoomIdentity;
  #view: MapView | null = null;
  /** The size of the window, once it was told: asking for it would have the browser lay the page out first. */
  #size: { readonly width: number; readonly height: number } | null = null;
  readonly #zoom: ZoomBehavior<SVGSVGElement, unknown>;
  readonly #moved = new Set<() => void>();
  readonly #viewChanged = new Set<() => void>();

  constructor() {
    this.#zoom = zoom<SVGSVGElement, unknown>()
      .scaleExtent([FARTHEST, NEAREST])
      // The pointer on a page drags the page; elsewhere it moves the map. Fingers always move the map.
      .filter((event: MouseEvent) => {
        if (event.type === 'wheel' || event.type.startsWith('touch')) return true;
        const isOnNode = event.target instanceof Element && event.target.closest('[data-map-node]') !== null;
        return event.type !== 'dblclick' && event.button === 0 && !isOnNode;
      })
      .on('zoom', (event: { transform: ZoomTransform }) => {
        this.#transform = event.transform;
        this.#follow();
      });
  }

  /** Takes the element that is the window; gives the function that lets go of it. */
  attach = (svg: SVGSVGElement): (() => void) => {
    this.#svg = svg;
    select(svg).call(this.#zoom).on('dblclick.zoom', null);
    const sizes = new ResizeObserver(([entry]) => {
      this.#size = entry?.contentRect ?? null;
      this.#follow();
    });
    sizes.observe(svg);
    return () => {
      sizes.disconnect();
      select(svg).on('.zoom', null);
      this.#svg = null;
      this.#size = null;
    };
  };

  /** Takes the group that moves. */
  hold = (world: SVGGElement | null): void => {
    this.#world = world;
    this.#follow();
  };

  getView = (): MapView | null => this.#view;

  /** Tells when something else is to be drawn. */
  onView = (listener: () => void): (() => void) => {
    this.#viewChanged.add(listener);
    return () => this.#viewChanged.delete(listener);
  };

  /** Tells of each move. */
  onMove = (listener: () => void): (() => void) => {
    this.#moved.add(listener);
    return () => this.#moved.delete(listener);
  };

  /** The part of the map that is in the window now, and how near. */
  seen(): Area & { readonly scale: number } {
    const { k, x, y } = this.#transform;
    const { width, height } = this.#size ?? this.box();
    return { left: -x / k, top: -y / k, right: (width - x) / k, bottom: (height - y) / k, scale: k };
  }

  /** The place of the window on the screen. */
  box(): DOMRect {
    return this.#svg?.getBoundingClientRect() ?? new DOMRect(0, 0, 1, 1);
  }

  /** Turns a point of the screen into one of the map. */
  toMap(x: number, y: number): [number, number] {
    const { left, top } = this.box();
    return this.#transform.invert([x - left, y - top]);
  }

  zoomBy = (factor: number): void => {
    if (this.#svg) this.#zoom.scaleBy(select(this.#svg), factor);
  };

  /** Moves the map by pixels of the screen. */
  moveBy(x: number, y: number): void {
    const { k } = this.#transform;
    this.#go(this.#transform.translate(x / k, y / k));
  }

  centre(x: number, y: number, scale = this.#transform.k): void {
    const { width, height } = this.box();
    this.#go(zoomIdentity.translate(width / 2 - x * scale, height / 2 - y * scale).scale(scale));
  }

  /** Shows an area whole, at most at full size. */
  fit({ left, top, right, bottom }: Area): void {
    const { width, height } = this.box();
    const byWidth = (width - 2 * FIT_MARGIN) / (right - left);
    const byHeight = (height - 2 * FIT_MARGIN) / (bottom - top);
    this.centre((left + right) / 2, (top + bottom) / 2, Math.max(FARTHEST, Math.min(1, byWidth, byHeight)));
  }

  /** Shows the map at full size from a point on. */
  from({ left, top }: Pick<Area, 'left' | 'top'>): void {
    this.#go(zoomIdentity.translate(-left, -top));
  }

  /** Moves as little as it takes to have an area in the window. */
  reveal({ left, top, right, bottom }: Area): void {
    const now = this.seen();
    const margin = REVEAL_MARGIN / now.scale;
    const way = (from: number, to: number, first: number, last: number) =>
      from < first + margin ? first + margin - from : to > last - margin ? last - margin - to : 0;
    const [byX, byY] = [way(left, right, now.left, now.right), way(top, bottom, now.top, now.bottom)];
    if (byX !== 0 || byY !== 0) this.moveBy(byX * now.scale, byY * now.scale);
  }

  #go(to: ZoomTransform): void {
    if (this.#svg) this.#zoom.transform(select(this.#svg), to);
  }

  #follow(): void {
    const { x, y, k } = this.#transform;
    this.#world?.setAttribute('transform', `translate(${x} ${y}) scale(${k})`);
    for (const listener of this.#moved) listener();
    const now = this.seen();
    const scale = 2 ** (Math.round(Math.log2(k) * 2) / 2);
    if (this.#view?.scale === scale && contains(this.#view.area, now)) return;
    const [aroundX, aroundY] = [(now.right - now.left) * AROUND, (now.bottom - now.top) * AROUND];
    const area = {
      left: now.left - aroundX,
      top: now.top - aroundY,
      right: now.right + aroundX,
      bottom: now.bottom + aroundY,
    };
    this.#view = { area, scale };
    for (const listener of this.#viewChanged) listener();
  }
}

const contains = (outer: Area, inner: Area): boolean =>
  outer.left <= inner.left && outer.top <= inner.top && outer.right >= inner.right && outer.bottom >= inner.bottom;
