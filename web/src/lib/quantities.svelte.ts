/** What a person typed into a field, read by the server, which has the one grammar; nothing of it is read here. */
import { atSetup } from './addresses'
import { api, UNREACHABLE, type QuantityIn } from './api/client'
import { bench } from './bench.svelte'
import { history } from './history.svelte'
import { outbox } from './outbox.svelte'
import { whyWaiting } from './reply'
import { beingRead } from './typing'
import { unread } from './unread.svelte'

export type Kind = QuantityIn['kind']
export type Asked = Omit<QuantityIn, 'text' | 'kind' | 'name'>

/** A figure that can be typed: what it is, within which bounds, and what is done with the value. */
export interface Reader extends Asked {
  kind: Kind
  name: string
  apply: (value: number, most: number | null) => void
}

export interface Meaning {
  value: number
  says: string
}

const AGAIN_MS = 3000
const QUIET_MS = 5000
const REFUSED = [400, 413, 422]
/** Kinds of which digits alone are the figure itself: so much is known at once, and without the server. */
const PLAIN: Kind[] = ['count', 'temperature', 'money', 'weight', 'minutes', 'rate', 'number']

/** A reader of one kind of quantity, between two bounds. */
export const quantity = (
  kind: Kind,
  name: string,
  bounds: readonly [number, number] | null,
  apply: Reader['apply'],
  asked: Asked = {},
): Reader => ({ kind, name, low: bounds?.[0] ?? null, high: bounds?.[1] ?? null, apply, ...asked })

function digitsOnly({ kind, low, high }: Reader, text: string): boolean {
  if (!PLAIN.includes(kind) || !/^\d{1,6}$/.test(text.trim())) return false
  const value = Number(text)
  return value >= (low ?? -Infinity) && value <= (high ?? Infinity)
}

/** Where on the screen a figure stands: view, document and light, so that a text goes nowhere else. */
function placeOf(label: string): string {
  const at = atSetup() ? `setup/${bench.session?.id}/${bench.session?.light}` : location.hash
  return `${at}|${label}`
}

/** A field while it is typed into: the text, what is wrong with it or may be meant by it. */
export class Typed {
  text = $state('')
  wrong = $state('')
  /** What the text can mean, to be asked, and the sentence that asks. */
  meanings = $state.raw<Meaning[]>([])
  asks = $state('')
  /** Whether the server has not read the text yet. */
  waiting = $state(false)
  private turn = 0
  /** What is on its way to be read. */
  private static asked: Promise<boolean>[] = []

  clear(): void {
    this.turn++
    this.wrong = this.asks = ''
    this.meanings = []
  }

  /** Have the text read. Resolves to true once its value is taken; what is asked or refused stands here instead. */
  async take(reader: Reader, label: string, key = label): Promise<boolean> {
    const reading = this.read(reader, label, placeOf(key))
    beingRead(reading)
    Typed.asked.push(reading)
    try {
      return await reading
    } finally {
      Typed.asked = Typed.asked.filter((one) => one !== reading)
    }
  }

  /** Whether something is on its way to be read. */
  static get reading(): boolean {
    return Typed.asked.length > 0
  }

  /** Once all that was typed is read, or waits for the server. */
  static async quiet(): Promise<void> {
    if (!Typed.asked.length) return
    await Promise.race([Promise.allSettled(Typed.asked), new Promise((done) => setTimeout(done, QUIET_MS))])
  }

  /** Whether all that was typed into a form is read, once what is on its way is; else what is not has the focus. */
  static async ready(form: HTMLElement | undefined): Promise<boolean> {
    if (Typed.reading) await Typed.quiet()
    const open = Typed.unreadIn(form)
    open?.focus()
    return !open
  }

  /** The first field of a form whose text is not read: it waits, asks or was refused. */
  static unreadIn(form: HTMLElement | undefined): HTMLElement | null {
    return form?.querySelector<HTMLElement>('[data-unread]') ?? null
  }

  private async read(reader: Reader, label: string, place: string): Promise<boolean> {
    const { text } = this
    this.clear()
    if (digitsOnly(reader, text)) {
      unread.drop(place)
      reader.apply(Number(text), null)
      return true
    }
    const mine = this.turn
    unread.put(place, label, text)
    for (;;) {
      const { apply, ...asked } = reader
      const { data, error, response } = await api.POST('/api/read', { body: { ...asked, text } })
      if (!data && !REFUSED.includes(response.status)) {
        this.waiting = true
        unread.waits = whyWaiting(response.status ?? UNREACHABLE, error)
        await outbox.pause(AGAIN_MS)
        if (unread.all.get(place)?.text !== text || !this.here(place)) return this.left()
        continue
      }
      if (!this.here(place)) return this.left() // it is read when its place is open again
      unread.drop(place)
      this.waiting = false
      if (mine !== this.turn) return false
      if (data?.outcome === 'read') {
        apply(data.value!, data.most ?? null)
        if (data.note) history.say(data.note)
        return true
      }
      this.wrong = data?.outcome === 'refused' ? (data.sentence ?? '') : ''
      if (!data) this.wrong = 'This cannot be read: it is too long.'
      this.meanings = data?.meanings ?? []
      this.asks = data?.outcome === 'ask' ? (data.sentence ?? '') : ''
      return false
    }
  }

  /** Whether the view, document and light of a place are the ones in hand. */
  private here(place: string): boolean {
    return place.startsWith(placeOf(''))
  }

  private left(): boolean {
    this.waiting = false
    return false
  }

  /** Take one of the things that the text can mean. */
  choose(reader: Reader, meaning: Meaning): void {
    this.clear()
    reader.apply(meaning.value, null)
  }

  /** What was typed here before, and was not read: '' where there is none. */
  static kept(label: string): string {
    return unread.all.get(placeOf(label))?.text ?? ''
  }

  /** Let what waits go. */
  forget(label: string): void {
    unread.drop(placeOf(label))
    this.waiting = false
    this.clear()
  }
}
