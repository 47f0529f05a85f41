// What the phone keeps: the pages as they were read last, and practice that was
// written down and not sent yet. What can't be kept is shown all the same.
import { v4 as uuid } from 'uuid'
import { localDate } from '../dates'
import type { Log, Pages } from './client'

export interface Waiting {
  horse: string
  log: Log
  /** Why the server did not take it; then it is kept until it is let go. */
  refused?: string
}

export interface Shelf {
  pages?: Pages
  /** When they were read, ms. */
  at?: number
  waiting: Waiting[]
}

const name = (token: string) => `owner:${token.slice(0, 8)}`

export function read(token: string, store: Storage = localStorage): Shelf {
  try {
    const shelf = JSON.parse(store.getItem(name(token)) ?? '{}') as Partial<Shelf>
    return { ...shelf, waiting: Array.isArray(shelf.waiting) ? shelf.waiting : [] }
  } catch {
    return { waiting: [] }
  }
}

/** Keeps it; false where the phone does not let us. */
export function keep(token: string, shelf: Shelf, store: Storage = localStorage): boolean {
  try {
    store.setItem(name(token), JSON.stringify(shelf))
    return true
  } catch {
    return false
  }
}

/** A log as it begins: nothing of it is filled in but the usual minutes. */
export function blank(step: string, minutes: number, now: Date, replaces?: Log): Log {
  return {
    id: uuid(),
    person: '',
    step,
    on: localDate(now.getTime()),
    at: now.getTime(),
    done: true,
    minutes,
    answers: [],
    ...(replaces ? { replaces: replaces.id } : {}),
  }
}

/** The logs that stand: one that was put right is gone. */
export function standing(logs: Log[]): Log[] {
  const replaced = new Set(logs.map((l) => l.replaces))
  return logs.filter((l) => !replaced.has(l.id))
}
