declare module 'jstat' {
  const jstat: {
    normal: {
      cdf(x: number, mean: number, sd: number): number;
      inv(p: number, mean: number, sd: number): number;
      pdf(x: number, mean: number, sd: number): number;
    };
    studentt: { inv(p: number, freedom: number): number };
    chisquare: { inv(p: number, freedom: number): number };
  };
  export default jstat;
}
