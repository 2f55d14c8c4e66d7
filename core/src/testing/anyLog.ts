import fc from 'fast-check'
import { Log } from './logs'

const anyStep = fc.oneof(
  fc.record({ kind: fc.constant('sharpened' as const), method: fc.constantFrom('fileField' as const, 'fileBench' as const, 'grinder' as const), gaugesLowered: fc.boolean(), damageCleared: fc.boolean() }),
  fc.record({ kind: fc.constant('ran' as const), tanks: fc.integer({ min: 1, max: 4 }), conditions: fc.constantFrom('clean' as const, 'soil' as const) }),
  fc.record({
    kind: fc.constant('measured' as const),
    readings: fc.uniqueArray(
      fc.record({ cutter: fc.integer({ min: 1, max: 36 }), lengthUm: fc.integer({ min: 0, max: 8000 }), damage: fc.array(fc.record({ kind: fc.constantFrom('stone' as const, 'rounded' as const), depthUm: fc.option(fc.integer({ min: 0, max: 3000 })) }), { maxLength: 2 }) }),
      { selector: ({ cutter }) => cutter, minLength: 1, maxLength: 12 },
    ),
  }),
  fc.record({ kind: fc.constant('gaugesLowered' as const) }),
)
/** Any log that a crew could write, up to 25 entries. */
export const anyLog = fc.array(anyStep, { maxLength: 25 }).map((steps) => {
  const log = new Log()
  for (const { kind, ...body } of steps) log.add(kind, body as never)
  return log
})
