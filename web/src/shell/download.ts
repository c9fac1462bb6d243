/** Hands a text or bytes out as a file. */
export function download(name: string, content: string | Uint8Array<ArrayBuffer>, type: string): void {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(new Blob([content], { type }))
  link.download = name
  link.click()
  URL.revokeObjectURL(link.href)
}

/** What a file is called after what it is of. */
export const fileStem = (name: string): string => name.toLowerCase().replace(/[^a-z0-9]+/g, '-')
