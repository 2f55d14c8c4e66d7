declare module 'jstat' {
  interface Distribution {
    cdf(x: number, dof: number): number
    inv(p: number, dof: number): number
  }
  const jstat: { jStat: { studentt: Distribution } }
  export default jstat
}
