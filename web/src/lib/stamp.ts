/** Times and ids of entries that are written here. */

/** A local time without a zone, to the second. */
export function here(): string {
  const time = new Date()
  const two = (part: number) => String(part).padStart(2, '0')
  const day = `${time.getFullYear()}-${two(time.getMonth() + 1)}-${two(time.getDate())}`
  return `${day}T${two(time.getHours())}:${two(time.getMinutes())}:${two(time.getSeconds())}`
}

/** An id that nobody else makes. */
export function freshId(): string {
  const parts = crypto.getRandomValues(new Uint32Array(4))
  return Array.from(parts, (part) => part.toString(16).padStart(8, '0')).join('')
}
