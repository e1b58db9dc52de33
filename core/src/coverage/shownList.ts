/**
 * What each of many instances shows, as items by place, in flat lists of {@link BLOCK} instances: ten thousand instances
 * that each show a hundred items would otherwise be a million small objects, dear to make, to keep and to send to
 * another thread. Blocks in which nothing changed are shared by earlier and later lists.
 */
export interface ShownList {
  readonly blocks: readonly Block[];
}

interface Block {
  /** Where each instance begins in `places`; one more at the end. */
  readonly starts: readonly number[];
  readonly places: Numbers;
}

/** Of many instances a typed array, which is cheap to fill and to send; for a few that would be dear to make. */
type Numbers = readonly number[] | Uint32Array;

const BLOCK = 256;
const MANY = 64;

/** The places an instance shows. */
export function shownIn({ blocks }: ShownList, instance: number): Numbers {
  const block = blocks[Math.floor(instance / BLOCK)];
  if (block === undefined) return [];
  const at = instance % BLOCK;
  const [from, to] = [block.starts[at] ?? 0, block.starts[at + 1] ?? 0];
  return block.places instanceof Uint32Array ? block.places.subarray(from, to) : block.places.slice(from, to);
}

/** Whether an instance shows an item. */
export function shows(list: ShownList, instance: number, place: number): boolean {
  return shownIn(list, instance).includes(place);
}

/** Makes a list instance by instance, in order. */
export class ShownListMaker {
  readonly #blocks: Block[] = [];
  /** The block being made; its places stand in one of two kinds of list, by how many instances there will be. */
  #starts = [0];
  #few: number[] = [];
  #many: Uint32Array | null;
  #size = 0;

  constructor(instances: number) {
    this.#many = instances < MANY ? null : new Uint32Array(BLOCK * 16);
  }

  /** The next instance shows these. */
  add(shown: Numbers): void {
    if (this.#many === null) for (const place of shown) this.#few.push(place);
    else this.#addTo(this.#many, shown);
    this.#size += shown.length;
    this.#starts.push(this.#size);
    if (this.#starts.length > BLOCK) this.#close();
  }

  /** The next instances show what those of another list show, from one up to another that is not among them. */
  copy(list: ShownList, from: number, to: number): void {
    for (let at = from; at < to; ) {
      const whole = this.#starts.length === 1 && at % BLOCK === 0 && at + BLOCK <= to ? list.blocks[at / BLOCK] : undefined;
      if (whole === undefined) this.add(shownIn(list, at));
      else this.#blocks.push(whole);
      at += whole === undefined ? 1 : BLOCK;
    }
  }

  /** The list of all instances added. Nothing can be added after. */
  finish(): ShownList {
    if (this.#starts.length > 1) this.#close();
    return { blocks: this.#blocks };
  }

  #addTo(places: Uint32Array, shown: Numbers): void {
    let room = places;
    if (this.#size + shown.length > places.length) {
      room = new Uint32Array(2 * (this.#size + shown.length));
      room.set(places.subarray(0, this.#size));
      this.#many = room;
    }
    for (let i = 0; i < shown.length; i += 1) room[this.#size + i] = shown[i] ?? 0;
  }

  #close(): void {
    this.#blocks.push({ starts: this.#starts, places: this.#many === null ? this.#few : this.#many.slice(0, this.#size) });
    this.#starts = [0];
    this.#few = [];
    this.#size = 0;
  }
}
