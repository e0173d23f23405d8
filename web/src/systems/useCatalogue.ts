import { useQuery, useQueryClient } from '@tanstack/react-query'

import { api, body, type Schemas } from '../api/client'
import { keepAnswer, keys } from '../api/queries'
import { useUndo } from '../shell/undo'

type Catalogue = Schemas['CatalogueView']
export type OwnRange = Schemas['RangeView']
export type RangeFields = Omit<Schemas['RangeChange'], 'version' | 'whole'>

export function useCatalogue(houseId: number) {
  return useQuery({
    queryKey: keys.catalogue(houseId),
    queryFn: () =>
      body(
        api.GET('/api/households/{household_id}/catalogue', { params: { path: { household_id: houseId } } }),
      ),
  })
}

/** Changes of what can be bought; searches, families and ledgers are asked for again. */
export function useCatalogueChange(houseId: number) {
  const client = useQueryClient()
  const undo = useUndo()
  const path = { household_id: houseId }
  const settle = (next: Catalogue) => {
    keepAnswer(client, keys.catalogue(houseId), next)
    for (const stale of ['gallery', 'ledger']) void client.invalidateQueries({ queryKey: [stale] })
    return next
  }
  const versionOf = (key: string) =>
    client.getQueryData<Catalogue>(keys.catalogue(houseId))?.ranges.find((own) => own.key === key)?.version ??
    1
  const put = async (key: string, fields: Partial<Schemas['RangeChange']>) => {
    const change = { version: versionOf(key), name: 'range', about: '', pitch: '', sizes: {}, ...fields }
    return settle(
      await body(
        api.PUT('/api/households/{household_id}/ranges/{key}', {
          params: { path: { ...path, key } },
          body: { rates: {}, ratings: {}, ...change },
        }),
      ),
    )
  }
  const make = async (family: string, name: string, whole?: Schemas['Range']) =>
    settle(
      await body(
        api.POST('/api/households/{household_id}/ranges', {
          params: { path },
          body: { family, name, whole: whole ?? null },
        }),
      ),
    )
  const drop = async (key: string) =>
    settle(
      await body(
        api.DELETE('/api/households/{household_id}/ranges/{key}', { params: { path: { ...path, key } } }),
      ),
    )
  const reload = () => client.invalidateQueries({ queryKey: keys.catalogue(houseId) })

  return {
    make,
    change: async (own: OwnRange, fields: RangeFields) => {
      try {
        const next = await put(own.key, fields)
        const after = next.ranges.find((one) => one.key === own.key)?.whole ?? own.whole
        undo.did({
          label: `change ${own.name}`,
          undo: () => put(own.key, { whole: own.whole }),
          redo: () => put(own.key, { whole: after }),
        })
      } catch (error) {
        void reload()
        throw error
      }
    },
    remove: async (own: OwnRange) => {
      await drop(own.key)
      undo.did({
        label: `take out ${own.name}`,
        undo: () => make(own.family, own.name, own.whole),
        redo: () => drop(own.key),
      })
    },
    listContainer: async (data: Schemas['NewContainer']) =>
      settle(
        await body(api.POST('/api/households/{household_id}/containers', { params: { path }, body: data })),
      ),
    dropContainer: async (key: string) =>
      settle(
        await body(
          api.DELETE('/api/households/{household_id}/containers/{key}', {
            params: { path: { ...path, key } },
          }),
        ),
      ),
    look: (form: FormData) =>
      body(
        api.POST('/api/households/{household_id}/supplier-list', {
          params: { path },
          body: { text: '', file: null },
          bodySerializer: () => form,
        }),
      ),
    takeArticles: async (key: string, form: FormData) => {
      const answer = await body(
        api.POST('/api/households/{household_id}/ranges/{key}/list', {
          params: { path: { ...path, key } },
          body: { text: '', columns: '', file: null },
          bodySerializer: () => form,
        }),
      )
      settle(answer.catalogue)
      return answer
    },
    takeContainers: async (form: FormData) => {
      const answer = await body(
        api.POST('/api/households/{household_id}/containers/list', {
          params: { path },
          body: { text: '', columns: '', file: null },
          bodySerializer: () => form,
        }),
      )
      settle(answer.catalogue)
      return answer
    },
  }
}

export type CatalogueChange = ReturnType<typeof useCatalogueChange>
