import { useQuery, useQueryClient, type QueryClient } from '@tanstack/react-query'
import { useCallback } from 'react'
import { useParams } from 'react-router'

import { api, body, type Schemas } from './client'

/** Names of everything cached; a change invalidates by these. */
export const keys = {
  session: ['session'] as const,
  house: (id: number) => ['house', id] as const,
  space: (id: number) => ['space', id] as const,
  things: (id: number) => ['things', id] as const,
  client: (house: number) => ['client', house] as const,
  standing: ['standing'] as const,
  members: (house: number) => ['members', house] as const,
  limits: (house: number) => ['limits', house] as const,
  homes: (house: number) => ['homes', house] as const,
  work: (house: number) => ['work', house] as const,
  catalogue: (house: number) => ['catalogue', house] as const,
  gallery: (id: number) => ['gallery', id] as const,
  upkeep: (id: number) => ['upkeep', id] as const,
  ledger: (id: number) => ['ledger', id] as const,
  design: (id: number) => ['design', id] as const,
  vocabulary: ['vocabulary'] as const,
  measure: ['measure'] as const,
}

export function useSession() {
  return useQuery({ queryKey: keys.session, queryFn: () => body(api.GET('/api/session')), staleTime: 60_000 })
}

/** What the household in hand goes by: its boards, screws and lifting, each beside its usual value. */
export function useLimits() {
  const id = Number(useParams().houseId)
  return useQuery({
    queryKey: keys.limits(id),
    queryFn: () =>
      body(api.GET('/api/households/{household_id}/limits', { params: { path: { household_id: id } } })),
    placeholderData: (before) => before,
  })
}

export function useHouse(id: number) {
  return useQuery({
    queryKey: keys.house(id),
    queryFn: () =>
      body(api.GET('/api/households/{household_id}', { params: { path: { household_id: id } } })),
  })
}

export function useSpace(id: number) {
  return useQuery({
    queryKey: keys.space(id),
    queryFn: () => body(api.GET('/api/spaces/{space_id}', { params: { path: { space_id: id } } })),
  })
}

/** The section of a space that is drawn first. */
export function mainSection(space: Schemas['SpaceView']): Schemas['SectionView'] | undefined {
  return space.sections.find((one) => one.id === space.main)
}

export function useThings(id: number) {
  return useQuery({
    queryKey: keys.things(id),
    queryFn: () => body(api.GET('/api/spaces/{space_id}/things', { params: { path: { space_id: id } } })),
  })
}

export function useVocabulary() {
  return useQuery({
    queryKey: keys.vocabulary,
    queryFn: () => body(api.GET('/api/vocabulary')),
    staleTime: Infinity,
  })
}

/** Kinds of space and obstacle, and the grammar of the call-out line. */
export function useMeasureVocabulary() {
  return useQuery({
    queryKey: keys.measure,
    queryFn: () => body(api.GET('/api/measure')),
    staleTime: Infinity,
  })
}

const POLL_MS = 350

export function searching(solve: Schemas['SolveView'] | null | undefined): boolean {
  return solve?.status === 'queued' || solve?.status === 'running'
}

/** The gallery. While a search runs, it is asked how far it is, and only cards that are new or changed are fetched. */
export function useGallery(id: number) {
  const client = useQueryClient()
  const gallery = useQuery({
    queryKey: keys.gallery(id),
    queryFn: () => body(api.GET('/api/spaces/{space_id}/designs', { params: { path: { space_id: id } } })),
  })
  const solve = gallery.data?.solve
  useQuery({
    queryKey: [...keys.gallery(id), 'search', solve?.id],
    queryFn: async () => {
      const told = await body(
        api.GET('/api/solves/{solve_id}', { params: { path: { solve_id: solve?.id ?? 0 } } }),
      )
      await arrived(client, id, told)
      return told
    },
    enabled: searching(solve),
    refetchInterval: POLL_MS,
    gcTime: 0,
  })
  return gallery
}

/** Puts into the gallery what a search says of itself, with the cards that are not as they were. */
async function arrived(client: QueryClient, id: number, told: Schemas['SolveView']): Promise<void> {
  const before = client.getQueryData<Schemas['Gallery']>(keys.gallery(id))
  if (!before || before.solve?.id !== told.id) return
  const known = new Map(before.designs.map((card) => [card.id, card]))
  const designs = await Promise.all(
    told.cards.map(async ({ id: design, version }) => {
      const card = known.get(design)
      return card?.version === version
        ? card
        : body(api.GET('/api/designs/{design_id}/card', { params: { path: { design_id: design } } })).catch(
            () => null,
          )
    }),
  )
  client.setQueryData<Schemas['Gallery']>(keys.gallery(id), (now) =>
    now && now.solve?.id === told.id
      ? { ...now, solve: told, designs: designs.filter((card) => card !== null) }
      : now,
  )
}

/** The label of one alternative as it is now; the others hang as they did. */
export async function relabel(client: QueryClient, spaceId: number, designId: number): Promise<void> {
  const card = await body(
    api.GET('/api/designs/{design_id}/card', { params: { path: { design_id: designId } } }),
  )
  client.setQueryData<Schemas['Gallery']>(
    keys.gallery(spaceId),
    (now) => now && { ...now, designs: now.designs.map((one) => (one.id === card.id ? card : one)) },
  )
}

export function useDesign(id: number | null) {
  return useQuery({
    queryKey: keys.design(id ?? 0),
    queryFn: () => body(api.GET('/api/designs/{design_id}', { params: { path: { design_id: id ?? 0 } } })),
    enabled: id !== null,
    // Stepping through the gallery, the last one hangs until the next is here.
    placeholderData: (before) => before,
  })
}

export function useSpaceLedger(spaceId: number, design: number | null) {
  return useQuery({
    queryKey: [...keys.ledger(spaceId), design],
    queryFn: () =>
      body(
        api.GET('/api/spaces/{space_id}/ledger', {
          params: { path: { space_id: spaceId }, query: design === null ? {} : { design } },
        }),
      ),
    placeholderData: (before) => before,
  })
}

/** Forget everything of the one who was signed in, but for the session itself. */
export function forgetAll(client: QueryClient): void {
  client.removeQueries({ predicate: ({ queryKey }) => queryKey[0] !== 'session' })
}

/** Keeps what an act answered; a fetch that was under way meanwhile is older, and does not show over it. */
export function keepAnswer<Answer>(client: QueryClient, queryKey: readonly unknown[], answer: Answer): void {
  void client.cancelQueries({ queryKey, exact: true })
  client.setQueryData(queryKey, answer)
}

/** Forget what a change to a space may have touched. */
export function useForget(spaceId: number) {
  const client = useQueryClient()
  return useCallback(
    (...what: readonly ('space' | 'things' | 'gallery' | 'ledger' | 'designs')[]) => {
      for (const name of what) {
        const key = name === 'designs' ? ['design'] : keys[name](spaceId)
        void client.invalidateQueries({ queryKey: key })
      }
    },
    [client, spaceId],
  )
}
