import { Button } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'

import { api, body, type Schemas } from '../api/client'

/** What is made for drawers: templates and map to print, strips to cut with their slots. Nothing where there is none. */
export function Cuts({ designId, version }: { designId: number; version: number }) {
  const { data } = useQuery({
    queryKey: ['design', designId, 'cuts', version],
    queryFn: () =>
      body(api.GET('/api/designs/{design_id}/cuts', { params: { path: { design_id: designId } } })),
  })
  if (!data?.in_drawers) return null
  const url = `/api/designs/${designId}`
  return (
    <section aria-label="For the drawers" className="cuts">
      <h2>For the drawers</h2>
      <div className="row no-print">
        <Button component="a" href={`${url}/drawers.pdf`} target="_blank" size="compact-sm" variant="default">
          Full size to set by (PDF)
        </Button>
        <Button
          component="a"
          href={`${url}/drawers.pdf?size=map`}
          target="_blank"
          size="compact-sm"
          variant="default"
        >
          Map for the front (PDF)
        </Button>
        {data.drawers.length > 0 && (
          <Button component="a" href={`${url}/strips.dxf`} download size="compact-sm" variant="default">
            Strips for a laser (DXF)
          </Button>
        )}
      </div>
      {data.drawers.map((drawer) => (
        <DrawerCuts key={drawer.section} drawer={drawer} />
      ))}
    </section>
  )
}

function DrawerCuts({ drawer }: { drawer: Schemas['DrawerCutsView'] }) {
  return (
    <table className="table">
      <caption>
        {drawer.name}: liner {drawer.liner}
        {drawer.slot && `; every slot ${drawer.slot}`}
      </caption>
      <thead>
        <tr>
          <th className="n">Cut</th>
          <th>Strip</th>
          <th>Slots open above, from the left end</th>
          <th>Slots open below, from the left end</th>
        </tr>
      </thead>
      <tbody>
        {drawer.strips.map((strip, n) => (
          <tr key={n}>
            <td className="n">{strip.count}</td>
            <td>{strip.size}</td>
            <td>{strip.above.join(', ') || '–'}</td>
            <td>
              {strip.below.join(', ') || '–'}
              {strip.butts > 0 && ' (an end is only glued)'}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}
