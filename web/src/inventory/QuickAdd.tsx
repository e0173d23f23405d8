import { Button, TextInput } from '@mantine/core'
import { useRef, useState } from 'react'

import { said } from '../api/client'
import { useDraft } from '../shell/useDraft'

/** One line adds a group: how many of what, how often, whose. */
export function QuickAdd({
  spaceId,
  people,
  onAdd,
}: {
  spaceId: number
  people: readonly string[]
  onAdd: (line: string) => Promise<void>
}) {
  const [line, setLine] = useDraft(`quick-add:${spaceId}`)
  const [error, setError] = useState('')
  const [busy, setBusy] = useState(false)
  const field = useRef<HTMLInputElement>(null)
  const add = async () => {
    if (!line.trim() || busy) return
    setBusy(true)
    try {
      await onAdd(line)
      setLine('')
      setError('')
    } catch (problem) {
      setError(said(problem))
    } finally {
      setBusy(false)
      field.current?.focus()
    }
  }
  const whose = people[0] ? `, ${people[0].split(' ')[0] ?? ''}` : ''
  return (
    <form
      className="callout quick-add"
      onSubmit={(event) => {
        event.preventDefault()
        void add()
      }}
    >
      <TextInput
        ref={field}
        style={{ flex: 1 }}
        label="Add things"
        placeholder={`14 shirts, daily${whose}`}
        description="How many of what; then, with commas: how often, whose, a decision, a size. Several groups: semicolons."
        inputWrapperOrder={['label', 'input', 'error', 'description']}
        value={line}
        autoComplete="off"
        error={error || undefined}
        onChange={(event) => {
          setLine(event.currentTarget.value)
          setError('')
        }}
      />
      <Button type="submit" disabled={!line.trim()} loading={busy}>
        Add
      </Button>
    </form>
  )
}
