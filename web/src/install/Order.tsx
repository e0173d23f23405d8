import { Checkbox, NativeSelect, NumberInput, TextInput } from '@mantine/core'
import { useMemo } from 'react'

import { Aside } from './Aside'
import { lasting } from './lasting'
import { timeAxis } from './timeAxis'
import { useChoice, type Plan, type Step } from './useInstall'
import type { Ticks } from './useTicks'

interface Props {
  spaceId: number
  design: number
  version: number
  plan: Plan
  done: ReadonlySet<string>
  ticks: Ticks
  onPoint: (parts: readonly string[]) => void
}

/** What is done when, and by how many: every step with its bar over the days on which there is time. */
export function Order({ spaceId, design, version, plan, done, ticks, onPoint }: Props) {
  const axis = useMemo(() => timeAxis(plan.steps), [plan.steps])
  return (
    <>
      <Choices spaceId={spaceId} design={design} version={version} plan={plan} />
      <Aside spaceId={spaceId} design={design} version={version} plan={plan} />
      <p>
        {plan.times}{' '}
        <span className="quiet">
          {plan.hours} hours of work in all, emptying and putting back too
          {plan.timed > 0 &&
            `, at ${String(Math.round(plan.share * 100))} % of the usual times by the ${String(plan.timed)} ${
              plan.timed === 1 ? 'step' : 'steps'
            } you timed`}
          {plan.done_hours > 0 && `; ${String(plan.done_hours)} hours done`}.
        </span>
      </p>
      {plan.unread.length > 0 && (
        <p className="misheard">
          Too little was read of {plan.unread.join(', ')} to say where anything goes on the wall.
        </p>
      )}
      <div className="order" role="table" aria-label="Order of work">
        <div className="order-row order-head" role="row">
          <span role="columnheader">Step</span>
          <span role="columnheader" className="order-days">
            {axis.days.map((day) => (
              <span key={day.label} style={{ left: `${day.from}%`, width: `${day.wide}%` }} title={day.label}>
                {day.short}
              </span>
            ))}
          </span>
        </div>
        {plan.steps.map((step) => (
          <Row
            key={step.id}
            step={step}
            done={done.has(step.id)}
            bar={axis.bars.get(step.id)}
            days={axis.days}
            onPoint={onPoint}
            onTick={() => (done.has(step.id) ? ticks.untick(step.id, step.ticks) : ticks.tick(step.id))}
          />
        ))}
      </div>
    </>
  )
}

interface RowProps {
  step: Step
  done: boolean
  bar: { from: number; wide: number; said: string } | undefined
  days: readonly { from: number; label: string }[]
  onPoint: (parts: readonly string[]) => void
  onTick: () => void
}

function Row({ step, done, bar, days, onPoint, onTick }: RowProps) {
  const amiss = step.ticks.filter((tick) => tick.amiss || tick.note)
  return (
    <div
      className={`order-row${done ? ' done' : ''}`}
      role="row"
      onPointerEnter={() => onPoint(step.parts)}
      onPointerLeave={() => onPoint([])}
      onFocus={() => onPoint(step.parts)}
    >
      <span role="cell" className="order-step">
        <Checkbox
          size="xs"
          checked={done}
          onChange={onTick}
          aria-label={`Step ${String(step.number)} is done`}
        />
        <details>
          <summary>
            <span className="n">{step.number}</span>
            <span>{step.title}</span>
          </summary>
          {step.how.map((line) => (
            <p key={line}>{line}</p>
          ))}
          <p className="quiet small">
            {lasting(step)}
            {step.after.length > 0 && `. After ${step.after.map(String).join(', ')}`}
          </p>
          {amiss.map((tick) => (
            <p key={tick.key} className={tick.amiss ? 'misheard' : 'quiet small'}>
              {tick.amiss ? 'Not as drawn: ' : ''}
              {tick.note} ({tick.by})
            </p>
          ))}
        </details>
      </span>
      <span role="cell" className="order-days">
        {days.slice(1).map((day) => (
          <i key={day.label} style={{ left: `${day.from}%` }} />
        ))}
        {bar && (
          <b
            className={step.hands > 1 ? 'two' : ''}
            style={{ left: `${bar.from}%`, width: `max(${bar.wide}%, 4px)` }}
            title={bar.said}
            aria-label={bar.said}
          />
        )}
      </span>
    </div>
  )
}

const OLD = [
  { value: 'nothing', label: 'nothing' },
  { value: 'shelves', label: 'shelves on cleats' },
  { value: 'rails', label: 'rails' },
  { value: 'tracks', label: 'tracks and standards' },
]
const AIMS = [
  { value: 'soonest', label: 'done soonest' },
  { value: 'fewest days', label: 'fewest days' },
]

function Choices({ spaceId, design, version, plan }: Omit<Props, 'done' | 'ticks' | 'onPoint'>) {
  const choice = plan.choice
  const { say } = useChoice(spaceId, design, version, plan)
  return (
    <div className="row install-choices no-print" aria-label="How it is done">
      <TextInput
        type="date"
        size="xs"
        label="From"
        value={choice.start}
        onChange={(event) =>
          event.currentTarget.value && say({ start: event.currentTarget.value }, 'first day')
        }
      />
      <TextInput
        type="date"
        size="xs"
        label="Delivered on"
        value={choice.delivered ?? ''}
        onChange={(event) => say({ delivered: event.currentTarget.value || null }, 'day of delivery')}
      />
      <NativeSelect
        size="xs"
        label="People"
        value={String(choice.people)}
        data={['1', '2', '3', '4']}
        onChange={(event) => say({ people: Number(event.currentTarget.value) }, 'people')}
      />
      <Hours
        label="Evening, hours"
        minutes={choice.evening}
        most={6}
        onSay={(evening) => say({ evening }, 'evenings')}
      />
      <Hours
        label="Weekend day, hours"
        minutes={choice.weekend}
        most={12}
        onSay={(weekend) => say({ weekend }, 'weekends')}
      />
      <NativeSelect
        size="xs"
        label="Hangs there now"
        value={choice.old}
        data={OLD}
        onChange={(event) => say({ old: event.currentTarget.value as typeof choice.old }, 'what hangs there')}
      />
      <NativeSelect
        size="xs"
        label="So that it is"
        value={choice.aim}
        data={AIMS}
        onChange={(event) => say({ aim: event.currentTarget.value as typeof choice.aim }, 'aim')}
      />
      <WaitsAt where={choice.waits_at} onSay={(waits_at) => say({ waits_at }, 'where things wait')} />
      <Checkbox
        size="xs"
        label="Paint the walls"
        checked={choice.paint}
        onChange={(event) => say({ paint: event.currentTarget.checked }, 'painting')}
      />
    </div>
  )
}

/** Kept when one leaves the field. */
function WaitsAt({ where, onSay }: { where: string; onSay: (where: string) => void }) {
  return (
    <TextInput
      size="xs"
      w={220}
      label="What is emptied waits"
      placeholder="on the bed, in the hall"
      key={where}
      defaultValue={where}
      maxLength={200}
      onBlur={(event) => {
        const next = event.currentTarget.value.trim()
        if (next !== where) onSay(next)
      }}
      onKeyDown={(event) => {
        if (event.key === 'Enter') event.currentTarget.blur()
      }}
    />
  )
}

function Hours({
  label,
  minutes,
  most,
  onSay,
}: {
  label: string
  minutes: number
  most: number
  onSay: (minutes: number) => void
}) {
  return (
    <NumberInput
      size="xs"
      w={112}
      label={label}
      key={minutes}
      defaultValue={minutes / 60}
      min={0}
      max={most}
      step={0.5}
      decimalScale={2}
      onBlur={(event) => {
        const hours = Number(event.currentTarget.value)
        const next = Math.round(Math.min(Math.max(hours, 0), most) * 60)
        if (Number.isFinite(hours) && next !== minutes) onSay(next)
      }}
      onKeyDown={(event) => {
        if (event.key === 'Enter') event.currentTarget.blur()
      }}
    />
  )
}
