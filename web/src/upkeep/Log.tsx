import { Button, NativeSelect, TextInput } from '@mantine/core'
import { keepPreviousData, useInfiniteQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { api, body, said } from '../api/client'

/** All that happened in the household, the newest first. */
export function Log({ house }: { house: number }) {
  const [asked, setAsked] = useState({ kind: '', by: '', space: '', since: '', until: '', q: '' })
  const query = useInfiniteQuery({
    queryKey: ['log', house, asked],
    queryFn: ({ pageParam }) =>
      body(
        api.GET('/api/households/{household_id}/log', {
          params: { path: { household_id: house }, query: { ...asked, before: pageParam } },
        }),
      ),
    initialPageParam: 0,
    placeholderData: keepPreviousData,
    getNextPageParam: (last) => (last.more ? last.lines[last.lines.length - 1]?.id : undefined),
  })
  const pages = query.data?.pages ?? []
  const lines = pages.flatMap((page) => page.lines)
  const first = pages[0]
  const set = (more: Partial<typeof asked>) => setAsked({ ...asked, ...more })
  return (
    <>
      <div className="row labels-head no-print">
        <NativeSelect
          size="xs"
          label="Of"
          value={asked.kind}
          data={[
            { value: '', label: 'everything' },
            ...(first?.kinds ?? []).map(([value, label]) => ({ value: value ?? '', label: label ?? '' })),
          ]}
          onChange={(event) => set({ kind: event.currentTarget.value })}
        />
        <NativeSelect
          size="xs"
          label="By"
          value={asked.by}
          data={[{ value: '', label: 'everybody' }, ...(first?.people ?? [])]}
          onChange={(event) => set({ by: event.currentTarget.value })}
        />
        <NativeSelect
          size="xs"
          label="In"
          value={asked.space}
          data={[
            { value: '', label: 'every space' },
            ...(first?.spaces ?? []).map(([value, label]) => ({ value: value ?? '', label: label ?? '' })),
          ]}
          onChange={(event) => set({ space: event.currentTarget.value })}
        />
        <TextInput
          size="xs"
          type="date"
          label="Since"
          value={asked.since}
          onChange={(event) => set({ since: event.currentTarget.value })}
        />
        <TextInput
          size="xs"
          type="date"
          label="Until"
          value={asked.until}
          onChange={(event) => set({ until: event.currentTarget.value })}
        />
        <TextInput
          size="xs"
          label="With the word"
          value={asked.q}
          maxLength={100}
          onChange={(event) => set({ q: event.currentTarget.value })}
        />
        <Button
          component="a"
          href={`/api/households/${String(house)}/log.csv?${new URLSearchParams(asked).toString()}`}
          download
          size="compact-sm"
          variant="default"
        >
          Log (CSV)
        </Button>
      </div>
      {query.error && <p className="misheard">{said(query.error)}</p>}
      <table className="table log">
        <thead>
          <tr>
            <th>When</th>
            <th>Who</th>
            <th>What</th>
          </tr>
        </thead>
        <tbody>
          {lines.map((line) => (
            <tr key={line.id}>
              <td>{line.at}</td>
              <td>{line.by}</td>
              <td>{line.says}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {query.isSuccess && lines.length === 0 && <p className="quiet">Nothing of that happened.</p>}
      {query.hasNextPage && (
        <Button
          variant="default"
          size="compact-sm"
          loading={query.isFetching}
          onClick={() => void query.fetchNextPage()}
        >
          Older
        </Button>
      )}
    </>
  )
}
