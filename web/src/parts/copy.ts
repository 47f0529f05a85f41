/** Puts a text where it can be pasted; says how it went, since an insecure address may
 * not do it. */
export async function copied(text: string): Promise<string> {
  try {
    await navigator.clipboard.writeText(text)
    return 'Copied.'
  } catch {
    return 'This browser does not copy here. Select the text and copy it yourself.'
  }
}

/** Where the phone can pass a text on to whom it is for. */
export const shares = typeof navigator.share === 'function'

/** Passes a text on by the phone's own sheet, with a file where the phone takes it, else
 * copies it; says what was done, where that is not seen. */
export async function passedOn(text: string, file?: File): Promise<string> {
  if (!shares) return copied(text)
  const whole = file && navigator.canShare({ text, files: [file] }) ? { text, files: [file] } : { text }
  await navigator.share(whole).catch(() => undefined) // closed without choosing
  return ''
}
