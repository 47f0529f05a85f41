import { computed, shallowRef } from 'vue'
import { forget } from '../device/forget'
import { api, background, onEnded, told, Trouble } from './client'
import type { Schemas } from './types'

export type Me = Schemas['Me']

/** Who is signed in; null: nobody; undefined: not asked yet. */
export const me = shallowRef<Me | null>()

export const isLead = computed(() => me.value?.role === 'lead trainer')

/** A helper logs, and sees no more than that takes. */
export const isHelper = computed(() => me.value?.role === 'helper')

const keptMe = 'ivorybridge-me'

/** Who is signed in; without a signal, who was on this device. */
export async function whoAmI(): Promise<Me | null> {
  if (me.value === undefined) {
    const answer = await background.GET('/api/me', { signal: AbortSignal.timeout(5000) }).catch(() => undefined)
    if (answer && answer.response.status < 500) await be(answer.data ?? null)
    else me.value = wasHere()
  }
  return me.value ?? null
}

/** Who was signed in on this device the last time. */
const wasHere = () => JSON.parse(localStorage.getItem(keptMe) ?? 'null') as Me | null

/** Takes away what is kept here for whoever was signed in, but for what is unsent. */
async function forgetWhoWasHere() {
  const before = wasHere()
  if (before) await forget(before.id, before.practice)
}

onEnded(forgetWhoWasHere)

async function be(now: Me | null) {
  const before = wasHere()
  me.value = now // from here on nothing more is kept for whoever was here
  if (before && before.id !== now?.id) await forget(before.id, before.practice)
  if (now) localStorage.setItem(keptMe, JSON.stringify(now))
  else localStorage.removeItem(keptMe)
}

export async function signIn(email: string, password: string) {
  await be(await told(api.POST('/api/sign-in', { body: { email, password } })))
}

export async function join(token: string, email: string, password: string) {
  await be(await told(api.POST('/api/join', { body: { token, email, password } })))
}

export async function signInDemo() {
  await be(await told(api.POST('/api/sign-in/demo')))
}

export async function changePassword(old: string, next: string) {
  await be(await told(api.POST('/api/password', { body: { old, new: next } })))
}

export async function signOut(everywhere = false) {
  try {
    await told(everywhere ? background.POST('/api/sign-out-everywhere') : background.POST('/api/sign-out'))
  } catch (error) {
    if (!(error instanceof Trouble && error.status === 401)) throw error // signed out already
  }
  await be(null)
}
