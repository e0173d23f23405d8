import { Button } from '@mantine/core'
import { useState } from 'react'

import { said, type Schemas } from '../api/client'
import { slotKey } from '../sheet/slot'
import { useDraft } from '../shell/useDraft'
import type { SurveyChange } from './useSurveyChange'
import type { Waiting } from './useWaiting'

const DIGITS = ['7', '8', '9', '4', '5', '6', '1', '2', '3', '.', '0']
/** A wall may lean away: these take a minus, in the place of the point. */
const SIGNED = new Set(['plumb', 'bow'])
const FRACTIONS = ['1/2', '1/4', '3/4', '1/8', '3/8', '5/8', '7/8', '1/16', '3/16', '5/16', '7/16']

/** On a phone: the next reading big, and a pad that knows fractions. Works on while the connection is gone. */
export function TakePad({
  space,
  waiting,
  onKeep,
}: {
  space: Schemas['SpaceView']
  waiting: Waiting
  onKeep: SurveyChange['read']
}) {
  const [text, setText] = useDraft(`pad:${space.id}`)
  const [error, setError] = useState('')
  const [busy, setBusy] = useState(false)
  const taking = upcoming(space, waiting)
  if (!taking) return null
  const { slot, label, how } = taking
  const keep = async () => {
    if (!text.trim() || busy) return
    setBusy(true)
    setError('')
    try {
      await onKeep(slot, text, label)
      setText('')
    } catch (problem) {
      setError(said(problem))
    } finally {
      setBusy(false)
    }
  }
  const type = (key: string) => {
    setError('')
    setText(key.includes('/') ? `${text.trim()} ${key}`.trim() : text + key)
  }
  return (
    <section className="take-pad" aria-label="Take the next reading">
      <p className="take-label">{label}</p>
      {how && <p className="quiet">{how}</p>}
      <output className="take-value" aria-label="Reading">
        {text || <span className="quiet">{space.units === 'metric' ? 'mm' : 'inches'}</span>}
      </output>
      {error && (
        <p className="misheard" role="alert">
          {error}
        </p>
      )}
      {space.units === 'imperial' && (
        <div className="fraction-keys">
          {FRACTIONS.map((key) => (
            <button key={key} type="button" onClick={() => type(key)}>
              {key}
            </button>
          ))}
        </div>
      )}
      <div className="digit-keys">
        {(SIGNED.has(slot.what) ? [...DIGITS.slice(0, -2), '-', '0'] : DIGITS).map((key) => (
          <button key={key} type="button" onClick={() => type(key)}>
            {key}
          </button>
        ))}
        <button type="button" aria-label="Erase" onClick={() => setText(text.slice(0, -1).trimEnd())}>
          ⌫
        </button>
      </div>
      <Button fullWidth size="md" disabled={!text.trim()} loading={busy} onClick={() => void keep()}>
        Keep {text}
      </Button>
    </section>
  )
}

interface Taking {
  slot: Schemas['SlotRef']
  label: string
  how: string
}

/** The server's next reading; while readings wait here, the first needed place that none of them is for. */
function upcoming(space: Schemas['SpaceView'], waiting: Waiting): Taking | null {
  const held = new Set(waiting.messages.flatMap((one) => (one.slot ? [slotKey(one.slot)] : [])))
  if (held.size === 0 || (space.next && !held.has(slotKey(space.next.slot)))) return space.next
  const row = space.field_sheet.find((one) => one.needed && !one.read && !held.has(slotKey(one.slot)))
  return row ? { slot: row.slot, label: row.label, how: '' } : null
}
