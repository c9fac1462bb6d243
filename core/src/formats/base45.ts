/** The letters of RFC 9285, in their order: those of a QR code's alphanumeric mode. */
const letters = '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ $%*+-./:'

/** Bytes in base 45 (RFC 9285): two of them in three letters. */
export function base45(bytes: Uint8Array): string {
  let text = ''
  for (let i = 0; i < bytes.length; i += 2) {
    const pair = i + 1 < bytes.length
    let rest = pair ? bytes[i] * 256 + bytes[i + 1] : bytes[i]
    for (let n = pair ? 3 : 2; n > 0; n--) {
      text += letters[rest % 45]
      rest = Math.floor(rest / 45)
    }
  }
  return text
}

/** The bytes of base 45; undefined where it is none. */
export function fromBase45(text: string): Uint8Array | undefined {
  if (text.length % 3 === 1) return undefined
  const bytes: number[] = []
  for (let i = 0; i < text.length; i += 3) {
    const digits = [...text.slice(i, i + 3)].map((letter) => letters.indexOf(letter))
    const value = digits.reduceRight((sum, digit) => sum * 45 + digit, 0)
    if (digits.includes(-1) || value > (digits.length === 3 ? 0xffff : 0xff)) return undefined
    bytes.push(...(digits.length === 3 ? [value >> 8, value & 0xff] : [value]))
  }
  return new Uint8Array(bytes)
}
