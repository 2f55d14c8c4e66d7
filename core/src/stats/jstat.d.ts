declare module 'jstat' {
  interface Distribution {
    cdf(x: number, dof: number): number
    inv(p: number, dof: number): number
  }
  interface Gamma {
    inv(p: number, shape: number, scale: number): number
  }
  interface Normal {
    cdf(x: number, mean: number, sd: number): number
    inv(p: number, mean: number, sd: number): number
  }
  const jstat: { jStat: { studentt: Distribution; gamma: Gamma; normal: Normal } }
  export default jstat
}
