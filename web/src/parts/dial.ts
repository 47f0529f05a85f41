/** A number as a phone dials it. */
export const dial = (phone: string) => `tel:${phone.replaceAll(' ', '')}`
