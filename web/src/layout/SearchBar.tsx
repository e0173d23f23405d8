import { Alert, Button, Checkbox, MultiSelect, NativeSelect, Popover, Progress } from '@mantine/core'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import { Link } from 'react-router'

import { api, body, Problem, said, type Schemas } from '../api/client'
import { keys, searching, useForget } from '../api/queries'
import { EVEN, FinishForm, ranked, WeightSliders, type Ask } from './Wishes'

/** Ask for alternatives and what counts, watch the search, stop it; and what it says when not everything fits. */
export function SearchBar({
  houseId,
  spaceId,
  gallery,
  design,
  onChoose,
}: {
  houseId: number
  spaceId: number
  gallery: Schemas['Gallery']
  /** The design in hand: what has no place in it is what would have to leave. */
  design: Schemas['DesignView'] | null
  onChoose: (id: number) => void
}) {
  const client = useQueryClient()
  const forget = useForget(spaceId)
  const { solve, designs } = gallery
  const running = searching(solve)
  const [wishes, setWishes] = useState<Ask | null>(null)
  const asked = wishes ?? askOf(solve, gallery.families)
  const set = (next: Schemas['SolveView']) =>
    client.setQueryData<Schemas['Gallery']>(
      keys.gallery(spaceId),
      (before) => before && { ...before, solve: next },
    )
  const ask = useMutation({
    mutationFn: (data: Ask) =>
      body(
        api.POST('/api/spaces/{space_id}/solves', { params: { path: { space_id: spaceId } }, body: data }),
      ),
    onSuccess: set,
  })
  const relax = useMutation({
    mutationFn: ({ id, index }: { id: number; index: number }) =>
      body(
        api.POST('/api/solves/{solve_id}/relax/{index}', {
          params: { path: { solve_id: id, index }, query: design ? { design: design.id } : {} },
        }),
      ),
    onSuccess: (next) => {
      set(next)
      forget('things', 'ledger')
      void client.invalidateQueries({ queryKey: ['house'] })
    },
  })
  const cancel = useMutation({
    mutationFn: (id: number) =>
      body(api.POST('/api/solves/{solve_id}/cancel', { params: { path: { solve_id: id } } })),
    onSuccess: set,
  })
  const was = useRef(running)
  useEffect(() => {
    if (was.current && !running) forget('gallery', 'ledger', 'designs')
    was.current = running
  }, [forget, running])

  const toMeasure = <Link to={`/house/${houseId}/${spaceId}/survey`}>Go to Measure</Link>
  const failed = ask.error ?? relax.error
  return (
    <div className="search-bar">
      {running && solve ? (
        <div className="row" role="status">
          <Progress value={100 * solve.progress} aria-label="Search" style={{ flex: '0 1 220px' }} animated />
          <span>{solve.message}</span>
          <Button
            size="compact-sm"
            variant="default"
            loading={cancel.isPending}
            onClick={() => cancel.mutate(solve.id)}
          >
            Cancel
          </Button>
        </div>
      ) : (
        <div className="row tight">
          <Button
            size="compact-md"
            variant={designs.length ? 'default' : 'filled'}
            loading={ask.isPending}
            onClick={() => ask.mutate(asked)}
          >
            {designs.length ? 'Search again' : 'Find designs'}
          </Button>
          <WishesPopover
            gallery={gallery}
            asked={asked}
            chosen={design?.id ?? null}
            onChange={setWishes}
            onChoose={onChoose}
            onAsk={() => ask.mutate(asked)}
          />
          {solve?.status === 'cancelled' && <span className="quiet">Cancelled; what was found is kept.</span>}
        </div>
      )}
      {failed && (
        <Alert color="red" variant="outline" role="alert" mt="xs">
          {said(failed)} {failed instanceof Problem && failed.status < 500 && toMeasure}
        </Alert>
      )}
      {solve?.problem && !running && (
        <Alert color="red" variant="outline" role="alert" mt="xs">
          {solve.problem}
        </Alert>
      )}
      {solve?.blocked && !running && (
        <BlockedNote
          blocked={solve.blocked}
          without={design?.without ?? {}}
          busy={relax.isPending}
          onApply={(index) => relax.mutate({ id: solve.id, index })}
        />
      )}
    </div>
  )
}

/** What the last search was asked. A range that was changed since is another family: what is gone is left out. */
function askOf(solve: Schemas['SolveView'] | null, offered: Schemas['FamilyView'][]): Ask {
  return {
    weights: solve?.weights ?? null,
    finish: solve?.finish ?? null,
    within_budget: solve?.within_budget ?? false,
    folds: solve?.folds ?? false,
    families: (solve?.families ?? []).filter((id) => offered.some((family) => family.id === id)),
  }
}

/** What counts, the finish, the budget and the families, in a slip beside the search. */
function WishesPopover({
  gallery,
  asked,
  chosen,
  onChange,
  onChoose,
  onAsk,
}: {
  gallery: Schemas['Gallery']
  asked: Ask
  chosen: number | null
  onChange: (ask: Ask) => void
  onChoose: (id: number) => void
  onAsk: () => void
}) {
  const [opened, setOpened] = useState(false)
  // A drawer has no doors, no base and no rails.
  const hasRows = gallery.families.some((family) => !family.in_drawers)
  const leading = ranked(gallery.designs, asked.weights ?? EVEN)
  return (
    <Popover
      position="top-start"
      width="min(460px, calc(100vw - 24px))"
      shadow="md"
      trapFocus
      opened={opened}
      onChange={setOpened}
    >
      <Popover.Target>
        <Button size="compact-sm" variant="subtle" onClick={() => setOpened(!opened)}>
          What counts{asked.weights ? ': by hand' : ''}
        </Button>
      </Popover.Target>
      <Popover.Dropdown>
        <div className="wishes">
          <WeightSliders
            weights={asked.weights ?? EVEN}
            onChange={(weights) => onChange({ ...asked, weights })}
          />
          <Leading ranked={leading} currency={gallery.currency} chosen={chosen} onChoose={onChoose} />
          {hasRows && (
            <FinishForm
              finish={asked.finish ?? gallery.usual_finish}
              onChange={(finish) => onChange({ ...asked, finish })}
            />
          )}
          {gallery.strips.length > 0 && (
            <NativeSelect
              size="xs"
              label="Strips that part a drawer"
              value={String((asked.finish ?? gallery.usual_finish).strip ?? '')}
              data={gallery.strips.map(([value, label]) => ({ value: String(value), label }))}
              onChange={(event) =>
                onChange({
                  ...asked,
                  finish: {
                    ...(asked.finish ?? gallery.usual_finish),
                    strip: Number(event.currentTarget.value),
                  },
                })
              }
            />
          )}
          <Checkbox
            size="xs"
            label="stay within the budget"
            checked={asked.within_budget ?? false}
            onChange={(event) => onChange({ ...asked, within_budget: event.currentTarget.checked })}
          />
          {hasRows && (
            <Checkbox
              size="xs"
              label="lay away what creases where the rails are full"
              checked={asked.folds ?? false}
              onChange={(event) => onChange({ ...asked, folds: event.currentTarget.checked })}
            />
          )}
          <MultiSelect
            size="xs"
            label="Only these families"
            placeholder={asked.families?.length ? '' : 'all that suit'}
            data={gallery.families.map((family) => ({ value: family.id, label: family.name }))}
            value={asked.families ?? []}
            onChange={(families) => onChange({ ...asked, families })}
            comboboxProps={{ withinPortal: false, position: 'top' }}
          />
          <div className="row tight">
            <Button
              size="compact-sm"
              onClick={() => {
                setOpened(false)
                onAsk()
              }}
            >
              {leading.length ? 'None of these fits: search with this' : 'Search with this'}
            </Button>
            {asked.weights && (
              <Button
                size="compact-sm"
                variant="subtle"
                onClick={() => onChange({ ...asked, weights: null })}
              >
                Forget my weights
              </Button>
            )}
          </div>
        </div>
      </Popover.Dropdown>
    </Popover>
  )
}

/** Which of the alternatives there are would lead by what counts, at once. */
function Leading({
  ranked: [first, second],
  currency,
  chosen,
  onChoose,
}: {
  ranked: Schemas['Card'][]
  currency: string
  chosen: number | null
  onChoose: (id: number) => void
}) {
  if (!first) return null
  return (
    <div className="row tight leading">
      <p aria-live="polite">
        By this <b>{first.title}</b> leads ({first.cost} {currency})
        {second && <span className="quiet">, then {second.title}</span>}.
      </p>
      <Button
        size="compact-sm"
        variant="default"
        disabled={first.id === chosen}
        onClick={() => onChoose(first.id)}
      >
        {first.id === chosen ? 'Chosen' : 'Choose it'}
      </Button>
    </div>
  )
}

function BlockedNote({
  blocked,
  without,
  busy,
  onApply,
}: {
  blocked: Schemas['BlockedView']
  /** What would have to leave of the design in hand, by kind of change. */
  without: Readonly<Record<string, string>>
  busy: boolean
  onApply: (index: number) => void
}) {
  return (
    <div className="blocked" role="note" data-testid="blocked">
      <b>{blocked.sentence}</b>
      {blocked.reasons.length > 0 && (
        <>
          <h3>Why</h3>
          <ul aria-label="Why">
            {blocked.reasons.map((reason) => (
              <li key={reason}>{reason}</li>
            ))}
          </ul>
        </>
      )}
      {blocked.relaxations.length > 0 && <h3>What would do</h3>}
      {blocked.relaxations.length > 0 && (
        <ul aria-label="What would do">
          {blocked.relaxations
            .map((one) => ({ ...one, sentence: without[one.kind] ?? one.sentence }))
            .map((relaxation) => (
              <li key={relaxation.index}>
                {relaxation.sentence}{' '}
                {relaxation.applies && (
                  <Button
                    size="compact-xs"
                    variant="default"
                    disabled={busy}
                    aria-label={`Do so: ${relaxation.sentence}`}
                    onClick={() => onApply(relaxation.index)}
                  >
                    Do so and search
                  </Button>
                )}
              </li>
            ))}
        </ul>
      )}
    </div>
  )
}
