import { useMediaQuery } from '@mantine/hooks'
import { useMemo, useRef, useState } from 'react'
import { flushSync } from 'react-dom'

import { api, body, type Schemas } from '../api/client'
import { useSpace } from '../api/queries'
import { Fetched } from '../shell/Fetched'
import type { StageProps } from '../shell/StageProps'
import { useKeys } from '../shell/useKeys'
import { Plate } from '../sheet/Plate'
import { Sheet } from '../sheet/Sheet'
import { slotKey, type Slot } from '../sheet/slot'
import { PHONE, ViewSwitch, type View } from '../sheet/ViewSwitch'
import { CallOutLine } from './CallOutLine'
import { ClearSizes } from './ClearSizes'
import { DimensionInput, type Typing } from './DimensionInput'
import { FactsForm } from './FactsForm'
import { FieldSheetForm } from './FieldSheetForm'
import { NextReading } from './NextReading'
import { Photos } from './Photos'
import { Practice, type Tool } from './Practice'
import { Readings } from './Readings'
import { SectionTabs } from './SectionTabs'
import { TakePad } from './TakePad'
import { useSurveyChange } from './useSurveyChange'
import { useWaiting } from './useWaiting'
import { WaitingList } from './WaitingList'

/** Measure: the drawing is the form. */
export default function MeasureStage({ space, shown }: StageProps) {
  const query = useSpace(space.id)
  return (
    <Fetched query={query} waiting="Fetching the survey">
      {(data) => <Measured space={data} shown={shown} />}
    </Fetched>
  )
}

type Space = Schemas['SpaceView']

function Measured({ space, shown }: { space: Space; shown: string | null }) {
  const phone = useMediaQuery(PHONE) ?? false
  const [asked, setAsked] = useState<View>('both')
  const view: View = phone && asked === 'both' ? 'elevation' : asked
  const [typing, setTyping] = useState<Typing | null>(null)
  const [form, setForm] = useState<'facts' | 'sheet' | null>(null)
  const [tool, setTool] = useState<Tool>('tape')
  const [pointed, setPointed] = useState<string | null>(null)
  const [at, setAt] = useState('')
  const sheet = useRef<HTMLDivElement>(null)
  const line = useRef<HTMLInputElement>(null)
  const waiting = useWaiting(space.id)
  const change = useSurveyChange(space.id, waiting)
  const next = space.next
  const section = sectionOf(space, at || space.main)
  const marked = useMemo(() => new Set([pointed, shown].filter((id) => id !== null)), [pointed, shown])

  const onSheet = (slot: Slot | null | undefined) =>
    slot ? sheet.current?.querySelector<SVGGElement>(`[data-slot="${CSS.escape(slotKey(slot))}"]`) : null

  const keymap = useMemo(
    () => ({
      n: () => {
        // At once, so that Enter pressed right after it already finds the dimension line.
        if (next && next.slot.section !== section.id) flushSync(() => setAt(next.slot.section))
        ;(onSheet(next?.slot) ?? line.current)?.focus()
      },
      v: () => setAsked((was) => (was === 'both' ? 'elevation' : was === 'elevation' ? 'plan' : 'both')),
    }),
    [next, section.id],
  )
  useKeys(keymap)

  const take = (slot: Slot, label: string) =>
    change.act(`${tool}: ${label}`, (version) =>
      body(
        api.POST('/api/spaces/{space_id}/instruments/{kind}', {
          params: { path: { space_id: space.id, kind: tool } },
          body: { version, slot },
        }),
      ),
    )
  const open = (slot: Slot, label: string, element: Element) => {
    const paper = sheet.current?.getBoundingClientRect()
    const box = (element.querySelector('text') ?? element).getBoundingClientRect()
    if (!paper) return
    const x = box.left + box.width / 2 - paper.left
    setTyping({ slot, label, x, y: box.top + box.height / 2 - paper.top, at: element })
  }
  const readNext = () => {
    if (!next) return
    if (next.slot.section !== section.id) flushSync(() => setAt(next.slot.section))
    const there = onSheet(next.slot)
    if (there) open(next.slot, next.label, there)
    else line.current?.focus()
  }

  return (
    <main className="room measure">
      {phone && <TakePad space={space} waiting={waiting} onKeep={change.read} />}
      <div className="sheet-holder" ref={sheet}>
        <Sheet title={(view === 'plan' ? section.plan : section.elevation).title}>
          {view !== 'plan' && (
            <Plate
              drawing={section.elevation}
              label={`Elevation of ${section.label}`}
              onDimension={open}
              next={next?.slot ?? null}
              marked={marked}
            />
          )}
          {view !== 'elevation' && (
            <Plate
              drawing={section.plan}
              label="Plan"
              onDimension={open}
              next={next?.slot ?? null}
              marked={marked}
            />
          )}
          {typing && (
            <DimensionInput
              units={space.units}
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
        <SectionTabs space={space} section={section.id} onChange={setAt} />
        <ViewSwitch view={view} both={!phone} onChange={setAsked} />
      </div>
      <section className="bench measure-bench" aria-label="Bench">
        <div>
          <WaitingList waiting={waiting} />
          <CallOutLine space={space} section={section.id} inputRef={line} onKeep={change.callOut} />
          {space.practice && (
            <Practice space={space} practice={space.practice} tool={tool} onTool={setTool} change={change} />
          )}
          {!phone && (
            <NextReading
              space={space}
              onType={readNext}
              take={space.practice && next ? { tool, act: () => take(next.slot, next.label) } : null}
            />
          )}
        </div>
        <div>
          <ClearSizes space={space} section={section} pointed={pointed} onPoint={setPointed} />
        </div>
        <div>
          <Readings
            space={space}
            onRemove={change.remove}
            onForm={() => setForm('facts')}
            onSheet={() => setForm('sheet')}
          />
          <Photos space={space} />
        </div>
      </section>
      <FactsForm
        opened={form === 'facts'}
        space={space}
        section={section}
        change={change}
        onClose={() => setForm(null)}
      />
      {form === 'sheet' && <FieldSheetForm space={space} waiting={waiting} onClose={() => setForm(null)} />}
    </main>
  )
}

function sectionOf(space: Space, id: string): Schemas['SectionView'] {
  const found = space.sections.find((one) => one.id === id) ?? space.sections[0]
  if (!found) throw new Error('a space has at least one section')
  return found
}
