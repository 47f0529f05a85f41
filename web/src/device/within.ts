/** How long a page waits for what is kept on this device, ms. */
export const patience = 2000

/** What a promise comes to, or undefined where it takes longer than a page should
 * wait: a device whose disk is busy holds up nothing that the server has said. */
export function within<T>(ms: number, work: Promise<T>): Promise<T | undefined> {
  return Promise.race([work, new Promise<undefined>((done) => setTimeout(() => done(undefined), ms))])
}
