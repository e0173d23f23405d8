import { ActionIcon, Button, FileButton } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { IconX } from '@tabler/icons-react'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'

import { api, body, said, type Schemas } from '../api/client'
import { keys } from '../api/queries'
import { shrunk } from './shrunk'

/** Photographs kept with the space. They are shrunk on the device before they go up. */
export function Photos({ space }: { space: Schemas['SpaceView'] }) {
  const client = useQueryClient()
  const [unsent, setUnsent] = useState<Blob | null>(null)
  const [busy, setBusy] = useState(false)
  const again = () => client.invalidateQueries({ queryKey: keys.space(space.id) })
  const send = async (picture: Blob) => {
    setBusy(true)
    try {
      const form = new FormData()
      form.append('file', picture, 'photo.jpg')
      await body(
        api.POST('/api/spaces/{space_id}/photos', {
          params: { path: { space_id: space.id } },
          body: { file: '', note: '' },
          bodySerializer: () => form,
        }),
      )
      setUnsent(null)
      await again()
    } catch (error) {
      setUnsent(picture)
      notifications.show({ color: 'red', message: said(error) })
    } finally {
      setBusy(false)
    }
  }
  const choose = (file: File | null) => {
    if (!file) return
    shrunk(file)
      .then(send)
      .catch(() =>
        notifications.show({ color: 'red', message: 'That is no photograph. Choose another file.' }),
      )
  }
  const remove = (id: number) => {
    api
      .DELETE('/api/photos/{photo_id}', { params: { path: { photo_id: id } } })
      .then(again)
      .catch((error: unknown) => notifications.show({ color: 'red', message: said(error) }))
  }
  return (
    <section className="photos" aria-label="Photos">
      <div className="row" style={{ justifyContent: 'space-between' }}>
        <h2>Photos</h2>
        <FileButton onChange={choose} accept="image/*" inputProps={{ 'aria-label': 'Choose a photo' }}>
          {(props) => (
            <Button {...props} size="compact-sm" variant="default" loading={busy}>
              Add a photo
            </Button>
          )}
        </FileButton>
      </div>
      {unsent && (
        <p className="misheard">
          One photo did not go up; it is still here.{' '}
          <Button size="compact-xs" variant="default" onClick={() => void send(unsent)}>
            Send it again
          </Button>
        </p>
      )}
      <ul>
        {space.photos.map((photo, n) => (
          <li key={photo.id}>
            <a href={photo.url} target="_blank" rel="noreferrer">
              <img src={photo.url} alt={photo.note || `Photo ${n + 1} of ${space.name}`} loading="lazy" />
            </a>
            <ActionIcon
              size={24}
              variant="default"
              aria-label={`Remove photo ${n + 1}`}
              onClick={() => remove(photo.id)}
            >
              <IconX size={13} />
            </ActionIcon>
          </li>
        ))}
      </ul>
    </section>
  )
}
