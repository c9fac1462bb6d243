/** Text that stands in one line and prints: control characters, line breaks among them, become spaces; the rest stays. */
// eslint-disable-next-line no-control-regex -- control characters are what it is about
export const plainText = (text: string): string => text.replace(/[\u0000-\u001f\u007f-\u009f\u2028\u2029]+/g, ' ')

/** A piece of somebody's text within a message: in one line, and no longer than 60 characters. */
export function quoted(text: string): string {
  const plain = plainText(text)
  return `"${plain.length > 60 ? `${plain.slice(0, 59)}…` : plain}"`
}
