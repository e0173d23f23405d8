import { Button, TextInput } from '@mantine/core'
import { useRef, useState } from 'react'

import { said, type Schemas } from '../api/client'
import { inUnits, type Units } from '../shell/units'
import { useDraft } from '../shell/useDraft'
import type { Change } from './useThingsChange'

type Row = Schemas['ThingView']

/** What was guessed of the group added last: the kinds it may be, and which of them it is now. */
interface Guess {
  id: string
  name: string
  options: readonly Schemas['KindLine'][]
  at: number
}

/** One line adds groups, as people speak; the last guess is changed by an arrow. */
export function QuickAdd({
  spaceId,
  units,
  people,
  rows,
  onAdd,
  onChange,
  onNote,
}: {
  spaceId: number
  units: Units
  people: readonly string[]
  rows: readonly Row[]
  onAdd: (line: string) => Promise<Row[]>
  onChange: (row: Row, change: Change) => Promise<void>
  /** Several lines were pasted. */
  onNote: (text: string) => void
}) {
  const [line, setLine] = useDraft(`quick-add:${spaceId}`)
  const [error, setError] = useState('')
  const [busy, setBusy] = useState(false)
  const [added, setAdded] = useState<readonly Row[]>([])
  const [guess, setGuess] = useState<Guess | null>(null)
  const form = useRef<HTMLFormElement>(null)
  const field = useRef<HTMLInputElement>(null)
  const attempt = async (act: () => Promise<void>) => {
    if (busy) return
    setBusy(true)
    try {
      await act()
      setError('')
    } catch (problem) {
      setError(said(problem))
    } finally {
      setBusy(false)
      // Back to the line, unless they went on elsewhere while the answer was under way.
      if (form.current?.contains(document.activeElement) || document.activeElement === document.body)
        field.current?.focus()
    }
  }
  const add = () =>
    attempt(async () => {
      const found = await onAdd(line)
      setLine('')
      setAdded(found)
      const last = [...found].reverse().find((row) => ['kind', 'size'].includes(row.thing.unsure))
      setGuess(
        last
          ? {
              id: last.thing.id,
              name: last.thing.name,
              options: [{ id: last.thing.kind, name: last.kind_name }, ...last.others],
              at: 0,
            }
          : null,
      )
    })
  const turn = (by: number) =>
    attempt(async () => {
      const row = rows.find(({ thing }) => thing.id === guess?.id)
      if (!guess || !row || guess.options.length < 2) return
      const at = (guess.at + by + guess.options.length) % guess.options.length
      const kind = guess.options[at]
      if (!kind) return
      await onChange(row, { kind: kind.id })
      setGuess({ ...guess, at })
    })
  const whose = people[0] ? `, ${people[0].split(' ')[0] ?? ''}` : ''
  return (
    <form
      ref={form}
      className="callout quick-add"
      onSubmit={(event) => {
        event.preventDefault()
        if (line.trim()) void add()
      }}
    >
      <TextInput
        ref={field}
        style={{ flex: 1 }}
        label="Add things"
        placeholder={`14 shirts, daily${whose}`}
        description={`As you would say it: 14 shirts, daily; 2 coats and 3 hats; ${inUnits(units, '1.2 m', '4 ft')} of books. Paste a whole note too.`}
        inputWrapperOrder={['label', 'input', 'error', 'description']}
        value={line}
        autoComplete="off"
        error={error || undefined}
        onChange={(event) => {
          setLine(event.currentTarget.value)
          setError('')
        }}
        onPaste={(event) => {
          const text = event.clipboardData.getData('text')
          if (!text.trim().includes('\n')) return
          event.preventDefault()
          onNote(text)
        }}
        onKeyDown={(event) => {
          const by = { ArrowDown: 1, ArrowUp: -1 }[event.key]
          if (!by || line || !guess) return
          event.preventDefault()
          void turn(by)
        }}
      />
      <Button type="submit" disabled={!line.trim()} loading={busy}>
        Add
      </Button>
      {added.length > 0 && !line && (
        <p className="understood" role="status">
          {added.map((row) => understood(rows.find(({ id }) => id === row.id) ?? row)).join('; ')}
          {guess && guess.options.length > 1 && (
            <>
              {' '}
              <kbd>↓</kbd> takes {guess.name} for something else
            </>
          )}
        </p>
      )}
    </form>
  )
}

/** A group said back: how many of what it was taken for. */
function understood({ thing, kind_name, size }: Row): string {
  const as = thing.kind === 'custom' ? `something of about ${size}` : kind_name
  const plain = thing.name.toLowerCase() === kind_name.toLowerCase()
  const taken = plain && !thing.unsure ? '' : thing.unsure === 'kind' ? `, a guess: ${as}` : ` as ${as}`
  const many = thing.unsure === 'count' ? ', how many?' : ''
  return `${thing.count} × ${thing.name}${taken}${many}`
}
