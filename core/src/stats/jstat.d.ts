declare module 'jstat' {
  interface Distribution {
    cdf(x: number, dof: number): number
    inv(p: number, dof: number): number
  }
  interface Gamma {
    inv(p: number, shape: number, scale: number): number
  }
  const jstat: { jStat: { studentt: Distribution; gamma: Gamma } }
  export default jstat
}
