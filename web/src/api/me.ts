import { computed, shallowRef } from 'vue'
import { api, background, told, type Schemas } from './client'

export type Me = Schemas['Me']

/** Who is signed in; null: nobody; undefined: not asked yet. */
export const me = shallowRef<Me | null>()

export const isLead = computed(() => me.value?.role === 'lead trainer')

export async function whoAmI(): Promise<Me | null> {
  if (me.value === undefined) {
    const { data, response } = await background.GET('/api/me').catch(() => ({ data: undefined, response: undefined }))
    if (response === undefined) return null
    me.value = data ?? null
  }
  return me.value ?? null
}

export async function signIn(email: string, password: string) {
  me.value = await told(api.POST('/api/sign-in', { body: { email, password } }))
}

export async function signInDemo() {
  me.value = await told(api.POST('/api/sign-in/demo'))
}

export async function changePassword(old: string, next: string) {
  me.value = await told(api.POST('/api/password', { body: { old, new: next } }))
}

export async function signOut(everywhere = false) {
  await told(everywhere ? api.POST('/api/sign-out-everywhere') : api.POST('/api/sign-out'))
  me.value = null
}
