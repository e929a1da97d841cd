import { expect, test } from 'vitest'
import { applied, difference, overlap, standing, type Op } from './difference'

const job = {
  name: 'Week',
  roster: [
    { id: 'a', name: 'Ada', done: false },
    { id: 'b', name: 'Bo', done: false },
    { id: 'c', name: 'Bo', done: false },
  ],
  ticked: ['tape', 'flag'],
  brief: { people: 44, hours: null },
  readings: [1, 2],
}
type Job = typeof job
const changed = (change: (job: Job) => void, from: Job = job): Job => {
  const out = structuredClone(from)
  change(out)
  return out
}
const merged = (mine: Job, theirs: Job, base: Job = job) => applied(theirs, difference(base, mine))

test('what is changed leads from one document to the other', () => {
  const ways: ((one: Job) => void)[] = [
    (one) => (one.name = 'Other'),
    (one) => one.roster.splice(1, 1),
    (one) => one.roster.reverse(),
    (one) => one.roster.unshift({ id: 'x', name: 'Xi', done: true }),
    (one) => (one.roster = [one.roster[2]!, { id: 'x', name: 'Xi', done: true }, one.roster[0]!]),
    (one) => one.ticked.push('card'),
    (one) => (one.ticked = []),
    (one) => (one.readings = [2]),
    (one) => delete (one.brief as Partial<Job['brief']>).hours,
  ]
  for (const way of ways) {
    const now = changed(way)
    expect(applied(job, difference(job, now))).toEqual({ doc: now, clashes: [] })
  }
})

test('two who change different rows and fields lose nothing', () => {
  const mine = changed((one) => {
    one.roster[1]!.done = true
    one.ticked.push('card')
  })
  const theirs = changed((one) => {
    one.roster.splice(0, 1)
    one.roster[0]!.name = 'Bodil'
    one.ticked.splice(0, 1)
    one.brief.people = 50
  })
  const { doc, clashes } = merged(mine, theirs)
  expect(clashes).toEqual([])
  expect(doc.roster).toEqual([
    { id: 'b', name: 'Bodil', done: true },
    { id: 'c', name: 'Bo', done: false },
  ])
  expect([doc.ticked, doc.brief.people]).toEqual([['flag', 'card'], 50])
})

test('the same field changed by both is a clash, unless both made it alike', () => {
  const mine = changed((one) => (one.brief.people = 60))
  const theirs = changed((one) => (one.brief.people = 50))
  const { doc, clashes } = merged(mine, theirs)
  expect([doc.brief.people, clashes.length, clashes[0]!.path]).toEqual([50, 1, ['brief', 'people']])
  expect(merged(mine, mine).clashes).toEqual([])
  expect(applied(theirs, difference(job, mine), { force: true }).doc.brief.people).toBe(60)
})

test('a row that one takes away and the other changes is a clash', () => {
  const gone = changed((one) => one.roster.splice(1, 1))
  const done = changed((one) => (one.roster[1]!.done = true))
  expect(merged(done, gone).clashes.length).toBe(1)
  expect(merged(gone, done).clashes.length).toBe(1)
  expect(merged(gone, gone).clashes).toEqual([])
})

test('changes made one after the other are told apart from others by what each began with', () => {
  const two = changed((one) => (one.brief.people = 45))
  const three = changed((one) => (one.brief.people = 46), two)
  const ops: Op[] = [...difference(job, two), ...difference(two, three)]
  for (const arrived of [job, two, three]) expect(applied(arrived, ops)).toEqual({ doc: three, clashes: [] }) // of which the first may have arrived
  expect(
    applied(
      changed((one) => (one.brief.people = 9)),
      ops,
    ).clashes.length,
  ).toBe(2)
})

test('one thing put in the place of another is changed whole', () => {
  const was = { unit: { id: 'p', name: 'Plover', claims: [1] } }
  const now = { unit: { id: 'q', name: 'Quail', claims: [1] } }
  expect(difference(was, now).map((op) => op.path)).toEqual([['unit']])
})

test('places lie in each other, and can be looked at', () => {
  const row = { by: 'id', is: 'b' }
  expect(overlap(['roster', row], ['roster', row, 'done'])).toBe(true)
  expect(overlap(['roster', row, 'done'], ['roster', row])).toBe(true)
  expect(overlap(['roster', row, 'done'], ['roster', row, 'name'])).toBe(false)
  expect(standing(job, ['roster', row, 'name'])).toBe('Bo')
  expect(standing(job, ['roster', { by: 'id', is: 'z' }, 'name'])).toBe(undefined)
})

test('a row that came before, and was changed since, is not put back as it first was', () => {
  const added = changed((one) => one.roster.push({ id: 'x', name: 'Xi', done: false }))
  const done = changed((one) => (one.roster[3]!.done = true), added)
  const ops = [...difference(job, added), ...difference(added, done)]
  for (const force of [false, true])
    for (const there of [job, added, done]) {
      expect(applied(there, ops, { force })).toEqual({ doc: done, clashes: [] })
    }
  const renamed = changed((one) => (one.roster[3]!.name = 'Xian'), done)
  expect(applied(renamed, difference(job, added))).toEqual({ doc: renamed, clashes: [] })
})
