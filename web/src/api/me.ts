import { computed, shallowRef } from 'vue'
import { api, background, told } from './client'
import type { Schemas } from './types'

export type Me = Schemas['Me']

/** Who is signed in; null: nobody; undefined: not asked yet. */
export const me = shallowRef<Me | null>()

export const isLead = computed(() => me.value?.role === 'lead trainer')

const keptMe = 'ivorybridge-me'

/** Who is signed in; without a signal, who was on this device. */
export async function whoAmI(): Promise<Me | null> {
  if (me.value === undefined) {
    const answer = await background.GET('/api/me', { signal: AbortSignal.timeout(5000) }).catch(() => undefined)
    if (answer && answer.response.status < 500) be(answer.data ?? null)
    else me.value = JSON.parse(localStorage.getItem(keptMe) ?? 'null') as Me | null
  }
  return me.value ?? null
}

function be(now: Me | null) {
  me.value = now
  if (now) localStorage.setItem(keptMe, JSON.stringify(now))
  else localStorage.removeItem(keptMe)
}

export async function signIn(email: string, password: string) {
  be(await told(api.POST('/api/sign-in', { body: { email, password } })))
}

export async function signInDemo() {
  be(await told(api.POST('/api/sign-in/demo')))
}

export async function changePassword(old: string, next: string) {
  be(await told(api.POST('/api/password', { body: { old, new: next } })))
}

export async function signOut(everywhere = false) {
  await told(everywhere ? api.POST('/api/sign-out-everywhere') : api.POST('/api/sign-out'))
  be(null)
}
