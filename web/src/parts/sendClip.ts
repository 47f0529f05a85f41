// A clip on its way: in pieces that go on after a cut, also after this page was left. The
// library that does it is loaded when it is first needed.
import type { Schemas } from '../api/types'

/** Why a clip is not kept, as a sentence; status 0: the line is down. */
export class NotSent extends Error {
  constructor(
    public status: number,
    says: string,
  ) {
    super(says)
  }
}

export interface Sending {
  horse: string
  name: string
  view: string
  on: string
}

const piece = 1 << 20
/** How long is waited before each further try, ms; then the person presses again. */
const waits = [1000, 3000, 5000, 10_000, 20_000, 30_000, 60_000]

/** An id that belongs to a file for as long as it has not arrived: a cut can't make two of it. */
function idOf(file: File, make: () => string): [string, () => void] {
  const key = `ivory-clip ${file.name} ${file.size} ${file.lastModified}`
  const id = sessionStorage.getItem(key) ?? make()
  sessionStorage.setItem(key, id)
  return [id, () => sessionStorage.removeItem(key)]
}

/** Sends a film. Told how much of it has arrived; answers when all of it has. */
export async function sendClip(
  file: File,
  says: Sending,
  to: {
    endpoint: string
    headers?: Record<string, string>
    make: () => string
    told: (share: number) => void
  },
): Promise<void> {
  const tus = await import('tus-js-client')
  const [clip, forget] = idOf(file, to.make)
  const fingerprint = () => Promise.resolve(`ivory-clip ${clip}`)
  const arrived = new Promise<void>((done, failed) => {
    const upload = new tus.Upload(file, {
      endpoint: to.endpoint,
      headers: to.headers,
      chunkSize: piece,
      retryDelays: waits,
      removeFingerprintOnSuccess: true,
      fingerprint,
      metadata: { ...says, clip },
      // A piece that is let go as another begins is no refusal.
      onShouldRetry: (error) => {
        const status = error.originalResponse?.getStatus() ?? 0
        return status === 0 || status >= 500 || [400, 409, 423].includes(status)
      },
      onProgress: (sent, all) => to.told(sent / all),
      onSuccess: () => done(),
      onError: (error) => failed(whyNot(error)),
    })
    void upload.findPreviousUploads().then((before) => {
      if (before[0]) upload.resumeFromPreviousUpload(before[0])
      upload.start()
    })
  })
  await arrived
  forget()
}

function whyNot(error: Error): NotSent {
  const answer =
    'originalResponse' in error ? (error.originalResponse as { getBody(): string; getStatus(): number } | null) : null
  if (!answer)
    return new NotSent(
      0,
      'The line is down. What arrived stays: send it again when there is a signal, and it goes on from there.',
    )
  try {
    const p = JSON.parse(answer.getBody()) as Partial<Schemas['Problem']>
    return new NotSent(answer.getStatus(), p.errors?.[0]?.say ?? p.detail ?? 'The clip could not be kept. Send it again.')
  } catch {
    return new NotSent(answer.getStatus(), 'The clip could not be kept. Send it again.')
  }
}
