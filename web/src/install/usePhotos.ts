import { useQueryClient } from '@tanstack/react-query'
import { get, set } from 'idb-keyval'
import { useCallback, useEffect, useRef, useState } from 'react'

import { api, body, Problem, said } from '../api/client'
import { useRetry } from '../shell/useRetry'
import { shrunk } from '../survey/shrunk'
import { newKey } from '../survey/waiting'
import { planKey } from './useInstall'

interface Waiting {
  key: string
  step: string
  picture: Blob
}

export interface Photos {
  /** What this device took and has not sent yet. */
  waiting: readonly Waiting[]
  refused: string
  take: (step: string, file: File) => void
  remove: (photo: number) => void
}

/** Photos of the work: each is kept on the device until the server has it. */
export function usePhotos(spaceId: number, design: number): Photos {
  const client = useQueryClient()
  const name = `photos:${String(design)}`
  const [waiting, setWaiting] = useState<readonly Waiting[]>([])
  const [refused, setRefused] = useState('')
  const here = useRef<readonly Waiting[]>([])
  const sending = useRef(false)
  const put = useCallback(
    (next: readonly Waiting[]) => {
      here.current = next
      setWaiting(next)
      // Where a browser keeps nothing (a private window) it still waits for as long as the page is open.
      set(name, next).catch(() => undefined)
    },
    [name],
  )
  useEffect(() => {
    get<Waiting[]>(name)
      .then((kept) => {
        if (kept && kept.length > 0) put([...kept.filter((one) => !has(here.current, one)), ...here.current])
      })
      .catch(() => undefined)
  }, [name, put])
  const send = useCallback(async () => {
    if (sending.current) return
    sending.current = true
    let sent = 0
    try {
      for (let [next] = here.current; next; [next] = here.current) {
        const one = next
        const form = new FormData()
        form.append('file', one.picture, 'photo.jpg')
        for (const [field, value] of Object.entries({
          moment: 'step',
          design: String(design),
          step: one.step,
          key: one.key,
        }))
          form.append(field, value)
        try {
          await body(
            api.POST('/api/spaces/{space_id}/photos', {
              params: { path: { space_id: spaceId } },
              body: { file: '' },
              bodySerializer: () => form,
            }),
          )
        } catch (error) {
          if (!(error instanceof Problem) || error.status === 0 || error.status >= 500) throw error
          setRefused(said(error))
        }
        sent += 1
        put(here.current.filter((other) => other.key !== one.key))
      }
    } finally {
      sending.current = false
      if (sent > 0) void client.invalidateQueries({ queryKey: planKey(design) })
    }
  }, [client, design, put, spaceId])
  useRetry(waiting.length, send)
  return {
    waiting,
    refused,
    take: (step, file) => {
      setRefused('')
      shrunk(file)
        .then((picture) => put([...here.current, { key: newKey(), step, picture }]))
        .catch(() => setRefused('That is no photograph. Choose another file.'))
    },
    remove: (photo) => {
      api
        .DELETE('/api/photos/{photo_id}', { params: { path: { photo_id: photo } } })
        .then(() => client.invalidateQueries({ queryKey: planKey(design) }))
        .catch((error: unknown) => setRefused(said(error)))
    },
  }
}

function has(rows: readonly Waiting[], one: Waiting): boolean {
  return rows.some((other) => other.key === one.key)
}
