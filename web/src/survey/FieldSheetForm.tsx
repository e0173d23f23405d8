import { Anchor, Button, Modal, TextInput } from '@mantine/core'
import { useState } from 'react'

import { said, type Schemas } from '../api/client'
import type { Waiting } from './useWaiting'
import { message } from './waiting'

/** A filled field sheet typed in: numbers in order, Enter between. */
export function FieldSheetForm({
  space,
  waiting,
  onClose,
}: {
  space: Schemas['SpaceView']
  waiting: Waiting
  onClose: () => void
}) {
  const draft = `field-sheet:${space.id}`
  const [texts, setTexts] = useState<Record<number, string>>(() => read(draft))
  const [wrong, setWrong] = useState<Record<number, string>>({})
  const [busy, setBusy] = useState(false)
  const [error, setError] = useState('')
  const change = (number: number, text: string) => {
    const next = { ...texts, [number]: text }
    setTexts(next)
    localStorage.setItem(draft, JSON.stringify(next))
  }
  const filled = space.field_sheet.filter((row) => texts[row.number]?.trim())
  const keep = async () => {
    setBusy(true)
    setError('')
    const sent = filled.map((row) => ({
      row,
      message: message({ slot: row.slot, text: texts[row.number] ?? '', instrument: 'sheet' }),
    }))
    waiting.add(...sent.map((one) => one.message))
    try {
      const refused = await waiting.send()
      const bad: Record<number, string> = {}
      for (const one of sent) {
        const problem = refused.find((row) => row.key === one.message.key)
        if (!problem) continue
        bad[one.row.number] = `${problem.problem}. ${problem.mend}`
        waiting.drop(one.message.key)
      }
      const left = Object.fromEntries(Object.keys(bad).map((n) => [n, texts[Number(n)] ?? '']))
      setTexts(left)
      setWrong(bad)
      localStorage.setItem(draft, JSON.stringify(left))
      if (Object.keys(bad).length === 0) onClose()
    } catch (problem) {
      // They wait on the device now; the fields are done with.
      localStorage.removeItem(draft)
      setTexts({})
      setError(said(problem))
    } finally {
      setBusy(false)
    }
  }
  return (
    <Modal opened onClose={onClose} size="lg" title="Type in a filled field sheet">
      <p className="quiet">
        The numbers are those on the{' '}
        <Anchor href={`/api/spaces/${space.id}/field-sheet.pdf`} target="_blank">
          blank field sheet
        </Anchor>
        . Enter goes to the next; leave empty what was not read.
      </p>
      <form
        className="field-sheet"
        onSubmit={(event) => {
          event.preventDefault()
          void keep()
        }}
      >
        <ol>
          {space.field_sheet.map((row) => (
            <li key={row.number}>
              <span className="number">{row.number}</span>
              <TextInput
                label={`${row.label}${row.needed ? ' *' : ''}`}
                placeholder={row.read}
                value={texts[row.number] ?? ''}
                error={wrong[row.number]}
                autoComplete="off"
                data-number={row.number}
                onChange={(event) => change(row.number, event.currentTarget.value)}
                onKeyDown={(event) => {
                  if (event.key !== 'Enter') return
                  const form = event.currentTarget.form
                  const next = form?.querySelector<HTMLInputElement>(`[data-number="${row.number + 1}"]`)
                  if (!next) return
                  event.preventDefault()
                  next.focus()
                }}
              />
            </li>
          ))}
        </ol>
        {error && <p className="misheard">{error}</p>}
        <Button type="submit" disabled={filled.length === 0} loading={busy}>
          Keep {filled.length} readings
        </Button>
      </form>
    </Modal>
  )
}

function read(name: string): Record<number, string> {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(name) ?? '{}')
    return typeof kept === 'object' && kept ? (kept as Record<number, string>) : {}
  } catch {
    return {}
  }
}
