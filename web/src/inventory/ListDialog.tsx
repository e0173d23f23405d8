import { api, body, type Schemas } from '../api/client'
import { BringList } from '../shell/BringList'

/** A list of things from a spreadsheet. */
export function ListDialog({
  spaceId,
  onTaken,
  onClose,
}: {
  spaceId: number
  onTaken: (things: Schemas['ThingsView']) => void
  onClose: () => void
}) {
  const params = { path: { space_id: spaceId } }
  return (
    <BringList
      title="Bring a list"
      sample={'count\twhat\thow often\n14\tshirts\tdaily'}
      rows="groups"
      look={(form) =>
        body(
          api.POST('/api/spaces/{space_id}/things/preview', {
            params,
            body: { text: '', file: null },
            bodySerializer: () => form,
          }),
        )
      }
      take={async (form) => {
        const answer = await body(
          api.POST('/api/spaces/{space_id}/things/list', {
            params,
            body: { text: '', columns: '', file: null },
            bodySerializer: () => form,
          }),
        )
        onTaken(answer.things)
        return answer
      }}
      onClose={onClose}
    />
  )
}
