import { Button, SegmentedControl, TextInput } from '@mantine/core'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'

import { api, body, said, type Schemas } from '../api/client'
import { keys, useMeasureVocabulary } from '../api/queries'
import { KindPicture } from './KindPicture'

interface Props {
  houseId: number
  onDone?: () => void
}

/** After a space was made: the list of spaces is asked for again, and the page goes there. */
function useGoThere({ houseId, onDone }: Props) {
  const client = useQueryClient()
  const navigate = useNavigate()
  return async (space: Schemas['SpaceView']) => {
    await client.invalidateQueries({ queryKey: keys.house(houseId) })
    onDone?.()
    void navigate(`/house/${houseId}/${space.id}/survey`)
  }
}

/** Name a space and say of what kind it is. */
export function NewSpace(props: Props) {
  const [name, setName] = useState('')
  const [kind, setKind] = useState<Schemas['NewSpace']['kind']>('reach-in closet')
  const vocabulary = useMeasureVocabulary()
  const add = useMutation({
    mutationFn: () =>
      body(
        api.POST('/api/households/{household_id}/spaces', {
          params: { path: { household_id: props.houseId } },
          body: { name, kind },
        }),
      ),
    onSuccess: useGoThere(props),
  })
  const kinds = vocabulary.data?.spaces ?? []
  return (
    <form
      className="new-space"
      onSubmit={(event) => {
        event.preventDefault()
        if (name.trim()) add.mutate()
      }}
    >
      <TextInput
        data-autofocus
        label="Name of the space"
        placeholder="Hall closet"
        value={name}
        error={add.isError ? said(add.error) : undefined}
        onChange={(event) => setName(event.currentTarget.value)}
      />
      <fieldset className="kinds">
        <legend>Kind of space</legend>
        <div className="kind-cards">
          {kinds.map((row) => (
            <label key={row.kind} className="kind-card">
              <input
                type="radio"
                name="kind"
                value={row.kind}
                checked={row.kind === kind}
                onChange={() => setKind(row.kind)}
              />
              <KindPicture kind={row.kind} />
              <span>{row.kind}</span>
            </label>
          ))}
        </div>
        <p className="quiet small">{kinds.find((row) => row.kind === kind)?.about}</p>
      </fieldset>
      <Button type="submit" disabled={!name.trim()} loading={add.isPending}>
        Add space
      </Button>
    </form>
  )
}

type Difficulty = Schemas['NewPractice']['difficulty']
const DIFFICULTIES: readonly { value: Difficulty; label: string }[] = [
  { value: 'gentle', label: 'Gentle' },
  { value: 'usual', label: 'Usual' },
  { value: 'awkward', label: 'Awkward' },
]

/** A hidden room to measure with simulated instruments. */
export function NewPractice(props: Props) {
  const [difficulty, setDifficulty] = useState<Difficulty>('usual')
  const start = useMutation({
    mutationFn: () =>
      body(
        api.POST('/api/households/{household_id}/practice', {
          params: { path: { household_id: props.houseId } },
          body: { difficulty },
        }),
      ),
    onSuccess: useGoThere(props),
  })
  return (
    <div className="new-space">
      <p>
        A room is hidden from you. Measure it with simulated instruments that scatter and slip like real ones;
        at the end the truth shows what your readings would have cost.
      </p>
      <SegmentedControl
        aria-label="Difficulty"
        value={difficulty}
        data={[...DIFFICULTIES]}
        onChange={(value) => setDifficulty(DIFFICULTIES.find((row) => row.value === value)?.value ?? 'usual')}
      />
      {start.isError && <p className="misheard">{said(start.error)}</p>}
      <Button loading={start.isPending} onClick={() => start.mutate()}>
        Begin
      </Button>
    </div>
  )
}
