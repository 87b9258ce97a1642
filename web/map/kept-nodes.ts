import { type MapAsked, type MapMade, type MapNode, mapNodes } from '#core/drawing/map-nodes.ts';

/** The nodes of a map that is drawn again and again: those about which nothing differs stay the same objects. */
export class KeptNodes {
  #made: MapMade | null = null;

  of(asked: MapAsked): readonly MapNode[] {
    this.#made = { asked, nodes: mapNodes(asked, this.#made) };
    return this.#made.nodes;
  }
}
