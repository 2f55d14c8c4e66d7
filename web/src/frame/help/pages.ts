import { marked } from 'marked'
import type { ScreenName } from '../places'

/** The pages of `docs/help`, by their path there. */
const SOURCES: Readonly<Record<string, string>> = import.meta.glob('../../../../docs/help/**/*.md', {
  query: '?raw',
  import: 'default',
  eager: true,
})
const BY_SCREEN = new Map(
  Object.entries(SOURCES).map(([path, text]) => [/([A-Za-z]+)\.md$/.exec(path)?.[1] ?? '', text]),
)

/** The help page of a screen as HTML, from our own docs; null where it has none. */
export function helpOf(screen: ScreenName): string | null {
  const text = BY_SCREEN.get(screen)
  return text === undefined ? null : marked.parse(text, { async: false })
}
