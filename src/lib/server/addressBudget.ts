/** What is in use, counted by address: places, or bytes of bodies on their way, which take memory as much as what is kept. */
export class AddressBudget {
  readonly #each: number;
  readonly #all: number;
  readonly #by = new Map<string, number>();
  #total = 0;

  /** @param limits of one address, and of all together */
  constructor(limits: { readonly each: number; readonly all: number }) {
    this.#each = limits.each;
    this.#all = limits.all;
  }

  /** Whether there is room for so much more of this address; if so it is counted. */
  take(address: string, amount: number): boolean {
    const own = (this.#by.get(address) ?? 0) + amount;
    if (own > this.#each || this.#total + amount > this.#all) return false;
    this.#by.set(address, own);
    this.#total += amount;
    return true;
  }

  give(address: string, amount: number): void {
    const left = (this.#by.get(address) ?? 0) - amount;
    if (left > 0) this.#by.set(address, left);
    else this.#by.delete(address);
    this.#total -= amount;
  }
}
