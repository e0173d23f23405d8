import { useQueryClient } from '@tanstack/react-query'

import { api, body, Problem, type Schemas } from '../api/client'
import { keepAnswer, keys, useForget } from '../api/queries'
import { useUndo } from '../shell/undo'

type Things = Schemas['ThingsView']
type ThingView = Schemas['ThingView']
export type Change = Omit<Schemas['ThingChange'], 'version'>
export type ManyChange = Omit<Schemas['ManyChanges'], 'ids'>

/** Changes of the things of a space, each a step that can be undone. */
export function useThingsChange(spaceId: number, houseId: number) {
  const client = useQueryClient()
  const forget = useForget(spaceId)
  const undo = useUndo()
  const path = { space_id: spaceId }

  const settle = (things: Things) => {
    keepAnswer(client, keys.things(spaceId), things)
    void client.invalidateQueries({ queryKey: ['homes'] })
    forget('ledger', 'gallery', 'designs')
  }
  const seen = (id: string): ThingView => {
    const row = client.getQueryData<Things>(keys.things(spaceId))?.things.find(({ thing }) => thing.id === id)
    if (!row) throw new Problem(404, { title: 'That thing is no longer in the list.' })
    return row
  }
  const refetch = () => {
    void client.invalidateQueries({ queryKey: ['homes'] })
    return client.invalidateQueries({ queryKey: keys.things(spaceId) })
  }
  const takeOut = async (id: string) => {
    const row = seen(id)
    await api.DELETE('/api/things/{thing_id}', {
      params: { path: { thing_id: row.id }, query: { version: row.version } },
    })
    await refetch()
    forget('ledger', 'gallery', 'designs')
  }
  const putBack = async (thing: Schemas['Thing']) =>
    settle(await body(api.POST('/api/spaces/{space_id}/things/back', { params: { path }, body: thing })))
  const patch = async (id: string, change: Change) => {
    const row = seen(id)
    try {
      await body(
        api.PATCH('/api/things/{thing_id}', {
          params: { path: { thing_id: row.id } },
          body: { version: row.version, ...change },
        }),
      )
    } finally {
      await refetch()
      forget('ledger', 'gallery', 'designs')
    }
  }

  return {
    /** Add by a quick-add line, all groups of it or none. */
    add: async (line: string) => {
      const before = new Set(
        client.getQueryData<Things>(keys.things(spaceId))?.things.map(({ thing }) => thing.id),
      )
      const after = await body(
        api.POST('/api/spaces/{space_id}/things', { params: { path }, body: { line } }),
      )
      settle(after)
      const rows = after.things.filter(({ thing }) => !before.has(thing.id))
      const added = rows.map(({ thing }) => thing)
      undo.did({
        label: `add ${line}`,
        undo: async () => {
          for (const thing of added) await takeOut(thing.id)
        },
        redo: async () => {
          for (const thing of added) await putBack(thing)
        },
      })
      return rows
    },
    /** Take the things of a note in, as they were put right; one step of undo. */
    takeNote: async (things: Schemas['Thing'][]) => {
      const before = new Set(
        client.getQueryData<Things>(keys.things(spaceId))?.things.map(({ thing }) => thing.id),
      )
      const after = await body(
        api.POST('/api/spaces/{space_id}/things/note', { params: { path }, body: { things } }),
      )
      settle(after)
      const added = after.things.map(({ thing }) => thing).filter((thing) => !before.has(thing.id))
      undo.did({
        label: `a note of ${added.length} groups`,
        undo: async () => {
          for (const thing of added) await takeOut(thing.id)
        },
        redo: async () => {
          for (const thing of added) await putBack(thing)
        },
      })
    },
    change: async (row: ThingView, change: Change) => {
      const before = Object.fromEntries(
        Object.keys(change).map((field) => [field, row.thing[field as keyof typeof row.thing]]),
      ) as Change
      await patch(row.thing.id, change)
      const label = `${row.thing.name}: ${Object.keys(change).join(', ')}`
      undo.did({ label, undo: () => patch(row.thing.id, before), redo: () => patch(row.thing.id, change) })
    },
    /** The same change for many, one step of undo. */
    changeMany: async (rows: readonly ThingView[], change: ManyChange) => {
      const many = async (ids: readonly number[], fields: ManyChange) => {
        await body(
          api.POST('/api/households/{household_id}/things/change', {
            params: { path: { household_id: houseId } },
            body: { ids: [...ids], ...fields },
          }),
        )
      }
      const field = Object.keys(change)[0] as keyof ManyChange
      const before = new Map<string, number[]>()
      for (const row of rows) {
        const old = row.thing[field]
        before.set(old, [...(before.get(old) ?? []), row.id])
      }
      const ids = rows.map((row) => row.id)
      const settleAll = async () => {
        await refetch()
        forget('ledger', 'gallery', 'designs')
      }
      await many(ids, change)
      await settleAll()
      undo.did({
        label: `${rows.length} groups: ${field}`,
        undo: async () => {
          for (const [old, group] of before) await many(group, { [field]: old })
          await settleAll()
        },
        redo: async () => {
          await many(ids, change)
          await settleAll()
        },
      })
    },
    duplicate: async (row: ThingView) => {
      const made = await body(
        api.POST('/api/things/{thing_id}/duplicate', { params: { path: { thing_id: row.id } } }),
      )
      await refetch()
      forget('ledger', 'gallery', 'designs')
      undo.did({
        label: `duplicate ${row.thing.name}`,
        undo: () => takeOut(made.thing.id),
        redo: () => putBack(made.thing),
      })
    },
    /** A list was taken in: show it. */
    taken: settle,
    remove: async (row: ThingView) => {
      await takeOut(row.thing.id)
      undo.did({
        label: `take out ${row.thing.name}`,
        undo: () => putBack(row.thing),
        redo: () => takeOut(row.thing.id),
      })
    },
  }
}
