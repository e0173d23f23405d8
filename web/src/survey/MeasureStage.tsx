import { useMediaQuery } from '@mantine/hooks'
import { useMemo, useRef, useState } from 'react'

import type { Schemas } from '../api/client'
import { useSpace } from '../api/queries'
import { Fetched } from '../shell/Fetched'
import type { StageProps } from '../shell/HousePage'
import { useKeys } from '../shell/useKeys'
import { DrawingSvg } from '../sheet/DrawingSvg'
import { Sheet } from '../sheet/Sheet'
import { placeOf, slotKey, type Slot } from '../sheet/slot'
import { PHONE, ViewSwitch, type View } from '../sheet/ViewSwitch'
import { CallOutLine } from './CallOutLine'
import { ClearSizes } from './ClearSizes'
import { DimensionInput, type Typing } from './DimensionInput'
import { FactsForm } from './FactsForm'
import { NextReading } from './NextReading'
import { Readings } from './Readings'
import { useSurveyChange } from './useSurveyChange'

/** Measure: the drawing is the form. */
export function MeasureStage({ space }: StageProps) {
  const query = useSpace(space.id)
  return (
    <Fetched query={query} waiting="Fetching the survey">
      {(data) => <Measured space={data} />}
    </Fetched>
  )
}

function Measured({ space }: { space: Schemas['SpaceView'] }) {
  const phone = useMediaQuery(PHONE) ?? false
  const [asked, setAsked] = useState<View>('both')
  const view: View = phone && asked === 'both' ? 'elevation' : asked
  const [typing, setTyping] = useState<Typing | null>(null)
  const [form, setForm] = useState(false)
  const sheet = useRef<HTMLDivElement>(null)
  const line = useRef<HTMLInputElement>(null)
  const change = useSurveyChange(space.id)
  const next = space.next

  const keymap = useMemo(
    () => ({
      n: () => {
        const wanted =
          next && sheet.current?.querySelector<SVGGElement>(`[data-slot="${CSS.escape(slotKey(next))}"]`)
        if (wanted) wanted.focus()
        else line.current?.focus()
      },
      v: () => setAsked((was) => (was === 'both' ? 'elevation' : was === 'elevation' ? 'plan' : 'both')),
    }),
    [next],
  )
  useKeys(keymap)

  const open = (slot: Slot, label: string, at: Element) => {
    const paper = sheet.current?.getBoundingClientRect()
    const box = (at.querySelector('text') ?? at).getBoundingClientRect()
    if (!paper) return
    setTyping({
      slot,
      label,
      x: box.left + box.width / 2 - paper.left,
      y: box.top + box.height / 2 - paper.top,
      at,
    })
  }

  return (
    <main className="room measure">
      <div className="sheet-holder" ref={sheet}>
        <Sheet title={(view === 'plan' ? space.plan : space.elevation).title}>
          {view !== 'plan' && (
            <DrawingSvg
              drawing={space.elevation}
              label="Elevation of the back wall"
              onDimension={open}
              next={next}
            />
          )}
          {view !== 'elevation' && (
            <DrawingSvg drawing={space.plan} label="Plan" onDimension={open} next={next} />
          )}
          {typing && (
            <DimensionInput
              key={slotKey(typing.slot)}
              typing={typing}
              spaceId={space.id}
              onKeep={(text) => change.read(typing.slot, text, typing.label)}
              onClose={() => {
                setTyping(null)
                if (typing.at instanceof SVGElement) typing.at.focus()
              }}
            />
          )}
        </Sheet>
        <ViewSwitch view={view} both={!phone} onChange={setAsked} />
      </div>
      <section className="bench measure-bench" aria-label="Bench">
        <div>
          <CallOutLine space={space} inputRef={line} onKeep={change.callOut} />
          <NextReading
            space={space}
            onTake={() => {
              const slot = next && sheet.current?.querySelector(`[data-slot="${CSS.escape(slotKey(next))}"]`)
              if (next && slot) open(placeOf(next), next.label, slot)
              else line.current?.focus()
            }}
          />
          <ClearSizes space={space} />
        </div>
        <Readings space={space} onRemove={change.remove} onForm={() => setForm(true)} />
      </section>
      <FactsForm opened={form} space={space} change={change} onClose={() => setForm(false)} />
    </main>
  )
}
