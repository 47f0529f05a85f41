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
