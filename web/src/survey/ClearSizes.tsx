import type { Schemas } from '../api/client'
import { Why } from '../shell/Why'

/** What the readings mean: the sizes that are clear for parts. */
export function ClearSizes({ space }: { space: Schemas['SpaceView'] }) {
  const { clear, problem } = space
  if (!clear) return <p className="quiet">{problem}</p>
  return (
    <section aria-label="Clear sizes">
      <h2>Clear for parts</h2>
      <dl className="facts">
        <dt>width</dt>
        <dd>
          <Why slip={clear.why} label="Clear width">
            {clear.width}
          </Why>
        </dd>
        <dt>depth</dt>
        <dd>{clear.depth}</dd>
        <dt>height</dt>
        <dd>{clear.height}</dd>
        <dt>for what slides out</dt>
        <dd>{clear.opening}</dd>
      </dl>
    </section>
  )
}
