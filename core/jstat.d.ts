declare module "jstat" {
  interface Distribution2 {
    cdf(x: number, a: number, b: number): number;
    inv(p: number, a: number, b: number): number;
  }
  export const jStat: {
    normal: Distribution2;
    studentt: { cdf(x: number, df: number): number; inv(p: number, df: number): number };
  };
}
