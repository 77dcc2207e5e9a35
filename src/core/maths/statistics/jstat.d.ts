declare module 'jstat' {
  /** What this program uses of the package, which brings no types. */
  export const jStat: {
    readonly chisquare: { cdf(x: number, freedoms: number): number; inv(p: number, freedoms: number): number };
    readonly normal: { cdf(x: number, mean: number, sd: number): number };
    readonly studentt: { inv(p: number, freedoms: number): number };
  };
  const whole: { readonly jStat: typeof jStat };
  export default whole;
}
