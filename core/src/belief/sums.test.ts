import { describe, expect, test } from 'vitest'
import { afterSums } from './sums'

describe('what is known of figures once sums of them were seen', () => {
  test('of one figure it is the mean of both, each by how well it is known', () => {
    const [seen] = afterSums([{ mean: 10, variance: 4 }], [{ mean: 20, variance: 1, of: [[0, 1]] }])
    expect(seen?.mean).toBeCloseTo(18, 9)
    expect(seen?.variance).toBeCloseTo(0.8, 9)
  })

  test('a sum moves the figures in it by how little is known of them, and no other', () => {
    const [wide, narrow, beside] = afterSums(
      [
        { mean: 0, variance: 3 },
        { mean: 0, variance: 1 },
        { mean: 5, variance: 2 },
      ],
      [
        {
          mean: 10,
          variance: 1,
          of: [
            [0, 1],
            [1, -1],
          ],
        },
      ],
    )
    expect(wide?.mean).toBeCloseTo(6, 9)
    expect(narrow?.mean).toBeCloseTo(-2, 9)
    expect(wide?.variance).toBeCloseTo(3 - 9 / 5, 9)
    expect(beside).toEqual({ mean: 5, variance: 2 })
  })

  test('figures that a sum told together are told apart by the next', () => {
    const both = [
      [0, 1],
      [1, 1],
    ] as const
    const figures = [
      { mean: 0, variance: 100 },
      { mean: 0, variance: 100 },
    ]
    const [a, b] = afterSums(figures, [
      { mean: 10, variance: 0.01, of: both },
      { mean: 3, variance: 0.01, of: [[0, 1]] },
    ])
    expect(a?.mean).toBeCloseTo(3, 1)
    expect(b?.mean).toBeCloseTo(7, 1)
  })
})
