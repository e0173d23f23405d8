import { Button } from '@mantine/core'
import { Link } from 'react-router'

import { Sheet } from '../sheet/Sheet'

/** A stage that speaks of a design while there is none: what is missing, and the way there. */
export function NoDesign({ says, to }: { says: string; to: string }) {
  return (
    <main className="room whole">
      <Sheet title={null}>
        <div className="empty">
          <p>{says}</p>
          <Button component={Link} to={to}>
            Go to Design
          </Button>
        </div>
      </Sheet>
    </main>
  )
}
