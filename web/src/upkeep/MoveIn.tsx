import { Button } from '@mantine/core'
import { useState } from 'react'

import { useDesign } from '../api/queries'
import type { Acts, Upkeep } from './useUpkeep'

/** From a design to places that are lived in; asks before what was said of the places is lost. */
export function MoveIn({ upkeep, design, acts }: { upkeep: Upkeep; design: number | null; acts: Acts }) {
  const [sure, setSure] = useState<'in' | 'out' | null>(null)
  const title = useDesign(design).data?.title
  const here = upkeep.design !== null
  const other = design !== null && design !== upkeep.design
  if (sure && here)
    return (
      <div className="row misheard" role="alert">
        <span>What was said to lie in the places of “{upkeep.design_title}” is lost. </span>
        <Button
          size="compact-sm"
          onClick={() => {
            setSure(null)
            void (sure === 'in' && design !== null ? acts.moveIn(design) : acts.moveOut())
          }}
        >
          {sure === 'in' ? 'Move in anew' : 'Take the places back'}
        </Button>
        <Button size="compact-sm" variant="default" onClick={() => setSure(null)}>
          Leave it
        </Button>
      </div>
    )
  if (here)
    return (
      <p className="quiet">
        Moved into “{upkeep.design_title}”.{' '}
        {other && title && (
          <Button size="compact-xs" variant="subtle" onClick={() => setSure('in')}>
            Move into “{title}” instead
          </Button>
        )}
        <Button size="compact-xs" variant="subtle" onClick={() => setSure('out')}>
          Take the places back
        </Button>
      </p>
    )
  if (design === null || !title)
    return (
      <p className="quiet">
        No design was chosen; name the places that are there, and say what lies in them.
      </p>
    )
  return (
    <div className="row">
      <p>When it is put up, its shelves, rails and drawers become places, with what the design put there.</p>
      <Button onClick={() => void acts.moveIn(design)}>Move into “{title}”</Button>
    </div>
  )
}
