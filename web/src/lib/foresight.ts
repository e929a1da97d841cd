/**
 * What a person is likely to do next is looked at before it is done: in a quiet moment the edits that the next nudges of
 * a figure would make are made of copies, so that what they come to can be asked for. Nothing is changed by it.
 */
const QUIET_MS = 60 // a key that is held comes again sooner

/** Whoever edits a document, and can ask what others in its place would come to. */
interface Editor {
  foresee?: (drafts: object[]) => void
}

let next: (() => void)[] = []
let tries: Map<Editor, object[]> | null = null
let timer: ReturnType<typeof setTimeout> | undefined

/** Whether edits are only tried just now: then what this one would make of the document is noted, and it is not made. */
export function onlyTried(editor: object, draft: () => object): boolean {
  if (!tries) return false
  tries.set(editor, [...(tries.get(editor) ?? []), draft()])
  return true
}

/** These edits are likely next. */
export function likely(edits: (() => void)[]): void {
  next = edits
  inAMoment()
}

/** These are likely no longer. */
export function unlikely(edits: (() => void)[]): void {
  if (next === edits) next = []
}

/** Look at what is likely once it has been quiet for a moment. */
export function inAMoment(): void {
  clearTimeout(timer)
  if (next.length) timer = setTimeout(look, QUIET_MS)
}

function look(): void {
  const found = new Map<Editor, object[]>()
  tries = found
  try {
    for (const edit of next) edit()
  } finally {
    tries = null
  }
  for (const [editor, drafts] of found) editor.foresee?.(drafts)
}
