// A shared tablet: what was kept for one user goes when that user's sign-in ends,
// here or from elsewhere, but for what is not sent yet.
import { Shelf } from './shelf'

/** A rope that was being held on this device, as the arena keeps it. */
const held = /^hold-/

export async function forget(user: string, practice: string) {
  for (const key of Object.keys(localStorage)) if (held.test(key)) localStorage.removeItem(key)
  const shelf = new Shelf(user, practice)
  try {
    await shelf.forget()
  } finally {
    shelf.close()
  }
}
