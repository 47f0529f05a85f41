import { ref, shallowRef } from 'vue'
import { Trouble } from './client'

function troubleOf(error: unknown): Trouble {
  if (!(error instanceof Trouble)) console.error(error)
  return error instanceof Trouble ? error : new Trouble(0, 'Something went wrong on this page. Reload it; what is saved stays.')
}

/** Reads something for a page. What was read stays while it is read again. */
export function useLoad<T>(read: () => Promise<T>) {
  const data = shallowRef<T>()
  const trouble = shallowRef<Trouble>()
  const loading = ref(false)
  /** When what is shown was read. */
  const at = ref(0)
  async function load() {
    loading.value = true
    try {
      data.value = await read()
      at.value = Date.now()
      trouble.value = undefined
    } catch (error) {
      trouble.value = troubleOf(error)
    } finally {
      loading.value = false
    }
  }
  void load()
  return { data, trouble, loading, at, load }
}

/** Sends something a person pressed a button for. */
export function useSend() {
  const sending = ref(false)
  const trouble = shallowRef<Trouble>()
  async function send<T>(work: () => Promise<T>): Promise<T | undefined> {
    if (sending.value) return undefined
    sending.value = true
    trouble.value = undefined
    try {
      return await work()
    } catch (error) {
      trouble.value = troubleOf(error)
      return undefined
    } finally {
      sending.value = false
    }
  }
  return { sending, trouble, send }
}
