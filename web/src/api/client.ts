import createClient, { type Middleware } from 'openapi-fetch'
import type { Readable } from 'openapi-typescript-helpers'

import type { components, paths } from './schema'

export type Schemas = components['schemas']

/** What the server says when it refuses: RFC 9457, with the mend. */
export class Problem extends Error {
  readonly status: number
  readonly detail: string
  readonly mend: string
  readonly faults: readonly string[]

  constructor(
    status: number,
    body: Partial<{ title: string; detail: string; mend: string; faults: string[] }>,
  ) {
    super(body.title ?? 'The server did not answer as expected.')
    this.status = status
    this.detail = body.detail ?? ''
    this.mend = body.mend ?? ''
    this.faults = body.faults ?? []
  }

  /** Title, detail and mend in one line. */
  get sentence(): string {
    return [this.message, this.detail, this.mend].filter(Boolean).join(' ')
  }
}

const NO_CONNECTION = { title: 'The server cannot be reached.', mend: 'What you typed is kept; try again.' }

function csrfToken(): string {
  return /(?:^|;\s*)csrftoken=([^;]+)/.exec(document.cookie)?.[1] ?? ''
}

/** `crypto.randomUUID` is only there over HTTPS and on this machine itself. */
function newKey(): string {
  return Array.from(crypto.getRandomValues(new Uint8Array(16)), (byte) =>
    byte.toString(16).padStart(2, '0'),
  ).join('')
}

const AGAIN_AFTER_MS = [300, 1200]

/** Sends a request; one that makes something is sent again under its key when the connection broke. */
async function persevering(request: Request): Promise<Response> {
  const again = request.headers.has('Idempotency-Key') ? AGAIN_AFTER_MS : []
  for (const wait of again) {
    try {
      return await fetch(request.clone())
    } catch (error) {
      if (!navigator.onLine) throw error
      await new Promise((go) => setTimeout(go, wait))
    }
  }
  return fetch(request)
}

const withToken: Middleware = {
  onRequest({ request }) {
    if (request.method !== 'GET') request.headers.set('X-CSRFToken', csrfToken())
    // Made once, however often it has to be sent.
    if (request.method === 'POST') request.headers.set('Idempotency-Key', newKey())
    return request
  },
  async onResponse({ response }) {
    if (response.ok) return response
    const body: unknown = await response.json().catch(() => ({}))
    throw new Problem(response.status, typeof body === 'object' && body ? body : {})
  },
  onError() {
    return new Problem(0, NO_CONNECTION)
  },
}

export const api = createClient<paths>({ baseUrl: '', credentials: 'same-origin', fetch: persevering })
api.use(withToken)

/** The schema an answer was declared with: openapi-fetch widens its tuples to arrays on the way. */
type Declared<T> = {
  [K in keyof Schemas]: [T, Readable<Schemas[K]>] extends [Readable<Schemas[K]>, T] ? Schemas[K] : never
}[keyof Schemas]

/** The body of an answer; errors have been thrown by the middleware. */
export async function body<T>(answer: Promise<{ data?: T | undefined }>): Promise<Declared<T>> {
  const { data } = await answer
  if (data === undefined) throw new Problem(0, NO_CONNECTION)
  return data as Declared<T>
}

/** Any error as a sentence for people. */
export function said(error: unknown): string {
  return error instanceof Problem
    ? error.sentence
    : 'Something went wrong here. Reload the page and try again.'
}
