import { Button, Menu, TextInput } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'

import { api, body, said, type Schemas } from '../api/client'
import { useForget } from '../api/queries'

/** Keep the design as it stands under a name; take a named one down; print to scale; carry away as glTF. */
export function Versions({
  spaceId,
  card,
  other,
  onCompare,
  onKept,
}: {
  spaceId: number
  card: Schemas['Card']
  /** The title of the alternative beside it; null while it is compared already. */
  other: string | null
  onCompare: () => void
  onKept: (id: number) => void
}) {
  const forget = useForget(spaceId)
  const [name, setName] = useState<string | null>(null)
  const path = { design_id: card.id }
  const fail = (error: Error) => notifications.show({ color: 'red', message: said(error) })
  const keep = useMutation({
    mutationFn: (wanted: string) =>
      body(api.POST('/api/designs/{design_id}/versions', { params: { path }, body: { name: wanted } })),
    onSuccess: (kept) => {
      setName(null)
      forget('gallery')
      onKept(kept.id)
    },
    onError: fail,
  })
  const drop = useMutation({
    mutationFn: () => api.DELETE('/api/designs/{design_id}', { params: { path } }),
    onSuccess: () => forget('gallery', 'ledger'),
    onError: fail,
  })
  if (name !== null) {
    return (
      <form
        className="row tight"
        onSubmit={(event) => {
          event.preventDefault()
          if (name.trim()) keep.mutate(name.trim())
        }}
      >
        <TextInput
          size="xs"
          aria-label="Name of this version"
          placeholder="name of this version"
          value={name}
          autoFocus
          onChange={(event) => setName(event.currentTarget.value)}
          onKeyDown={(event) => event.key === 'Escape' && setName(null)}
        />
        <Button size="compact-sm" type="submit" loading={keep.isPending}>
          Keep
        </Button>
      </form>
    )
  }
  return (
    <Menu position="top-start" shadow="md">
      <Menu.Target>
        <Button size="compact-sm" variant="subtle">
          This design
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
        {other !== null && <Menu.Item onClick={onCompare}>Compare with {other.toLowerCase()}</Menu.Item>}
        <Menu.Item onClick={() => setName('')}>Keep a version</Menu.Item>
        {card.kept && <Menu.Item onClick={() => drop.mutate()}>Take down</Menu.Item>}
        <Menu.Item component="a" href={`/api/designs/${card.id}/sheet.pdf?scale=20`} target="_blank">
          Print to scale
        </Menu.Item>
        <Menu.Item component="a" href={`/api/designs/${card.id}/model.glb`} download>
          Carry away as glTF
        </Menu.Item>
      </Menu.Dropdown>
    </Menu>
  )
}
