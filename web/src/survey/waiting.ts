import type { Schemas } from '../api/client'

export type Message = Schemas['DeviceMessage']

/** What one space still has waiting on this device, in the order it was said. */
export function waitingOf(spaceId: number): Message[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(name(spaceId)) ?? '[]')
    return Array.isArray(kept) ? (kept as Message[]) : []
  } catch {
    return []
  }
}

export function keepWaiting(spaceId: number, messages: readonly Message[]): void {
  if (messages.length > 0) localStorage.setItem(name(spaceId), JSON.stringify(messages))
  else localStorage.removeItem(name(spaceId))
}

function name(spaceId: number): string {
  return `waiting:${spaceId}`
}

/** A message with a key of its own, so that it is carried out once however often it is sent. */
export function message(what: Partial<Message>): Message {
  return {
    key: newKey(),
    line: '',
    section: '',
    text: '',
    slot: null,
    instrument: 'tape',
    taken: new Date().toISOString().slice(0, 19),
    ...what,
  }
}

/** crypto.randomUUID is missing where the page is not served securely, as on a phone in the house's own network. */
export function newKey(): string {
  return [...crypto.getRandomValues(new Uint8Array(16))].map((n) => n.toString(16).padStart(2, '0')).join('')
}
