import { Modal, TextInput } from '@mantine/core'
import { useDebouncedValue } from '@mantine/hooks'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { useNavigate } from 'react-router'

import { api, body, said, type Schemas } from '../api/client'
import { useDesign } from '../api/queries'

interface Hit {
  name: string
  where: string
  to: string
}

/** Where is it: a thing, a place, a space or a person, in whatever words one has for it. */
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
  const [asked] = useDebouncedValue(text.trim(), 120)
  const navigate = useNavigate()
  const current = useDesign(design)
  const found = useQuery({
    queryKey: ['found', house.id, asked],
    queryFn: () =>
      body(
        api.GET('/api/households/{household_id}/find', {
          params: { path: { household_id: house.id }, query: { q: asked } },
        }),
      ),
    enabled: asked !== '',
    placeholderData: keepPreviousData,
  })
  const homes = new Map<string, string>()
  for (const part of current.data?.parts ?? [])
    for (const held of part.holds) homes.set(held.thing, part.name)
  const here = (to: number, rest: string) => `/house/${String(house.id)}/${String(to)}/${rest}`
  const people = house.people
    .filter((person) => text.trim() && person.name.toLowerCase().includes(text.trim().toLowerCase()))
    .map((person) => ({ name: person.name, where: 'person', to: here(spaceId, 'house') }))
  const spaces = house.spaces.map((space) => ({
    name: space.name,
    where: 'space',
    to: here(space.id, 'survey'),
  }))
  const hits: Hit[] = text.trim()
    ? [...people, ...(asked ? (found.data ?? []) : []).flatMap((one) => answers(one, spaceId, homes, here))]
    : spaces
  const go = (hit: Hit | undefined) => {
    setEntered(false)
    if (!hit) return
    onClose()
    void navigate(hit.to)
  }
  // What is shown answers what was typed: Enter waits for it.
  const settled = asked === text.trim() && !found.isPlaceholderData && !found.isFetching
  const [entered, setEntered] = useState(false)
  useEffect(() => {
    if (entered && settled) go(hits[0])
  })
  return (
    <Modal opened onClose={onClose} title="Find" size="md">
      <form
        onSubmit={(event) => {
          event.preventDefault()
          // A scanner types what it reads, and Enter.
          const code = /\/at\/(\d+)\s*$/.exec(text)
          if (code?.[1]) {
            onClose()
            void navigate(`/at/${code[1]}`)
            return
          }
          if (settled || people.length > 0) go(hits[0])
          else setEntered(true)
        }}
      >
        <TextInput
          data-autofocus
          aria-label="Find in this house"
          placeholder="coats, something to cut with, a person, a space"
          value={text}
          onChange={(event) => {
            setText(event.currentTarget.value)
            setEntered(false)
          }}
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
        {found.error && text.trim() && <li className="misheard">{said(found.error)}</li>}
        {hits.length === 0 && !found.error && settled && (
          <li className="quiet">Nothing here is called that.</li>
        )}
      </ul>
    </Modal>
  )
}

/** A line for each place something is in; a thing without one leads to the list of its space. */
function answers(
  one: Schemas['FoundView'],
  spaceId: number,
  homes: ReadonlyMap<string, string>,
  here: (to: number, rest: string) => string,
): Hit[] {
  if (one.what === 'space') return [{ name: one.name, where: 'space', to: here(one.id, 'survey') }]
  const whose = one.owner ? `, ${one.owner}` : ''
  if (one.where.length === 0)
    return [
      {
        name: `${String(one.count)} ${one.name}`,
        where: `no space yet${whose}`,
        to: here(spaceId, 'inventory'),
      },
    ]
  return one.where.map((at) => {
    const name = one.what === 'place' ? one.name : `${String(at.count)} ${one.name}`
    const lent = at.lent_to ? `, lent to ${at.lent_to}` : ''
    if (at.place !== null)
      return {
        name,
        where: (one.what === 'place' ? at.space_name : `${at.place_name}, ${at.space_name}`) + whose + lent,
        to: here(at.space, `upkeep?place=${String(at.place)}`),
      }
    const planned = at.space === spaceId ? homes.get(one.key) : undefined
    const { beside } = one
    if (beside && beside.place !== null)
      return {
        name,
        where: `no place yet, ${at.space_name}${whose}; those like it lie in ${beside.place_name}, ${beside.space_name}`,
        to: here(beside.space, `upkeep?place=${String(beside.place)}`),
      }
    const where = `${planned ?? 'no place yet'}, ${at.space_name}${whose}`
    return { name, where, to: here(at.space, 'inventory') }
  })
}
