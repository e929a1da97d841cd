import { beforeEach, expect, test, vi } from 'vitest'
import type { Setup, Solved } from './api/client'

type Sent = {
  url: string
  method: string
  match: string | null
  body: Setup
  answer: (reply: Response) => void
}
const sent: Sent[] = []

const kept = new Map<string, string>()
const storage = new Proxy({} as Record<string, unknown>, {
  get: (_, name) =>
    ({
      getItem: (key: string) => kept.get(key) ?? null,
      setItem: (key: string, text: string) => void kept.set(key, text),
      removeItem: (key: string) => void kept.delete(key),
    })[name as string],
  ownKeys: () => [...kept.keys()],
  getOwnPropertyDescriptor: () => ({ enumerable: true, configurable: true }),
})
vi.stubGlobal('sessionStorage', storage)
vi.stubGlobal('localStorage', storage)
vi.stubGlobal('fetch', async (request: Request) => {
  const body = request.method !== 'GET' ? await request.clone().json() : null
  return new Promise<Response>((answer) =>
    sent.push({
      url: request.url,
      method: request.method,
      match: request.headers.get('if-match'),
      body,
      answer,
    }),
  )
})
// The client's addresses are relative to a page; here there is none.
const Plain = Request
vi.stubGlobal(
  'Request',
  class extends Plain {
    constructor(input: RequestInfo | URL, init?: RequestInit) {
      super(typeof input === 'string' && input.startsWith('/') ? `http://page.test${input}` : input, init)
    }
  },
)

const { SetupSession } = await import('./session.svelte')
const { likely } = await import('./foresight')
const { outbox } = await import('./outbox.svelte')

const solved = (id: string, frames: number, revision: number): Solved =>
  ({
    id,
    revision,
    job_id: null,
    setup: { name: id, frames, lights: [{}] },
    answer: null,
    trouble: '',
  }) as unknown as Solved
const reply = (value: unknown, status = 200) =>
  new Response(JSON.stringify(value), { status, headers: { 'content-type': 'application/json' } })
const opened = (id: string) => new SetupSession(id, () => {}, solved(id, 1, 1))
const until = (count: number) => vi.waitFor(() => expect(sent.length).toBe(count))

beforeEach(() => void (sent.length = 0))

test('a session saves its own document under its own revision, whatever else is opened meanwhile', async () => {
  const a = opened('a')
  a.edit('Frames', (s) => (s.frames = 2))
  a.edit('Frames', (s) => (s.frames = 3))
  const b = opened('b')
  await until(1)
  sent[0]!.answer(reply(solved('a', 2, 2)))
  await until(2)
  expect(sent.map((one) => new URL(one.url).pathname)).toEqual(['/api/setups/a', '/api/setups/a'])
  expect(sent.map((one) => one.match)).toEqual(['"1"', '"2"'])
  expect(sent[1]!.body.name).toBe('a')
  expect(b.doc.name).toBe('b')
  sent[1]!.answer(reply(solved('a', 3, 3)))
  await a.settle()
  expect(a.changes).toEqual([])
})

test('an answer asked for before an edit does not take the screen back', async () => {
  const session = opened('a')
  const asked = session.refresh()
  await until(1)
  session.edit('Frames', (s) => (s.frames = 7))
  await until(2)
  sent[0]!.answer(reply(solved('a', 1, 1))) // late, and old
  await asked
  expect(session.doc.frames).toBe(7)
  expect(sent[1]!.match).toBe('"1"')
  sent[1]!.answer(reply(solved('a', 7, 2)))
  await session.settle()
  expect([session.doc.frames, session.changes]).toEqual([7, []])
})

test('what is changed during a reload is changed in what comes, under its revision', async () => {
  const session = opened('a')
  const reloaded = session.reload()
  await until(1)
  session.edit('Frames', (s) => (s.frames += 10))
  sent[0]!.answer(reply(solved('a', 5, 8)))
  await reloaded
  await until(2)
  expect([sent[1]!.match, sent[1]!.body.frames]).toEqual(['"8"', 15])
})

test('a refusal is shown, and the screen does not call it saved', async () => {
  const session = opened('a')
  session.edit('Frames', (s) => (s.frames = -1))
  await until(1)
  sent[0]!.answer(
    reply({ problems: [{ where: 'frames', field: 'Frames', sentence: 'Frames must be at least 1.' }] }, 422),
  )
  await session.settle()
  expect(session.aside[0]!.refused![0]!.sentence).toContain('at least 1')
  expect(outbox.state).toBe('aside')
})

test('while figures are nudged only lanes in sight are asked for; the others follow, and nothing is taken for new', async () => {
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
  const told = (revision: number, id: string[], spare: number[]): Solved => ({
    ...solved('a', 1, revision),
    answer: {
      arcs: [{ effect: 'distance', stops: spare }],
      lanes: { id, spare },
    } as unknown as Solved['answer'],
  })
  const one = new SetupSession('a', () => {}, told(1, ['p', 'q', 'r'], [1, 2, 3]))
  one.sight = ['q', 'r']
  one.edit('Frames', (s) => (s.frames = 2))
  await vi.waitFor(() => expect(sent.length).toBe(1))
  expect(new URL(sent[0]!.url).searchParams.getAll('sight')).toEqual(['q', 'r'])
  sent[0]!.answer(reply(told(2, ['q', 'r'], [20, 30])))
  await vi.waitFor(() => expect(one.answer?.lanes?.spare).toEqual([1, 20, 30]))
  expect(one.answer?.arcs[0]?.stops).toEqual([1, 20, 30])
  expect(one.partial).toBe(true)
  await vi.advanceTimersByTimeAsync(800)
  expect(sent[1]!.method).toBe('GET')
  sent[1]!.answer(reply(told(2, ['p', 'q', 'r'], [10, 20, 30])))
  await vi.waitFor(() => expect(one.partial).toBe(false))
  expect(one.answer?.lanes?.spare).toEqual([10, 20, 30])
  vi.useRealTimers()
})

test('what an edit is likely to come to is asked before, and shows at once where it is made', async () => {
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
  const told = (frames: number, revision: number, verdict: string): Solved => ({
    ...solved('a', frames, revision),
    answer: { verdict, arcs: [], lanes: { id: [] } } as unknown as Solved['answer'],
  })
  const one = new SetupSession('a', () => {}, told(1, 1, 'one'))
  const more = (by: number) => () => one.edit('Frames', (s) => (s.frames += by))
  likely([more(1), more(-1)])
  await vi.advanceTimersByTimeAsync(100)
  await until(2)
  expect(sent.map((ask) => [ask.method, ask.body.frames])).toEqual([
    ['POST', 2],
    ['POST', 0],
  ])
  expect([one.doc.frames, one.changes, one.answer?.verdict]).toEqual([1, [], 'one']) // nothing is done by it
  sent[0]!.answer(reply(told(2, 1, 'two')))
  sent[1]!.answer(reply(told(0, 1, 'none')))
  await vi.advanceTimersByTimeAsync(0)
  more(1)()
  expect([one.answer?.verdict, one.unsent.length]).toEqual(['two', 1])
  const shown = one.answer
  await until(3)
  expect([sent[2]!.method, sent[2]!.body.frames]).toEqual(['PUT', 2])
  sent[2]!.answer(reply(told(2, 2, 'two')))
  await vi.waitFor(() => expect(one.unsent).toEqual([]))
  expect(one.answer).toBe(shown) // the same, so that nothing is drawn twice
  more(5)() // which nobody foresaw
  expect(one.answer).toBe(shown)
  await until(4)
  sent[3]!.answer(reply(told(7, 3, 'seven')))
  await vi.waitFor(() => expect(one.answer?.verdict).toBe('seven'))
  const foreseen = async (place: number, value: Solved) => {
    likely([more(1)])
    await vi.advanceTimersByTimeAsync(100)
    await until(place + 1)
    sent[place]!.answer(reply(value))
    await vi.advanceTimersByTimeAsync(0)
    more(1)()
  }
  await foreseen(4, told(8, 3, 'eight, of an old shelf'))
  await until(6)
  sent[5]!.answer(reply(told(8, 4, 'eight')))
  await vi.waitFor(() => expect(one.answer?.verdict).toBe('eight')) // what is stored has the last word
  await foreseen(6, told(9, 4, 'nine'))
  expect(one.answer?.verdict).toBe('nine')
  await until(8)
  sent[7]!.answer(reply({ problems: [{ where: '', field: '', sentence: 'No.' }] }, 422))
  await vi.waitFor(() => expect(one.aside.length).toBe(1))
  one.forget(one.aside[0]!)
  await vi.waitFor(() => expect([one.doc.frames, one.answer?.verdict]).toEqual([8, 'eight']))
  likely([])
  vi.useRealTimers()
})

test('after a clash the answer is asked anew, and what is changed next is sent', async () => {
  const session = opened('a')
  session.edit('Frames', (s) => (s.frames = 2))
  await until(1)
  const current = { id: 'a', revision: 5, job_id: null, doc: solved('a', 9, 5).setup, line: '' }
  sent[0]!.answer(reply({ problems: [], current }, 412))
  await until(2) // what the other made of it
  sent[1]!.answer(reply(solved('a', 9, 5)))
  await vi.waitFor(() => expect(session.aside.length).toBe(1))
  expect(session.doc.frames).toBe(2) // still on the screen
  session.choose(session.aside[0]!, 'theirs')
  expect(session.doc.frames).toBe(9)
  session.edit('Frames', (s) => (s.frames = 10))
  await until(3)
  expect([sent[2]!.match, sent[2]!.body.frames]).toEqual(['"5"', 10])
})
