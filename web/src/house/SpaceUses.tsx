import { NativeSelect } from '@mantine/core'
import { useQueryClient } from '@tanstack/react-query'

import { api, body, type Schemas } from '../api/client'
import { keys, useVocabulary } from '../api/queries'
import { shrunk } from '../survey/shrunk'
import { failed, useWorkChange, type WorkPanelProps } from './useWorkChange'

const WHERE = ['indoors', 'basement', 'attached', 'outdoors'] as const

/** What each space is for, where it is, and how it looked before. */
export function SpaceUses({ houseId, work }: WorkPanelProps) {
  const change = useWorkChange(houseId)
  const zones = useVocabulary().data?.zones ?? []
  const put = (row: Schemas['UseView'], use: Schemas['SpaceUse']) =>
    change.mutate(() =>
      body(
        api.PUT('/api/spaces/{space_id}/use', {
          params: { path: { space_id: row.id } },
          body: { version: row.version, use },
        }),
      ),
    )
  return (
    <div className="panel across">
      <h2>What each space is for</h2>
      <p className="quiet small">
        Things are sent where their kind lives; a space without a word serves as usual.
      </p>
      <table className="table uses">
        <thead>
          <tr>
            <th>Space</th>
            <th>For</th>
            <th>Where</th>
            <th>Locked</th>
            <th>Before</th>
          </tr>
        </thead>
        <tbody>
          {work.spaces.map((row) => (
            <tr key={row.key}>
              <th scope="row">{row.name}</th>
              <td>
                {row.use.zones.map((zone) => (
                  <button
                    key={zone}
                    type="button"
                    className="chip"
                    aria-label={`${row.name} is no longer for ${zone}`}
                    onClick={() =>
                      put(row, { ...row.use, zones: row.use.zones.filter((one) => one !== zone) })
                    }
                  >
                    {zone} ×
                  </button>
                ))}
                <NativeSelect
                  size="xs"
                  variant="unstyled"
                  aria-label={`Another zone of ${row.name}`}
                  value=""
                  data={[
                    { value: '', label: row.use.zones.length ? 'and…' : 'as usual; or…' },
                    ...zones.filter((zone) => !row.use.zones.includes(zone)),
                  ]}
                  onChange={(event) => {
                    const { value } = event.currentTarget
                    if (value) put(row, { ...row.use, zones: [...row.use.zones, value] })
                  }}
                />
              </td>
              <td>
                <NativeSelect
                  size="xs"
                  variant="unstyled"
                  aria-label={`Where ${row.name} is`}
                  value={row.use.where ?? ''}
                  data={[{ value: '', label: 'as usual' }, ...WHERE]}
                  onChange={(event) => {
                    const where = WHERE.find((one) => one === event.currentTarget.value) ?? null
                    put(row, { ...row.use, where })
                  }}
                />
              </td>
              <td>
                <input
                  type="checkbox"
                  aria-label={`${row.name} is locked`}
                  checked={row.use.locked}
                  onChange={() => put(row, { ...row.use, locked: !row.use.locked })}
                />
              </td>
              <td>
                <BeforePhoto row={row} houseId={houseId} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}

/** The photo taken before the work, or the button to take it. */
function BeforePhoto({ row, houseId }: { row: Schemas['UseView']; houseId: number }) {
  const client = useQueryClient()
  const send = async (file: File) => {
    const form = new FormData()
    form.append('file', await shrunk(file), 'before.jpg')
    form.append('moment', 'before')
    await body(
      api.POST('/api/spaces/{space_id}/photos', {
        params: { path: { space_id: row.id } },
        body: { file: '', note: '', moment: 'before' },
        bodySerializer: () => form,
      }),
    )
    await client.invalidateQueries({ queryKey: keys.work(houseId) })
  }
  if (row.before !== null) {
    const url = `/api/photos/${row.before}/file`
    return (
      <a href={url} target="_blank" rel="noreferrer">
        <img className="thumb" src={url} alt={`${row.name} before`} loading="lazy" />
      </a>
    )
  }
  return (
    <label className="plain before">
      photo…
      <input
        type="file"
        accept="image/*"
        className="visually-hidden"
        aria-label={`Photo of ${row.name} before the work`}
        onChange={(event) => {
          const file = event.currentTarget.files?.[0]
          if (file) void send(file).catch(failed)
        }}
      />
    </label>
  )
}
