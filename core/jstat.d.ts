/** The parts of the jStat package in use; it carries no types of its own. */
declare module "jstat" {
  interface Distribution2 {
    pdf(x: number, a: number, b: number): number;
    cdf(x: number, a: number, b: number): number;
    inv(p: number, a: number, b: number): number;
  }
  const jStat: {
    normal: Distribution2;
    studentt: {
      pdf(x: number, df: number): number;
      cdf(x: number, df: number): number;
      inv(p: number, df: number): number;
    };
  };
  export default jStat;
}
