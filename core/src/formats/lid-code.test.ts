import fc from 'fast-check'
import { someBrief, numbers } from '../../testing'
import { examples } from '../examples'
import { DocumentError } from '../installation'
import { planBriefSchema, planSystem } from '../planning'
import { base45, fromBase45 } from './base45'
import { lidCodes, lidReading, readLidCode, type LidCode } from './lid-code'
import recorded from './lid-code-recorded.json'

const read = (codes: readonly string[]) => codes.map((code) => readLidCode(code)!)
const document = (codes: readonly LidCode[]) => {
  const reading = lidReading(codes)
  return 'document' in reading ? reading.document : undefined
}
const big = examples.find(({ id }) => id === 'two-port-five-heating-hot-water')!.installation

describe('base 45', () => {
  it('is that of RFC 9285', () => {
    expect(base45(new TextEncoder().encode('Hello!!'))).toBe('%69 VD92EX0')
    expect(base45(new TextEncoder().encode('base-45'))).toBe('UJCLQE7W581')
    expect(fromBase45('QED8WEX0')).toEqual(new TextEncoder().encode('ietf!'))
  })
  it('gives back any bytes', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 200 }), (bytes) => expect(fromBase45(base45(bytes))).toEqual(bytes)),
    )
  })
  it('is none with other letters, half a group, or a group beyond two bytes', () => {
    for (const text of ['a00', '0', '0000', ':::', '::']) expect(fromBase45(text)).toBeUndefined()
  })
})

describe('the codes of a lid sheet', () => {
  it.each(examples.map(({ id, installation }) => [id, installation] as const))('carry %s', (_, installation) => {
    expect(document(read(lidCodes(installation)!))).toEqual(installation)
  })

  it('carry whatever Plan lays out, an ordinary house in two at most', () => {
    const random = numbers(45)
    for (let i = 0; i < 60; i++) {
      const brief = planBriefSchema.safeParse(someBrief(random))
      if (!brief.success) continue
      const plan = planSystem(brief.data, 'plan', 'Žluť, 4 Mill Lane')
      const codes = lidCodes(plan)!
      expect(document(read(codes))).toEqual(plan)
      if (brief.data.circuits.length <= 3) expect(codes.length).toBeLessThanOrEqual(2)
    }
  })

  it('fit each into a QR code of version 24, level M: 1,312 letters of its own set', () => {
    for (const { installation } of examples)
      for (const code of lidCodes(installation)!) expect(code).toMatch(/^[0-9A-Z $%*+\-./:]{20,1312}$/)
  })

  it('may be read in any order, and twice; what is missing is told', () => {
    const codes = read(lidCodes({ ...big, name: many('z') })!)
    expect(codes.length).toBeGreaterThan(1)
    expect(lidReading(codes.slice(1))).toEqual({ missing: [1], of: codes.length })
    expect(document([...codes].reverse().concat(codes))?.name).toBe(many('z'))
  })

  it('of two sheets are refused, and so is one letter that is another', () => {
    const [one] = lidCodes(big)!
    expect(() => lidReading([...read(lidCodes(examples[0].installation)!), readLidCode(one)!])).toThrow(
      /different sheets/,
    )
    fc.assert(
      fc.property(fc.nat(), fc.constantFrom(...'0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ $%*+-./:'), (where, letter) => {
        const [code] = lidCodes(examples[4].installation)!
        const at = 28 + (where % (code.length - 28))
        fc.pre(code[at] !== letter)
        expect(() => lidReading(read([code.slice(0, at) + letter + code.slice(at + 1)]))).toThrow(DocumentError)
      }),
    )
  })

  it('are told from whatever else a square may say', () => {
    expect(readLidCode('https://example.org/')).toBeUndefined()
    expect(() => readLidCode('NOBBET-LID/2/1-1/00000000/ABC')).toThrow(/made by a newer Nobbet/)
    expect(() => readLidCode('NOBBET-LID/1/3-2/00000000/ABC')).toThrow(/spoilt/)
    fc.assert(
      fc.property(fc.string(), (rest) => {
        try {
          lidReading([readLidCode(`NOBBET-LID/1/1-1/00000000/${rest}`)!])
        } catch (error) {
          expect(error).toBeInstanceOf(DocumentError)
        }
      }),
    )
  })

  it('of a sheet that somebody has printed are read for ever', () => {
    const reading = document(read(recorded.codes))
    expect(reading?.name).toBe(recorded.name)
    expect(reading?.cables).toHaveLength(recorded.cables)
  })
})

/** A name as long as one may be, that does not deflate. */
function many(first: string): string {
  const random = numbers(7)
  return first + Array.from({ length: 119 }, () => String.fromCharCode(97 + Math.floor(random() * 26))).join('')
}
