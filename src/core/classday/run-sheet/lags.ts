/** No way from one to the other. */
const NONE = -1_000_000;

/**
 * Starts that lie at least so many minutes after each other, all consequences worked out: `get(a, b)` is how long after a, at the
 * least, b starts. Minutes below 0 say how long before it at the most.
 */
export class Lags {
  private constructor(
    private readonly size: number,
    private readonly cells: Int32Array,
  ) {}

  static of(size: number): Lags {
    const cells = new Int32Array(size * size).fill(NONE);
    for (let at = 0; at < size; at++) cells[at * size + at] = 0;
    return new Lags(size, cells);
  }

  copy(): Lags {
    return new Lags(this.size, this.cells.slice());
  }

  get(from: number, to: number): number {
    return this.cells[from * this.size + to] as number;
  }

  /** Whether `to` could still start so many minutes after `from`. */
  allows(from: number, to: number, minutes: number): boolean {
    const back = this.get(to, from);
    return back === NONE || minutes + back <= 0;
  }

  /** Has `to` start at least so many minutes after `from`. @returns false where that cannot be: the rest is spoilt then */
  add(from: number, to: number, minutes: number): boolean {
    const { size, cells } = this;
    if ((cells[from * size + to] as number) >= minutes) return true;
    if (!this.allows(from, to, minutes)) return false;
    for (let a = 0; a < size; a++) {
      const before = cells[a * size + from] as number;
      if (before === NONE) continue;
      const reach = before + minutes;
      for (let b = 0; b < size; b++) {
        const after = cells[to * size + b] as number;
        if (after === NONE) continue;
        const way = reach + after;
        if (way > (cells[a * size + b] as number)) cells[a * size + b] = way;
      }
    }
    return true;
  }
}
