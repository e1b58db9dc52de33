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
  readonly starts: Uint32Array;
  readonly places: Uint32Array;
}

const BLOCK = 256;
const NOTHING = new Uint32Array();

/** The places an instance shows. */
export function shownIn({ blocks }: ShownList, instance: number): Uint32Array {
  const block = blocks[Math.floor(instance / BLOCK)];
  const at = instance % BLOCK;
  return block === undefined ? NOTHING : block.places.subarray(block.starts[at] ?? 0, block.starts[at + 1] ?? 0);
}

/** Whether an instance shows an item. */
export function shows(list: ShownList, instance: number, place: number): boolean {
  return shownIn(list, instance).includes(place);
}

/** Makes a list instance by instance, in order. */
export class ShownListMaker {
  readonly #blocks: Block[] = [];
  readonly #starts = new Uint32Array(BLOCK + 1);
  #places = new Uint32Array(BLOCK);
  /** Instances and places in the block being made. */
  #instances = 0;
  #size = 0;

  /** The next instance shows these. */
  add(shown: ArrayLike<number>): void {
    this.#makeRoom(shown.length);
    for (let i = 0; i < shown.length; i += 1) this.#places[this.#size++] = shown[i] ?? 0;
    this.#instances += 1;
    this.#starts[this.#instances] = this.#size;
    if (this.#instances === BLOCK) this.#close();
  }

  /** The next instances show what those of another list show, from one up to another that is not among them. */
  copy(list: ShownList, from: number, to: number): void {
    for (let at = from; at < to; ) {
      const whole = this.#instances === 0 && at % BLOCK === 0 && at + BLOCK <= to ? list.blocks[at / BLOCK] : undefined;
      if (whole === undefined) this.add(shownIn(list, at));
      else this.#blocks.push(whole);
      at += whole === undefined ? 1 : BLOCK;
    }
  }

  /** The list of all instances added. Nothing can be added after. */
  finish(): ShownList {
    if (this.#instances > 0) this.#close();
    return { blocks: this.#blocks };
  }

  #close(): void {
    this.#blocks.push({ starts: this.#starts.slice(0, this.#instances + 1), places: this.#places.slice(0, this.#size) });
    this.#instances = 0;
    this.#size = 0;
  }

  #makeRoom(more: number): void {
    if (this.#size + more <= this.#places.length) return;
    const larger = new Uint32Array(2 * (this.#size + more));
    larger.set(this.#places.subarray(0, this.#size));
    this.#places = larger;
  }
}
