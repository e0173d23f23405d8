import { Modal, TextInput } from '@mantine/core'
import { useState } from 'react'
import { useNavigate } from 'react-router'

import type { Schemas } from '../api/client'
import { useDesign, useThings } from '../api/queries'

interface Hit {
  name: string
  where: string
  to: string
}

/** Find a space, a thing or a part by any part of its name. */
export function Find({
  house,
  spaceId,
  design,
  onClose,
}: {
  house: Schemas['HouseView']
  spaceId: number
  design: number | null
  onClose: () => void
}) {
  const [text, setText] = useState('')
  const navigate = useNavigate()
  const things = useThings(spaceId)
  const current = useDesign(design)
  const here = `/house/${house.id}/${spaceId}`
  const homes = new Map<string, string>()
  for (const part of current.data?.parts ?? [])
    for (const held of part.holds) homes.set(held.thing, part.name)
  const hits: Hit[] = [
    ...house.spaces.map((space) => ({
      name: space.name,
      where: 'space',
      to: `/house/${house.id}/${space.id}/survey`,
    })),
    ...(things.data?.things ?? []).map(({ thing }) => ({
      name: `${thing.count} ${thing.name}`,
      where: homes.get(thing.id) ?? 'no place yet',
      to: `${here}/inventory`,
    })),
    ...house.people.map((person) => ({ name: person.name, where: 'person', to: `${here}/house` })),
  ].filter((hit) => hit.name.toLowerCase().includes(text.trim().toLowerCase()))
  const go = (hit: Hit | undefined) => {
    if (!hit) return
    onClose()
    void navigate(hit.to)
  }
  return (
    <Modal opened onClose={onClose} title="Find" size="md">
      <form
        onSubmit={(event) => {
          event.preventDefault()
          go(hits[0])
        }}
      >
        <TextInput
          data-autofocus
          aria-label="Find in this house"
          placeholder="coats, a person, a space"
          value={text}
          onChange={(event) => setText(event.currentTarget.value)}
        />
      </form>
      <ul style={{ listStyle: 'none', padding: 0, margin: '10px 0 0', maxHeight: '50vh', overflow: 'auto' }}>
        {hits.slice(0, 30).map((hit, n) => (
          <li key={n}>
            <button
              type="button"
              className="plain"
              style={{ padding: '5px 4px', width: '100%' }}
              onClick={() => go(hit)}
            >
              {hit.name} <span className="quiet">· {hit.where}</span>
            </button>
          </li>
        ))}
        {hits.length === 0 && <li className="quiet">Nothing here is called that.</li>}
      </ul>
    </Modal>
  )
}
