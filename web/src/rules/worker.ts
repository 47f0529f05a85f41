// The rules of the arena, off the page: the core as it is built for the
// browser. It keeps the track of the open session.
import './made/wasm_exec.js'
import core from './made/core.wasm?url'

declare class Go {
  importObject: WebAssembly.Imports
  run(instance: WebAssembly.Instance): Promise<void>
}
declare const ivorybridge: (name: string, asked: string) => string

export interface Asked {
  n: number
  name: string
  asked: string
}

async function begin() {
  const go = new Go()
  const { instance } = await WebAssembly.instantiateStreaming(fetch(core), go.importObject)
  void go.run(instance)
}
const begun = begin()

self.addEventListener('message', (e: MessageEvent<Asked>) => {
  const { n, name, asked } = e.data
  begun.then(
    () => self.postMessage({ n, said: ivorybridge(name, asked) }),
    () => self.postMessage({ n, said: '{"error":"the rules could not be loaded on this device"}' }),
  )
})
