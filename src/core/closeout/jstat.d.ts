declare module 'jstat' {
  /** Distributions, as far as they are used here: by inverse and by what lies below. */
  const jstat: {
    readonly studentt: {
      inv(part: number, freedom: number): number;
      cdf(x: number, freedom: number): number;
    };
    readonly beta: {
      inv(part: number, alpha: number, beta: number): number;
      cdf(x: number, alpha: number, beta: number): number;
    };
  };
  export default jstat;
}
