/** Hands a file that was made in the browser to whoever asked for it. */
export function saveBlob(blob: Blob, name: string): void {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(blob)
  link.download = name.replace(/[\\/:*?"<>|]+/g, ' ')
  link.click()
  setTimeout(() => URL.revokeObjectURL(link.href), 60_000)
}
