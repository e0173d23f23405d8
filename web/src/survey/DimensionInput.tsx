import { TextInput } from '@mantine/core'
import { useState } from 'react'

import { said } from '../api/client'
import type { Slot } from '../sheet/slot'
import { slotKey } from '../sheet/slot'
import { inUnits, type Units } from '../shell/units'
import { useDraft } from '../shell/useDraft'

/** A dimension line being typed on; x and y are pixels on the sheet. */
export interface Typing {
  slot: Slot
  label: string
  x: number
  y: number
  at: Element
}

/** The field that opens on a dimension line. Enter keeps, Escape leaves. */
export function DimensionInput({
  typing,
  spaceId,
  units,
  onKeep,
  onClose,
}: {
  typing: Typing
  spaceId: number
  units: Units
  onKeep: (text: string) => Promise<unknown>
  onClose: () => void
}) {
  const [text, setText] = useDraft(`reading:${spaceId}:${slotKey(typing.slot)}`)
  const [error, setError] = useState('')
  const [busy, setBusy] = useState(false)
  const keep = async () => {
    if (!text.trim() || busy) return
    setBusy(true)
    try {
      await onKeep(text)
      setText('')
      onClose()
    } catch (problem) {
      setError(said(problem))
      setBusy(false)
    }
  }
  return (
    <form
      className="dimension-input"
      style={{ left: typing.x, top: typing.y }}
      onSubmit={(event) => {
        event.preventDefault()
        void keep()
      }}
      onKeyDown={(event) => {
        if (event.key === 'Escape') {
          event.stopPropagation()
          onClose()
        }
      }}
      onBlur={(event) => {
        if (!event.currentTarget.contains(event.relatedTarget) && !text.trim()) onClose()
      }}
    >
      <TextInput
        autoFocus
        size="xs"
        label={typing.label}
        placeholder={inUnits(units, '1846', '72 5/8')}
        value={text}
        error={error || undefined}
        onChange={(event) => {
          setText(event.currentTarget.value)
          setError('')
        }}
      />
    </form>
  )
}
