// The horse's file, read once for the header and all its tabs.
import { inject, type InjectionKey, type ShallowRef } from 'vue'
import type { Schemas } from '../api/types'

export interface HorseFile {
  file: ShallowRef<Schemas['File'] | undefined>
  reload: () => Promise<void>
}

export const horseFile: InjectionKey<HorseFile> = Symbol('horse file')

/** The file of the horse that this tab is part of; there once tabs show. */
export function useHorseFile(): HorseFile {
  const found = inject(horseFile)
  if (!found) throw new Error('a tab stands within a horse')
  return found
}
