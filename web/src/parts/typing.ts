/** Whether a key press is meant for a field rather than for the screen. */
export function isTyping(event: KeyboardEvent): boolean {
  const { target } = event
  if (event.ctrlKey || event.metaKey || event.altKey) return true
  return (
    target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement || target instanceof HTMLSelectElement
  )
}
