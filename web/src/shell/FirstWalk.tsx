import { Button } from '@mantine/core'
import { useState } from 'react'

import type { StageId } from './stages'

const STEPS: readonly { stage: StageId; says: string }[] = [
  {
    stage: 'house',
    says: 'Say who lives here, one click each: who reaches how high decides where things hang.',
  },
  {
    stage: 'survey',
    says: 'Measure the space before you: call out a reading, or touch a line of the drawing.',
  },
  { stage: 'inventory', says: 'Say what is kept there, as you would say it. What was guessed is marked.' },
  {
    stage: 'layout',
    says: 'Ask for alternatives. Each one is proven to fit; change it by hand as you like.',
  },
  {
    stage: 'checks',
    says: 'See what it was asked and what was found, bay by bay; what one act can mend is mended here.',
  },
  { stage: 'materials', says: 'Here is what it takes and costs. Print it, or go back: nothing is bound.' },
]
const KEY = 'first-walk'

export const isWalking = () => localStorage.getItem(KEY) !== 'left'

/** A first walk through the stages, beside the work; it can be left at any step. */
export function FirstWalk({
  stage,
  onGo,
  onLeave,
}: {
  stage: StageId
  /** Null where there is no space yet to go on in. */
  onGo: ((stage: StageId) => void) | null
  onLeave: () => void
}) {
  const here = Math.max(
    0,
    STEPS.findIndex((step) => step.stage === stage),
  )
  const leave = () => {
    localStorage.setItem(KEY, 'left')
    onLeave()
  }
  const before = STEPS[here - 1]
  const after = STEPS[here + 1]
  return (
    <aside className="first-walk" aria-label="First walk">
      <b>{here + 1} of 5</b>
      <span>{onGo ? STEPS[here]?.says : 'Name the space you stand before, and say who lives here.'}</span>
      {onGo && before && (
        <Button size="compact-sm" variant="default" onClick={() => onGo(before.stage)}>
          Back
        </Button>
      )}
      {onGo &&
        (after ? (
          <Button size="compact-sm" onClick={() => onGo(after.stage)}>
            Next
          </Button>
        ) : (
          <Button size="compact-sm" onClick={leave}>
            Done
          </Button>
        ))}
      <Button size="compact-sm" variant="subtle" onClick={leave}>
        Leave the walk
      </Button>
    </aside>
  )
}

/** Whether the walk is on, and how it is begun again and left. */
export function useFirstWalk(offered: boolean) {
  const [on, setOn] = useState(() => offered && isWalking())
  return {
    on,
    begin: () => {
      localStorage.removeItem(KEY)
      setOn(true)
    },
    left: () => setOn(false),
  }
}
