import { Button, Modal, SegmentedControl } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { useState } from 'react'

import { api, body, said, type Schemas } from '../api/client'
import type { SurveyChange } from './useSurveyChange'

export type Tool = Schemas['InstrumentView']['kind']

/** A hidden room to practise in: the instruments at hand, what is seen, and the truth at the end. */
export function Practice({
  space,
  practice,
  tool,
  onTool,
  change,
}: {
  space: Schemas['SpaceView']
  practice: Schemas['PracticeView']
  tool: Tool
  onTool: (tool: Tool) => void
  change: SurveyChange
}) {
  const [review, setReview] = useState<Schemas['ReviewView'] | null>(null)
  const path = { space_id: space.id }
  const fail = (error: unknown) => notifications.show({ color: 'red', message: said(error) })
  const sweep = () =>
    change
      .act('stud finder', (version) =>
        body(
          api.POST('/api/spaces/{space_id}/instruments/{kind}', {
            params: { path: { ...path, kind: 'stud finder' } },
            body: { version },
          }),
        ),
      )
      .catch(fail)
  const seen = (number: number, name: string) =>
    change
      .act(`measure the ${name}`, (version) =>
        body(api.POST('/api/spaces/{space_id}/seen', { params: { path }, body: { version, number } })),
      )
      .catch(fail)
  const truth = () =>
    change
      .act('show the truth', async (version) => {
        const answer = await body(
          api.POST('/api/spaces/{space_id}/truth', { params: { path }, body: { version } }),
        )
        setReview(answer.review)
        return answer.space
      })
      .catch(fail)
  const tools = practice.instruments.filter((one) => one.kind !== 'stud finder')
  const about = practice.instruments.find((one) => one.kind === tool)?.about ?? ''
  return (
    <section className="practice" aria-label="Practice">
      <h2>Practice: a {practice.difficulty} room, hidden</h2>
      <p className="quiet">
        Measure it as you would a real one; then see what your readings would have cost.
      </p>
      <div className="row">
        <SegmentedControl
          size="xs"
          aria-label="Instrument"
          value={tool}
          data={tools.map((one) => ({ value: one.kind, label: one.name }))}
          onChange={(value) => onTool(tools.find((one) => one.kind === value)?.kind ?? 'tape')}
        />
        <Button size="compact-sm" variant="default" onClick={() => void sweep()}>
          Sweep for studs
        </Button>
      </div>
      <p className="quiet">{about}</p>
      <div className="row">
        {practice.seen.map((name, n) => (
          <Button
            key={name}
            size="compact-sm"
            variant="default"
            disabled={space.obstacles.some((one) => one.id === `seen-${n}`)}
            onClick={() => void seen(n, name)}
          >
            You see a {name}: measure it
          </Button>
        ))}
        <Button size="compact-sm" onClick={() => void truth()}>
          {practice.shown ? 'Show the truth again' : 'Done: show the truth'}
        </Button>
      </div>
      {review && <Truth review={review} onClose={() => setReview(null)} />}
    </section>
  )
}

function Truth({ review, onClose }: { review: Schemas['ReviewView']; onClose: () => void }) {
  return (
    <Modal opened onClose={onClose} title="What your readings would have cost" size="lg">
      <p className="verdict">
        {review.score} of 100 needed places read within 3 mm; {review.plan}.
      </p>
      {review.wasted && <p>{review.wasted} of width were given away.</p>}
      {review.unlevel && (
        <p>The floor was never read: the run would have stood {review.unlevel} out of level.</p>
      )}
      {review.overlooked.map((name) => (
        <p key={name}>Overlooked: a {name}.</p>
      ))}
      {review.misses.length > 0 && (
        <table className="table">
          <thead>
            <tr>
              <th scope="col">place</th>
              <th scope="col">read</th>
              <th scope="col">true</th>
              <th scope="col">off</th>
            </tr>
          </thead>
          <tbody>
            {review.misses.map((miss) => (
              <tr key={miss.label}>
                <th scope="row">{miss.label}</th>
                <td>{miss.read}</td>
                <td>{miss.true}</td>
                <td>{miss.off}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {review.unread.length > 0 && <p className="quiet">Never read: {review.unread.join(' · ')}.</p>}
    </Modal>
  )
}
