import { expect, test } from 'vitest'
import { gaugeCandidates, identifyPitch } from '../identify'
import { sayCandidate, sayGauge, sayNext, sayProbability } from './identify'

const span = (um: number) => identifyPitch({ span: { um, instrument: 'caliper' } })

test('what went wrong with a span is said with what was meant', () => {
  expect(sayNext(span(8300), 'mm')).toContain('about 16.60 mm')
  expect(sayNext(span(650), 'inch')).toBe('That looks like the wrong unit. Was it .650"?')
  expect(sayNext(span(60_000), 'mm')).toMatch(/^No pitch in use/)
  expect(sayNext(span(16_510), 'mm')).toBe('Next: the thickness of a drive link.')
})

test('a candidate says why it stands where it stands', () => {
  const finding = identifyPitch({
    span: { um: 19_150, instrument: 'caliper' },
    thickness: { um: 1580, instrument: 'caliper' },
  })
  expect(finding.ok && finding.candidates.slice(0, 2).map((one) => sayCandidate(one, 'mm'))).toEqual([
    'span is 0.10 mm over its 19.05 mm; the gauge is usual for it',
    'span is 0.10 mm over its 19.05 mm; the gauge is not usual for it',
  ])
})

test('a span that is the very one is over by nothing, and only what was measured is said', () => {
  const exact = identifyPitch({ span: { um: 19_050, instrument: 'caliper' } })
  const [first] = exact.ok ? exact.candidates : []
  expect(first && sayCandidate(first, 'mm')).toBe('span is 0.00 mm over its 19.05 mm')
  expect(first && sayCandidate({ ...first, spanOffUm: -40, usualGauge: false }, 'mm')).toBe(
    'span is 0.04 mm under its 19.05 mm; the gauge is not usual for it',
  )
  expect(first && sayCandidate({ ...first, spanOffUm: null }, 'mm')).toBe('three rivets span 19.05 mm')
  expect([0.9, 0.6, 0.2, 0.02].map(sayProbability)).toEqual(['very likely', 'likely', 'possible', 'unlikely'])
  expect(sayGauge(gaugeCandidates({ um: 9000, instrument: 'caliper' }))).toMatch(/^Too thick/)
})

test('gauges and probabilities in words', () => {
  expect(sayGauge(gaugeCandidates({ um: 1470, instrument: 'caliper' }))).toMatch(/^Gauge 1\.5 mm;/)
  expect(sayGauge(gaugeCandidates({ um: 1520, instrument: 'caliper' }))).toBe(
    'Gauge 1.5 mm or 1.6 mm: the groove of its bar tells which.',
  )
  expect(sayGauge(gaugeCandidates({ um: 400, instrument: 'caliper' }))).toMatch(/^Too thin/)
  expect([0.95, 0.7, 0.3, 0.05, 0.001].map(sayProbability)).toEqual([
    'very likely',
    'likely',
    'possible',
    'unlikely',
    'hardly',
  ])
})
