import fc from 'fast-check'

/** What nobody writes and somebody sends. */
const nasty: unknown[] = [
  null,
  '',
  ' ',
  '__proto__',
  'constructor',
  '../../etc/passwd',
  'a\u0000b',
  'name\n.control\nshell id',
  '\ud800',
  '=1+1',
  "'; drop table job; --",
  '<script>alert(1)</script>',
  'x'.repeat(5000),
  '\u202e12V',
  -1,
  0,
  1e-300,
  1e308,
  -0.5,
  2 ** 53,
  true,
  [],
  {},
  [[[[[[]]]]]],
]

type Place = (string | number)[]

/** Every place in a value, as a path; of very large ones the first ten thousand. */
function places(value: unknown): Place[] {
  const found: Place[] = []
  const waiting: { value: unknown; at: Place }[] = [{ value, at: [] }]
  for (let next = waiting.shift(); next && found.length < 10_000; next = waiting.shift()) {
    if (next.at.length > 0) found.push(next.at)
    if (typeof next.value !== 'object' || next.value === null) continue
    for (const [key, inner] of Object.entries(next.value))
      waiting.push({ value: inner, at: [...next.at, Array.isArray(next.value) ? Number(key) : key] })
  }
  return found
}

function nested(levels: number): unknown {
  let value: unknown = 'x'
  for (let i = 0; i < levels; i++) value = i % 2 ? [value] : { not: value }
  return value
}

/** One stroke at one place: taken out, doubled, exchanged for another place's, nasty, nested, many times over, or another key. */
function struck(value: unknown, where: number, how: number): unknown {
  const all = places(value)
  if (all.length === 0) return nasty[how % nasty.length]
  const place = all[where % all.length]
  const last = place[place.length - 1]
  const root = structuredClone(value)
  let holder = root as Record<string | number, unknown>
  for (const step of place.slice(0, -1)) holder = holder[step] as typeof holder
  const there = holder[last]
  const list = Array.isArray(holder) ? (holder as unknown[]) : undefined
  switch (how % 9) {
    case 0:
      if (list) list.splice(Number(last), 1)
      else delete holder[last]
      break
    case 1:
      if (list) list.push(structuredClone(there))
      else holder[`${last}2`] = structuredClone(there)
      break
    case 2: {
      let other: unknown = value
      for (const step of all[(where * 31 + how) % all.length]) other = (other as typeof holder)[step]
      holder[last] = structuredClone(other)
      break
    }
    case 3:
      holder[last] = nested(how % 400)
      break
    case 4:
      if (list) for (let i = 0; i < how % 3000; i++) list.push(structuredClone(there))
      else for (let i = 0; i < how % 300; i++) holder[`k${i}`] = i
      break
    case 5:
      if (typeof there === 'number') holder[last] = there * [10, -1, 1e-9, 1e9, 0.1][how % 5]
      else if (typeof there === 'string') holder[last] = there.slice(0, how % 7)
      break
    default:
      holder[last] = structuredClone(nasty[how % nasty.length])
  }
  return root
}

/** A value with up to four strokes; the same seed gives the same. */
export const mutated = (values: fc.Arbitrary<unknown>): fc.Arbitrary<unknown> =>
  fc
    .tuple(values, fc.array(fc.tuple(fc.nat(), fc.nat()), { maxLength: 4 }))
    .map(([value, strokes]) => strokes.reduce((now, [where, how]) => struck(now, where, how), value))

/** Text with pieces taken out, doubled or made nasty. */
export const mutatedText = (texts: fc.Arbitrary<string>): fc.Arbitrary<string> =>
  fc.tuple(texts, fc.array(fc.tuple(fc.nat(), fc.nat(60), fc.nat()), { maxLength: 5 })).map(([text, strokes]) =>
    strokes.reduce((now, [where, length, how]) => {
      const at = where % (now.length + 1)
      const piece = now.slice(at, at + length)
      const put = [String(nasty[how % nasty.length]), '', piece + piece, '"', '\n', ',', ';'][how % 7]
      return now.slice(0, at) + put + now.slice(at + length)
    }, text),
  )
