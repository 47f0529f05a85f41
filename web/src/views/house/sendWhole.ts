// A large file on its way, told how much of it is sent.
import type { Schemas } from '../../api/types'

/** Sends a file as it is. Fails with a sentence. */
export function sendWhole(to: string, file: File, part: (share: number) => void): Promise<Schemas['TakingIn']> {
  return new Promise((done, fail) => {
    const request = new XMLHttpRequest() // which tells how much is sent
    request.open('POST', to)
    request.setRequestHeader('Content-Type', 'application/zip')
    request.responseType = 'json'
    request.upload.onprogress = (e) => e.lengthComputable && part(e.loaded / e.total)
    request.onerror = () => fail(new Error('It broke off on its way. Nothing was taken in. Send it again.'))
    request.onload = () => {
      if (request.status === 202) return done(request.response as Schemas['TakingIn'])
      const problem = request.response as Partial<Schemas['Problem']> | null
      fail(new Error(problem?.detail ?? 'It was not taken. Send it again.'))
    }
    request.send(file)
  })
}
