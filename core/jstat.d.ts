/** The parts of the jStat package in use; it carries no types of its own. */
declare module "jstat" {
  interface Distribution2 {
    cdf(x: number, a: number, b: number): number;
    inv(p: number, a: number, b: number): number;
  }
  const jStat: {
    normal: Distribution2;
    studentt: { cdf(x: number, df: number): number; inv(p: number, df: number): number };
  };
  export default jStat;
}
