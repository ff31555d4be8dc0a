import { describe, expect, it } from 'vitest';
import { estimateFactor, estimateShare, piecesFor, USUAL_BELIEF } from './estimates';

/** Chance of the tests, the same every time. */
function chanceFrom(seed: number) {
  let state = seed;
  const next = () => {
    state = (state * 1664525 + 1013904223) % 4294967296;
    return (state + 0.5) / 4294967296;
  };
  const normal = () => Math.sqrt(-2 * Math.log(next())) * Math.cos(2 * Math.PI * next());
  /** Gamma with a shape of 1 or more (Marsaglia and Tsang). */
  const gamma = (shape: number): number => {
    const d = shape - 1 / 3;
    const c = 1 / Math.sqrt(9 * d);
    for (;;) {
      const x = normal();
      const v = (1 + c * x) ** 3;
      if (v > 0 && Math.log(next()) < 0.5 * x * x + d - d * v + d * Math.log(v)) return d * v;
    }
  };
  return { next, normal, gamma };
}

describe('an estimate of a share', () => {
  it('is the belief where nothing was seen, and what was seen where much was', () => {
    expect(estimateShare({ mean: 0.1, pieces: 30 }, []).value).toBe(0.1);
    const much = estimateShare(
      { mean: 0.1, pieces: 30 },
      Array.from({ length: 50 }, () => ({ count: 10, of: 40 })),
    );
    expect(much.value).toBeCloseTo(0.248, 2);
    expect(much.high - much.low).toBeLessThan(0.04);
  });

  it('has intervals that hold as often as they say, with one session and with fifty', () => {
    for (const sessions of [1, 5, 50]) {
      const { next, gamma } = chanceFrom(sessions);
      let held = 0;
      const runs = 1500;
      for (let run = 0; run < runs; run++) {
        // A truth as the belief has it: a tenth, worth twenty pieces.
        const [a, b] = [gamma(2), gamma(18)];
        const truth = a / (a + b);
        const seen = Array.from({ length: sessions }, () => ({
          of: 20,
          count: Array.from({ length: 20 }, next).filter((each) => each < truth).length,
        }));
        const { low, high } = estimateShare({ mean: 0.1, pieces: 20 }, seen);
        if (low <= truth && truth <= high) held++;
      }
      expect(held / runs).toBeGreaterThan(0.87);
      expect(held / runs).toBeLessThan(0.93);
    }
  });

  it('says how many pieces to have', () => {
    const bad = estimateShare({ mean: 0.2, pieces: 1000 }, []);
    const pieces = piecesFor(10, bad, 0.9);
    const { next } = chanceFrom(3);
    const enough = Array.from(
      { length: 4000 },
      () => Array.from({ length: pieces }, next).filter((each) => each >= 0.2).length >= 10,
    );
    expect(enough.filter(Boolean).length / 4000).toBeGreaterThan(0.88);
    expect(piecesFor(0, bad, 0.9)).toBe(0);
  });
});

describe('an estimate of a factor', () => {
  it('is the plan where nothing was seen; one session moves it a little, many all the way', () => {
    expect(estimateFactor([]).value).toBe(1);
    expect(estimateFactor([1.3]).value).toBeCloseTo(1.091, 2);
    expect(estimateFactor(Array.from({ length: 50 }, () => 1.3)).value).toBeCloseTo(1.287, 2);
    expect(estimateFactor([1.3, 1.25, 1.4]).above).toBeGreaterThan(0.9);
  });

  it('has intervals that hold as often as they say, with one session and with fifty', () => {
    for (const sessions of [1, 5, 50]) {
      const { normal, gamma } = chanceFrom(sessions + 7);
      const runs = 1500;
      let held = 0;
      let sufficed = 0;
      for (let run = 0; run < runs; run++) {
        // A truth as the belief has it.
        const variance = (2 * USUAL_BELIEF.spread ** 2) / gamma(3);
        const truth = normal() * Math.sqrt(variance / USUAL_BELIEF.sessions);
        const session = () => Math.exp(truth + normal() * Math.sqrt(variance));
        const found = estimateFactor(Array.from({ length: sessions }, session));
        if (found.low <= Math.exp(truth) && Math.exp(truth) <= found.high) held++;
        if (session() <= found.enoughFor(0.8)) sufficed++;
      }
      expect(held / runs).toBeGreaterThan(0.87);
      expect(held / runs).toBeLessThan(0.93);
      expect(sufficed / runs).toBeGreaterThan(0.76);
      expect(sufficed / runs).toBeLessThan(0.84);
    }
  });
});
