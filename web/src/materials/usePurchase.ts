import { notifications } from '@mantine/notifications'
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useSearchParams } from 'react-router'

import { api, body, said, type Schemas } from '../api/client'
import { useUndo } from '../shell/undo'

export type Purchase = Schemas['PurchaseView']
export type Grade = NonNullable<Schemas['VariantView']['grade']>
export type Cutting = Schemas['VariantView']['cutting']

/** How the list is bought: it stands in the address, so that a reload or another window has it too. */
export interface Ask {
  designs: number[]
  cutting: Cutting
  without: string[]
  /** Other boards for what is cut from sheets. */
  grade: Grade | null
  kerf: string
  longest: string
  shown: number
}

const CUTTINGS: readonly Cutting[] = ['measure', 'stock', 'make']

export function useAsk(design: number): [Ask, (change: Partial<Omit<Ask, 'shown'>>) => void] {
  const [search, setSearch] = useSearchParams()
  const also = (search.get('also') ?? '').split(',').map(Number).filter(Boolean)
  const ask: Ask = {
    designs: [design, ...also.filter((id) => id !== design)],
    cutting: CUTTINGS.find((one) => one === search.get('cutting')) ?? 'measure',
    without: (search.get('without') ?? '').split(',').filter(Boolean),
    grade: (search.get('grade') as Grade | null) ?? null,
    kerf: search.get('kerf') ?? '',
    longest: search.get('longest') ?? '',
    shown: design,
  }
  const change = (next: Partial<Omit<Ask, 'shown'>>) => {
    const { designs, cutting, without, grade, kerf, longest } = { ...ask, ...next }
    const said = {
      also: designs.filter((id) => id !== design).join(','),
      cutting: cutting === 'measure' ? '' : cutting,
      without: without.join(','),
      grade: grade ?? '',
      kerf,
      longest,
    }
    setSearch(
      (before) => {
        const after = new URLSearchParams(before)
        for (const [key, value] of Object.entries(said)) {
          if (value) after.set(key, value)
          else after.delete(key)
        }
        return after
      },
      { replace: true },
    )
  }
  return [ask, change]
}

/** The same as it stands in the address of a file. */
export function asQuery(ask: Ask): string {
  const query = new URLSearchParams()
  for (const id of ask.designs) query.append('designs', String(id))
  for (const key of ask.without) query.append('without', key)
  query.set('cutting', ask.cutting)
  if (ask.grade) query.set('grade', ask.grade)
  if (ask.kerf) query.set('kerf', ask.kerf)
  if (ask.longest) query.set('longest', ask.longest)
  return query.toString()
}

const keyOf = (house: number) => ['purchase', house] as const

/** `version` is the design's: a list is asked for again when it was edited. */
export function usePurchase(house: number, ask: Ask, version: number) {
  return useQuery({
    queryKey: [...keyOf(house), ask, version],
    queryFn: () =>
      body(
        api.GET('/api/households/{household_id}/purchase', {
          params: { path: { household_id: house }, query: ask },
        }),
      ),
    placeholderData: keepPreviousData,
  })
}

/** Other ways to buy the same; they are worked out after the list is there. */
export function useVariants(house: number, ask: Ask) {
  return useQuery({
    queryKey: [...keyOf(house), 'variants', ask],
    queryFn: () =>
      body(
        api.GET('/api/households/{household_id}/purchase/variants', {
          params: { path: { household_id: house }, query: ask },
        }),
      ),
    placeholderData: keepPreviousData,
  })
}

export function useShops(house: number, ask: Ask) {
  return useQuery({
    queryKey: [...keyOf(house), 'shops', ask],
    queryFn: () =>
      body(
        api.GET('/api/households/{household_id}/purchase/shops', {
          params: { path: { household_id: house }, query: ask },
        }),
      ),
    placeholderData: keepPreviousData,
  })
}

export function useMoney(house: number, ask: Ask) {
  return useQuery({
    queryKey: [...keyOf(house), 'money', ask],
    queryFn: () =>
      body(
        api.GET('/api/households/{household_id}/money', {
          params: { path: { household_id: house }, query: ask },
        }),
      ),
    placeholderData: keepPreviousData,
  })
}

/** Acts at the saw and in the ledger of money; the list and the plans are asked for anew after each. */
export function useBuying(house: number, ask: Ask) {
  const client = useQueryClient()
  const undo = useUndo()
  const path = { household_id: house }
  const refresh = () => client.invalidateQueries({ queryKey: keyOf(house) })
  const act = useMutation({
    mutationFn: (does: () => Promise<unknown>) => does(),
    onSuccess: refresh,
    onError: (error) => notifications.show({ color: 'red', message: said(error) }),
  })
  const tick = async (labels: string[]) => {
    const { sawn } = await body(
      api.POST('/api/households/{household_id}/sawn', { params: { path }, body: { ...ask, labels } }),
    )
    return sawn.at(-1)?.key ?? ''
  }
  const untick = (key: string) =>
    api.DELETE('/api/households/{household_id}/sawn/{key}', { params: { path: { ...path, key } } })
  return {
    isPending: act.isPending,
    /** A sheet or board is sawn. */
    tick: (labels: string[]) =>
      act.mutate(async () => {
        let key = await tick(labels)
        undo.did({
          label: `sawn ${labels.join(', ')}`,
          undo: () => untick(key).then(refresh),
          redo: async () => {
            key = await tick(labels)
            await refresh()
          },
        })
      }),
    untick: (key: string) => act.mutate(() => untick(key)),
    spoil: (part: string) =>
      act.mutate(() =>
        api.POST('/api/households/{household_id}/spoilt', { params: { path }, body: { part } }),
      ),
    writeDown: (entry: Schemas['MoneyData'], then: () => void) =>
      act.mutate(() => api.POST('/api/households/{household_id}/money', { params: { path }, body: entry }), {
        onSuccess: then,
      }),
    /** What the columns of a supplier's list seem to be. */
    lookAtPrices: (form: FormData) =>
      body(
        api.POST('/api/households/{household_id}/prices/look', {
          params: { path },
          body: { text: '', file: null },
          bodySerializer: () => form,
        }),
      ),
    takePrices: async (form: FormData) => {
      const taken = await body(
        api.POST('/api/households/{household_id}/prices', {
          params: { path },
          body: { text: '', columns: '', file: null, name: '', delivery: '', days: 0 },
          bodySerializer: () => form,
        }),
      )
      await refresh()
      return taken
    },
    dropPrices: (key: string) =>
      act.mutate(() =>
        api.DELETE('/api/households/{household_id}/prices/{key}', { params: { path: { ...path, key } } }),
      ),
    strikeOut: (key: string) =>
      act.mutate(() =>
        api.DELETE('/api/households/{household_id}/money/{key}', { params: { path: { ...path, key } } }),
      ),
  }
}
