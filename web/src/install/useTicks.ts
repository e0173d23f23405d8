import { useQueryClient } from '@tanstack/react-query'
import { useCallback, useState } from 'react'

import { api, body, Problem, said, type Schemas } from '../api/client'
import { keys } from '../api/queries'
import { useQueue } from '../shell/useQueue'
import { newKey } from '../survey/waiting'
import { planKey, type Plan } from './useInstall'

/** What was found that is not as drawn. */
export type Found = Pick<
  Schemas['TickData'],
  'note' | 'what' | 'section' | 'number' | 'part' | 'at' | 'way' | 'there'
>
type Tick = Schemas['TickData'] & { gone?: boolean }
const NOTHING: Found = {
  note: '',
  what: '',
  section: '',
  number: null,
  part: '',
  at: '',
  way: '',
  there: null,
}
export interface Ticks {
  /** What this device ticked and has not been told to the server yet. */
  waiting: readonly Tick[]
  refused: string
  tick: (step: string, more?: Partial<Omit<Schemas['TickData'], 'key' | 'step'>>) => void
  /** Take a tick back: one that still waits is dropped, one that was sent is taken out there. */
  untick: (step: string, sent: readonly Schemas['TickView'][]) => void
}

/** Ticks are kept on the device first and sent when there is a connection: none is lost, none is counted twice. */
export function useTicks(spaceId: number, design: number): Ticks {
  const client = useQueryClient()
  const [refused, setRefused] = useState('')
  // What was sent stands on the plan here before it leaves the queue: the connection may go before the plan is asked for.
  const told = useCallback(
    (change: (ticks: Schemas['TickView'][]) => Schemas['TickView'][], id: string) =>
      client.setQueriesData<Plan>(
        { queryKey: planKey(design) },
        (plan) =>
          plan && {
            ...plan,
            steps: plan.steps.map((step) => (step.id === id ? { ...step, ticks: change(step.ticks) } : step)),
          },
      ),
    [client, design],
  )
  const send = useCallback(
    async ({ gone, ...tick }: Tick) => {
      const path = { design_id: design }
      if (gone) {
        await api.DELETE('/api/designs/{design_id}/ticks/{key}', {
          params: { path: { ...path, key: tick.key } },
        })
        told((ticks) => ticks.filter((one) => one.key !== tick.key), tick.step)
      } else {
        const answer = await body(
          api.POST('/api/designs/{design_id}/ticks', { params: { path }, body: tick }),
        )
        told((ticks) => [...ticks.filter((one) => one.key !== answer.key), answer], tick.step)
      }
    },
    [design, told],
  )
  const onRefused = useCallback((tick: Tick, problem: Problem) => {
    const words = [tick.at, tick.note].filter(Boolean).join('; ')
    if (problem.status !== 404) setRefused(words ? `${said(problem)} You had said: ${words}` : said(problem))
  }, [])
  const onSent = useCallback(() => {
    // What was not as drawn changes the design and the survey too.
    void client.invalidateQueries({ queryKey: keys.design(design) })
    void client.invalidateQueries({ queryKey: keys.space(spaceId) })
    void client.invalidateQueries({ queryKey: keys.ledger(spaceId) })
  }, [client, design, spaceId])
  const { waiting, put } = useQueue<Tick>(`ticks:${String(design)}`, { send, onRefused, onSent })

  return {
    waiting,
    refused,
    tick: (step, more = {}) => {
      setRefused('')
      put((now) => [
        ...now,
        {
          key: newKey(),
          step,
          minutes: null,
          amiss: false,
          ...NOTHING,
          ...more,
        },
      ])
    },
    untick: (step, sent) => {
      put((now) => [
        ...now.filter((one) => one.step !== step || one.amiss),
        ...sent.filter((one) => !one.amiss).map((one) => ({ ...asTick(one), gone: true })),
      ])
    },
  }
}

function asTick({ key, step, minutes, note, amiss }: Schemas['TickView']): Tick {
  return { ...NOTHING, key, step, minutes, note, amiss }
}

/** Whether a step is done: as the server has it, and what this device ticked or took back since. */
export function isDone(step: Schemas['StepView'], waiting: readonly Tick[]): boolean {
  const back = new Set(waiting.filter((one) => one.gone).map((one) => one.key))
  const here = waiting.some((one) => one.step === step.id && !one.gone && !one.amiss)
  return here || step.ticks.some((one) => !one.amiss && !back.has(one.key))
}
