import { Button, FileButton, NumberInput, SegmentedControl, Slider } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { api, body, type Schemas } from '../api/client'
import { Fetched } from '../shell/Fetched'
import { shrunk } from '../survey/shrunk'
import { FindingGame } from './FindingGame'
import { useTell } from './useTell'

type View = Schemas['BeforeAfterView']
type Moment = 'before' | 'after'

/** What was won: photos over each other, figures beside each other, and a game of finding things. */
export function BeforeAfter({ house, space, name }: { house: number; space: number; name: string }) {
  const query = useQuery({
    queryKey: ['before-after', space],
    queryFn: () =>
      body(api.GET('/api/spaces/{space_id}/before-after', { params: { path: { space_id: space } } })),
    placeholderData: keepPreviousData,
  })
  return (
    <Fetched query={query} waiting="Looking back">
      {(view) => (
        <>
          <Photos space={space} name={name} view={view} />
          <Figures space={space} view={view} />
          <FindingGame house={house} space={space} view={view} />
        </>
      )}
    </Fetched>
  )
}

function Photos({ space, name, view }: { space: number; name: string; view: View }) {
  const tell = useTell()
  const [at, setAt] = useState(50)
  const [pair, setPair] = useState(0)
  const of = (moment: Moment) => view.photos.filter((one) => one.moment === moment)
  const before = of('before')[pair]
  const after = of('after')[pair]
  const pairs = Math.max(of('before').length, of('after').length)
  const add = (moment: Moment) => (file: File | null) => {
    if (!file) return
    shrunk(file)
      .then((picture) => {
        const form = new FormData()
        form.append('file', picture, 'photo.jpg')
        form.append('moment', moment)
        return tell(() =>
          api.POST('/api/spaces/{space_id}/photos', {
            params: { path: { space_id: space } },
            body: { file: '', note: '' },
            bodySerializer: () => form,
          }),
        )
      })
      .catch(() =>
        notifications.show({ color: 'red', message: 'That is no photograph. Choose another file.' }),
      )
  }
  return (
    <section aria-label="Photos before and after">
      <div className="row no-print">
        {(['before', 'after'] as const).map((moment) => (
          <FileButton
            key={moment}
            onChange={add(moment)}
            accept="image/*"
            inputProps={{ 'aria-label': `Choose a photo from ${moment}` }}
          >
            {(props) => (
              <Button {...props} size="compact-sm" variant="default">
                Photo from {moment}
              </Button>
            )}
          </FileButton>
        ))}
        {pairs > 1 && (
          <SegmentedControl
            size="xs"
            aria-label="Which pair"
            value={String(pair)}
            onChange={(next) => setPair(Number(next))}
            data={Array.from({ length: pairs }, (_, n) => ({ value: String(n), label: String(n + 1) }))}
          />
        )}
        {[before, after].map(
          (photo) =>
            photo && (
              <Button
                key={photo.id}
                size="compact-sm"
                variant="subtle"
                onClick={() =>
                  void tell(() =>
                    api.DELETE('/api/photos/{photo_id}', { params: { path: { photo_id: photo.id } } }),
                  )
                }
              >
                Take away the one from {photo.moment}
              </Button>
            ),
        )}
      </div>
      {before && after && (
        <>
          <div className="over-each-other">
            <img src={after.url} alt={`${name} after`} />
            <img
              src={before.url}
              alt={`${name} before`}
              style={{ clipPath: `inset(0 ${String(100 - at)}% 0 0)` }}
            />
            <span className="line" style={{ left: `${String(at)}%` }} />
          </div>
          <Slider
            className="no-print"
            aria-label="How much of before"
            value={at}
            onChange={setAt}
            label={null}
            thumbLabel="How much of before"
          />
        </>
      )}
      {!(before && after) && (before ?? after) && (
        <div className="over-each-other">
          <img src={(before ?? after)?.url} alt={`${name} ${before ? 'before' : 'after'}`} />
        </div>
      )}
      {pairs === 0 && (
        <p className="quiet">Take the photo from the same spot both times: then they lie over each other.</p>
      )}
    </section>
  )
}

function Figures({ space, view }: { space: number; view: View }) {
  const tell = useTell()
  const noted = [
    ['pieces', 'Pieces there were'],
    ['floor', `Floor covered, ${view.area_unit}`],
    ['rail', `Rail there was, ${view.length_unit}`],
    ['shelf', `Shelf there was, ${view.length_unit}`],
  ] as const
  const note = (more: Partial<Schemas['BeforeData']>) =>
    void tell(() =>
      api.PUT('/api/spaces/{space_id}/before', {
        params: { path: { space_id: space } },
        body: { ...view.noted, ...more },
      }),
    )
  return (
    <section aria-label="Figures">
      <table className="table figures">
        <thead>
          <tr>
            <th />
            <th>Before</th>
            <th>After</th>
          </tr>
        </thead>
        <tbody>
          {view.figures.map((one) => (
            <tr key={one.name}>
              <th scope="row">{one.name}</th>
              <td>{one.before || '–'}</td>
              <td>{one.after || '–'}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <details className="no-print">
        <summary>Note what was there before</summary>
        <div className="row labels-head">
          {noted.map(([key, label]) => (
            <NumberInput
              key={`${key}${String(view.noted[key])}`}
              size="xs"
              w={140}
              label={label}
              defaultValue={view.noted[key] ?? ''}
              min={0}
              decimalScale={key === 'pieces' ? 0 : 2}
              onBlur={(event) => {
                const text = event.currentTarget.value
                const next = text === '' ? null : Number(text)
                if (next !== (view.noted[key] ?? null) && (next === null || Number.isFinite(next)))
                  note({ [key]: next })
              }}
              onKeyDown={(event) => {
                if (event.key === 'Enter') event.currentTarget.blur()
              }}
            />
          ))}
        </div>
      </details>
      <div className="row no-print">
        <Button
          component="a"
          size="compact-sm"
          variant="default"
          href={`/api/spaces/${String(space)}/before-after.pdf`}
          target="_blank"
        >
          Report (PDF)
        </Button>
      </div>
    </section>
  )
}
