/** Whether the server has been at work on something for longer than is felt as at once. */
const LONG_MS = 500

export const waiting = $state({ long: false })
let long = 0

/** Work begins; call what comes back when it has ended. */
export function begun(): () => void {
  let counted = false
  const timer = setTimeout(() => {
    counted = true
    waiting.long = ++long > 0
  }, LONG_MS)
  return () => {
    clearTimeout(timer)
    if (counted) waiting.long = --long > 0
  }
}
