import { useEffect, useRef, useState } from 'react'

import type { Schemas } from '../api/client'
import type { Lit } from '../sheet/Hands'
import { partAt } from './carrying'

/** A press becomes a drag after so many px. */
const MEANT = 5

interface Dragged {
  drawing: Schemas['Drawing']
  lit: ReadonlyMap<string, Lit>
  carrying: boolean
  selected: string | null
  onLift: (source: string, thing: string) => void
  onSelect: (part: string) => void
  onAim: (part: string | null) => void
  onLetGo: (part: string | null) => void
  onLeave: () => void
}

/** A thing on the drawing taken up by the pointer and let go over another part. A finger takes up only what lies in
 * the selected part, so that it may scroll the page everywhere else; a tap on a lit place aims at it.
 */
export function useDragged(props: Dragged) {
  const { drawing, lit, carrying, selected, onLift, onSelect, onAim, onLetGo, onLeave } = props
  const pressed = useRef<{
    x: number
    y: number
    source: string
    thing: string
    drags: boolean
    taps: boolean
  } | null>(null)
  const [ghost, setGhost] = useState<{ x: number; y: number } | null>(null)

  const under = (event: React.PointerEvent): string | null => {
    const svg = event.currentTarget.querySelector<SVGSVGElement>('svg.drawing')
    const matrix = svg?.getScreenCTM()
    if (!svg || !matrix) return null
    const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse())
    return partAt(drawing, at.x, -at.y, new Set(lit.keys()))
  }
  useEffect(() => {
    const hold = (event: TouchEvent) => {
      if (pressed.current && !pressed.current.taps && event.cancelable) event.preventDefault()
    }
    document.addEventListener('touchmove', hold, { passive: false })
    return () => document.removeEventListener('touchmove', hold)
  }, [])

  const handlers = {
    onPointerDown: (event: React.PointerEvent) => {
      // A second finger zooms: what the first one pressed was not meant.
      if (!event.isPrimary) pressed.current = null
      if (!event.isPrimary || event.button !== 0 || carrying) return
      const shape = (event.target as Element).closest<SVGElement>('[data-lies-in]')
      const [source, thing] = [shape?.dataset.liesIn, shape?.dataset.of]
      if (!source || !thing) return
      const taps = event.pointerType === 'touch' && source !== selected
      pressed.current = { x: event.clientX, y: event.clientY, source, thing, drags: false, taps }
    },
    onPointerMove: (event: React.PointerEvent) => {
      const press = pressed.current
      if (press && !press.drags) {
        if (press.taps || Math.hypot(event.clientX - press.x, event.clientY - press.y) < MEANT) return
        press.drags = true
        event.currentTarget.setPointerCapture(event.pointerId)
        onLift(press.source, press.thing)
      }
      if (press?.drags) setGhost({ x: event.clientX, y: event.clientY })
      if (press?.drags || (carrying && event.pointerType !== 'touch')) {
        const part = under(event)
        if (part || press?.drags) onAim(part)
      }
    },
    onPointerUp: (event: React.PointerEvent) => {
      const press = pressed.current
      pressed.current = null
      setGhost(null)
      if (press && !press.drags) onSelect(press.source)
      else if (press) {
        const part = under(event)
        if (part) onLetGo(part)
        else onLeave()
      } else if (carrying) {
        const part = under(event)
        if (part && event.pointerType === 'touch') onAim(part)
        else if (part) onLetGo(part)
      }
    },
    onPointerCancel: () => {
      if (pressed.current?.drags) onLeave()
      pressed.current = null
      setGhost(null)
    },
  }
  return { handlers, ghost }
}
