import { lookAt, SCREENS } from './screens'

lookAt(
  SCREENS.filter((_, i) => i % 2 === 1),
  'the other half',
)
