import { Button, TextInput } from '@mantine/core'
import { useEffect, useState } from 'react'

import { lasting } from './lasting'
import { NotAsDrawn } from './NotAsDrawn'
import { StepPhotos } from './StepPhotos'
import type { Plan, Step } from './useInstall'
import type { Photos } from './usePhotos'
import type { Ticks } from './useTicks'

interface Props {
  plan: Plan
  done: ReadonlySet<string>
  ticks: Ticks
  photos: Photos
  onPoint: (parts: readonly string[]) => void
}

/** One step at a time, large, for a hand that holds a drill: what to do, done, what was not as drawn. */
export function AtTheWall({ plan, done, ticks, photos, onPoint }: Props) {
  const next = plan.steps.findIndex((step) => !done.has(step.id))
  const [chosen, setChosen] = useState<number | null>(null)
  const at = chosen ?? (next < 0 ? plan.steps.length - 1 : next)
  const step = plan.steps[at]
  const parts = step?.parts
  useEffect(() => {
    onPoint(parts ?? [])
    return () => onPoint([])
  }, [onPoint, parts])
  const waits = [counted(ticks.waiting.length, 'tick'), counted(photos.waiting.length, 'photo')]
    .filter(Boolean)
    .join(', ')
  if (!step) return <p className="quiet">There is nothing to put up.</p>
  return (
    <article className="at-wall" aria-label="The step in hand">
      <header className="row">
        <span className="quiet">
          Step {step.number} of {plan.steps.length}, {done.size} done
        </span>
        {waits && (
          <span className="quiet" role="status">
            {waits} on this device
          </span>
        )}
      </header>
      <StepInHand
        key={step.id}
        step={step}
        walls={plan.walls.filter((wall) => !step.section || wall.section === step.section)}
        done={done.has(step.id)}
        ticks={ticks}
        photos={photos}
        onDone={() => setChosen(null)}
      />
      <footer className="row">
        <Button variant="default" disabled={at === 0} onClick={() => setChosen(at - 1)}>
          Step before
        </Button>
        <Button variant="default" disabled={at === plan.steps.length - 1} onClick={() => setChosen(at + 1)}>
          Step after
        </Button>
        {chosen !== null && next >= 0 && chosen !== next && (
          <Button variant="subtle" onClick={() => setChosen(null)}>
            To the first that is not done
          </Button>
        )}
      </footer>
    </article>
  )
}

interface StepProps {
  step: Step
  walls: Plan['walls']
  done: boolean
  ticks: Ticks
  photos: Photos
  onDone: () => void
}

function StepInHand({ step, walls, done, ticks, photos, onDone }: StepProps) {
  const [began, setBegan] = useState<number | null>(null)
  const [note, setNote] = useState('')
  const [amiss, setAmiss] = useState(false)
  const minutes = useClock(began)
  const waits = ticks.waiting.some((one) => one.step === step.id && one.amiss)
  const told = step.ticks.filter((tick) => tick.amiss || tick.note)
  return (
    <>
      <h2>{step.title}</h2>
      {step.how.map((line) => (
        <p key={line}>{line}</p>
      ))}
      <p className="quiet">{lasting(step)}</p>
      {told.map((tick) => (
        <p key={tick.key} className={tick.amiss ? 'misheard' : 'quiet'}>
          {tick.amiss ? 'Not as drawn: ' : ''}
          {tick.note} ({tick.by})
        </p>
      ))}
      {waits && <p className="misheard">What was not as drawn waits on this device.</p>}
      {amiss && (
        <NotAsDrawn
          step={step}
          walls={walls}
          onKeep={(said) => {
            ticks.tick(step.id, { ...said, amiss: true })
            setAmiss(false)
          }}
          onLeave={() => setAmiss(false)}
        />
      )}
      <div className="at-wall-acts">
        {done ? (
          <Button size="xl" variant="default" onClick={() => ticks.untick(step.id, step.ticks)}>
            Not done after all
          </Button>
        ) : (
          <Button
            size="xl"
            onClick={() => {
              ticks.tick(step.id, {
                minutes: began === null ? null : Math.max(minutes, 0.5),
                note: note.trim(),
              })
              onDone()
            }}
          >
            Done{began === null ? '' : `, ${clock(minutes)}`}
          </Button>
        )}
        {!done && (
          <Button
            size="md"
            variant="default"
            onClick={() => setBegan(began === null ? Date.now() : null)}
            aria-pressed={began !== null}
          >
            {began === null ? 'Start the clock' : 'Stop the clock'}
          </Button>
        )}
        {!amiss && (
          <Button size="md" variant="default" onClick={() => setAmiss(true)}>
            It is not as drawn
          </Button>
        )}
      </div>
      <StepPhotos step={step} photos={photos} />
      {!done && !amiss && (
        <TextInput
          label="A note, kept with the tick"
          value={note}
          onChange={(event) => setNote(event.currentTarget.value)}
        />
      )}
    </>
  )
}

/** Minutes since a moment, told every second while it runs. */
function useClock(began: number | null): number {
  const [now, setNow] = useState(0)
  useEffect(() => {
    if (began === null) return
    const tell = () => setNow((Date.now() - began) / 60_000)
    tell()
    const timer = setInterval(tell, 1000)
    return () => clearInterval(timer)
  }, [began])
  return began === null ? 0 : now
}

function clock(minutes: number): string {
  const seconds = Math.round(minutes * 60)
  return `${String(Math.floor(seconds / 60))}:${String(seconds % 60).padStart(2, '0')}`
}

/** `2 ticks wait`; nothing of none. */
function counted(count: number, what: string): string {
  if (count === 0) return ''
  return count === 1 ? `1 ${what} waits` : `${String(count)} ${what}s wait`
}
