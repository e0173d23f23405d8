import { notifications } from '@mantine/notifications'
import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query'

import { api, body, said, type Schemas } from '../api/client'
import { keys } from '../api/queries'
import { useUndo } from '../shell/undo'

export type Upkeep = Schemas['UpkeepView']
export type Place = Schemas['PlaceView']

/** What lies where in a space; with a sheet, what does not go onto its labels. */
export function useUpkeep(space: number, sheet = '', pictured = false) {
  return useQuery({
    queryKey: [...keys.upkeep(space), sheet, pictured],
    queryFn: () =>
      body(
        api.GET('/api/spaces/{space_id}/places', {
          params: { path: { space_id: space }, query: { sheet, pictured } },
        }),
      ),
    placeholderData: keepPreviousData,
  })
}

/** Acts on places: each is kept at once, says what went wrong, and can be taken back where nothing else is lost. */
export function useActs(space: number) {
  const client = useQueryClient()
  const undo = useUndo()
  const settle = async () => {
    const places = { queryKey: keys.upkeep(space) }
    // A first fetch that is under way may have been answered before the act: it is let come, and asked again.
    const early = client.isFetching(places) > 0
    await Promise.all([
      client.invalidateQueries(places),
      client.invalidateQueries({ queryKey: keys.ledger(space) }),
      client.invalidateQueries({ queryKey: ['found'] }),
      client.invalidateQueries({ queryKey: ['log'] }),
    ])
    if (early) await client.invalidateQueries(places)
  }
  const run = async (act: () => Promise<unknown>): Promise<boolean> => {
    try {
      await act()
      return true
    } catch (error) {
      notifications.show({ color: 'red', message: said(error) })
      return false
    } finally {
      await settle()
    }
  }
  const put = (place: number, thing: string, count: number) =>
    body(
      api.PUT('/api/places/{place_id}/stays', {
        params: { path: { place_id: place } },
        body: { thing, count },
      }),
    )
  const rename = (place: number, name: string) =>
    body(api.PUT('/api/places/{place_id}', { params: { path: { place_id: place } }, body: { name } }))
  const lend = (place: number, thing: string, to: string) =>
    body(
      api.PUT('/api/places/{place_id}/lent', { params: { path: { place_id: place } }, body: { thing, to } }),
    )
  return {
    moveIn: (design: number) =>
      run(() =>
        body(api.POST('/api/designs/{design_id}/move-in', { params: { path: { design_id: design } } })),
      ),
    moveOut: () =>
      run(() => body(api.DELETE('/api/spaces/{space_id}/places', { params: { path: { space_id: space } } }))),
    add: (name: string) =>
      run(() =>
        body(
          api.POST('/api/spaces/{space_id}/places', {
            params: { path: { space_id: space } },
            body: { name },
          }),
        ),
      ),
    drop: (place: number) =>
      run(() => body(api.DELETE('/api/places/{place_id}', { params: { path: { place_id: place } } }))),
    rename: async (place: Place, name: string) => {
      if (await run(() => rename(place.id, name)))
        undo.did({
          label: `name of ${place.name}`,
          undo: () => rename(place.id, place.name).then(settle),
          redo: () => rename(place.id, name).then(settle),
        })
    },
    /** So many of a thing in a place; what is too much comes out of the others, and goes back there when taken back. */
    put: async (upkeep: Upkeep, place: Place, thing: string, count: number, name: string) => {
      const before = upkeep.places.flatMap((one) =>
        one.stays
          .filter((stay) => stay.thing === thing)
          .map((stay) => ({ place: one.id, count: stay.count })),
      )
      const here = before.find((one) => one.place === place.id)
      if (await run(() => put(place.id, thing, count)))
        undo.did({
          label: `${name} in ${place.name}`,
          undo: async () => {
            await put(place.id, thing, here?.count ?? 0)
            for (const one of before) if (one.place !== place.id) await put(one.place, thing, one.count)
            await settle()
          },
          redo: () => put(place.id, thing, count).then(settle),
        })
    },
    lend: async (place: Place, thing: string, to: string, was: string) => {
      if (await run(() => lend(place.id, thing, to)))
        undo.did({
          label: to ? `lent to ${to}` : 'brought back',
          undo: () => lend(place.id, thing, was).then(settle),
          redo: () => lend(place.id, thing, to).then(settle),
        })
    },
    printed: (places: number[]) =>
      run(() =>
        body(
          api.POST('/api/spaces/{space_id}/printed', {
            params: { path: { space_id: space } },
            body: { places },
          }),
        ),
      ),
  }
}

export type Acts = ReturnType<typeof useActs>
