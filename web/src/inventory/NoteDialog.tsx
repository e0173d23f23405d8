import { ActionIcon, Button, Modal, NativeSelect, Textarea } from '@mantine/core'
import { IconX } from '@tabler/icons-react'
import { useEffect, useRef, useState } from 'react'

import { api, body, said, type Schemas } from '../api/client'
import { Field } from '../shell/Field'
import { inUnits, type Units } from '../shell/units'

type Thing = Schemas['Thing']
type Kinds = readonly Schemas['KindLine'][]

interface Line {
  said: string
  size: string
  thing: Thing
  /** What it may be: first what it was taken for. */
  options: Kinds
}

const lineOf = (row: Schemas['NoteRowView']): Line => ({
  said: row.said,
  size: row.size,
  thing: row.thing,
  options: [
    { id: row.thing.kind, name: row.thing.kind === 'custom' ? 'of its own' : row.kind_name },
    ...row.others,
  ],
})

/** A thing taken for a kind; a size that was guessed goes with the guess. */
const taken = (line: Line, kind: string): Thing => {
  const guessed = line.thing.unsure === 'size' && kind !== 'custom'
  return { ...line.thing, kind, unsure: '', ...(guessed ? { size: null, mass: null } : {}) }
}

/** A note as it was pasted or dictated, read into rows and put right by the keys. */
export function NoteDialog({
  spaceId,
  people,
  units,
  text,
  onTake,
  onClose,
}: {
  spaceId: number
  people: readonly Schemas['Person'][]
  units: Units
  text: string
  onTake: (things: Thing[]) => Promise<void>
  onClose: () => void
}) {
  const [note, setNote] = useState(text)
  const [lines, setLines] = useState<Line[] | null>(null)
  const [error, setError] = useState('')
  const [busy, setBusy] = useState(false)
  const attempt = (act: () => Promise<void>) => {
    setBusy(true)
    setError('')
    act()
      .catch((problem: unknown) => setError(said(problem)))
      .finally(() => setBusy(false))
  }
  const read = (from: string) =>
    attempt(async () => {
      const found = await body(
        api.POST('/api/spaces/{space_id}/things/note/preview', {
          params: { path: { space_id: spaceId } },
          body: { text: from },
        }),
      )
      if (found.rows.length === 0) setError('The note names no thing. Write what there is, one a line.')
      else setLines(found.rows.map(lineOf))
    })
  const first = useRef(text)
  useEffect(() => {
    if (first.current.trim()) read(first.current)
    first.current = ''
    // Once, with what was pasted.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [])
  const left = lines?.filter(({ thing }) => thing.unsure).length ?? 0
  return (
    <Modal opened onClose={onClose} size="xl" title="Paste a note">
      {lines === null ? (
        <>
          <p className="quiet">
            Paste or dictate what there is, in any shape: one a line, with bullets, with commas. What stands
            under a person&rsquo;s name is theirs.
          </p>
          <Textarea
            label="Note"
            data-autofocus
            minRows={8}
            autosize
            maxRows={16}
            placeholder={`Ada:\n- 14 shirts, daily\n- winter coats (3)\n- ${inUnits(units, '1.2 m', '4 ft')} of books`}
            value={note}
            onChange={(event) => setNote(event.currentTarget.value)}
            onKeyDown={(event) => {
              if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) read(note)
            }}
          />
          <Button mt="sm" disabled={!note.trim()} loading={busy} onClick={() => read(note)}>
            Read it
          </Button>
        </>
      ) : (
        <Rows
          lines={lines}
          people={people}
          onLines={setLines}
          busy={busy}
          left={left}
          onBack={() => setLines(null)}
          onTake={() => attempt(() => onTake(lines.map(({ thing }) => thing)).then(onClose))}
        />
      )}
      {error && (
        <p className="problem" role="alert">
          {error}
        </p>
      )}
    </Modal>
  )
}

function Rows({
  lines,
  people,
  onLines,
  busy,
  left,
  onBack,
  onTake,
}: {
  lines: Line[]
  people: readonly Schemas['Person'][]
  onLines: (lines: Line[]) => void
  busy: boolean
  /** Rows that somebody should look at. */
  left: number
  onBack: () => void
  onTake: () => void
}) {
  const [at, setAt] = useState(0)
  const [digits, setDigits] = useState('')
  const table = useRef<HTMLTableElement>(null)
  const take = useRef<HTMLButtonElement>(null)
  const here = Math.min(at, lines.length - 1)
  useEffect(() => {
    table.current?.querySelector<HTMLElement>(`[data-row="${here}"]`)?.focus()
  }, [here])
  const put = (n: number, thing: Thing) =>
    onLines(lines.map((line, k) => (k === n ? { ...line, thing } : line)))
  const turn = (n: number, by: number) => {
    const line = lines[n]
    if (!line || line.options.length < 2) return
    const now = line.options.findIndex(({ id }) => id === line.thing.kind)
    const next = line.options[(now + by + line.options.length) % line.options.length]
    if (next) put(n, taken(line, next.id))
  }
  const count = (n: number, many: number) => {
    const thing = lines[n]?.thing
    if (thing && many > 0)
      put(n, { ...thing, count: many, unsure: thing.unsure === 'count' ? '' : thing.unsure })
  }
  const move = (n: number) => {
    setDigits('')
    setAt(Math.max(0, Math.min(lines.length - 1, n)))
  }
  const enter = () => {
    const line = lines[here]
    if (line?.thing.unsure) put(here, { ...line.thing, unsure: '' })
    const next = lines.findIndex((one, n) => n > here && one.thing.unsure)
    if (next >= 0) move(next)
    else take.current?.focus()
  }
  const keys = (event: React.KeyboardEvent) => {
    const line = lines[here]
    if (!line || (event.target as HTMLElement).tagName !== 'TR') return
    const acts: Record<string, () => void> = {
      ArrowDown: () => move(here + 1),
      ArrowUp: () => move(here - 1),
      ArrowRight: () => turn(here, 1),
      ArrowLeft: () => turn(here, -1),
      Enter: enter,
      Delete: () => onLines(lines.filter((_, n) => n !== here)),
    }
    const act = acts[event.key]
    if (act) {
      event.preventDefault()
      act()
    } else if (/^\d$/.test(event.key)) {
      const typed = `${digits}${event.key}`.replace(/^0+/, '').slice(0, 4)
      setDigits(typed)
      if (typed) count(here, Number(typed))
    }
  }
  if (lines.length === 0)
    return (
      <div className="empty">
        <p>Every row was taken out.</p>
        <Button variant="default" onClick={onBack}>
          Back to the note
        </Button>
      </div>
    )
  return (
    <>
      <p className="quiet key-hint">
        <kbd>↑</kbd> <kbd>↓</kbd> go from row to row, <kbd>←</kbd> <kbd>→</kbd> take it for something else, a
        number is how many, <kbd>Enter</kbd> says it is right, <kbd>Del</kbd> takes the row out.
      </p>
      <div className="list-columns note-rows">
        <table className="table" ref={table} onKeyDown={keys} aria-label="What was read">
          <thead>
            <tr>
              <th className="n">Count</th>
              <th>As written</th>
              <th>Taken for</th>
              <th>Whose, what for</th>
              <th>Look at</th>
              <th>
                <span className="visually-hidden">Acts</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {lines.map((line, n) => (
              <tr
                key={line.thing.id}
                data-row={n}
                tabIndex={n === here ? 0 : -1}
                aria-current={n === here}
                className={line.thing.unsure ? 'unsure' : ''}
                onFocus={() => n !== here && move(n)}
              >
                <td className="n">
                  <Field
                    label={`Count of ${line.thing.name}`}
                    text={String(line.thing.count)}
                    numeric
                    onKeep={(text) => count(n, Number(text))}
                  />
                </td>
                <td>{line.thing.name}</td>
                <td>
                  {line.options.length > 1 ? (
                    <NativeSelect
                      size="xs"
                      tabIndex={-1}
                      aria-label={`${line.thing.name} taken for`}
                      value={line.thing.kind}
                      data={line.options.map(({ id, name }) => ({ value: id, label: name }))}
                      onChange={(event) => put(n, taken(line, event.currentTarget.value))}
                    />
                  ) : (
                    line.options[0]?.name
                  )}
                </td>
                <td>{whoseAndFor(line.thing, people)}</td>
                <td>{lookAt(line)}</td>
                <td>
                  <ActionIcon
                    size={24}
                    variant="subtle"
                    color="gray"
                    tabIndex={-1}
                    aria-label={`Take out ${line.thing.name}`}
                    onClick={() => onLines(lines.filter((_, k) => k !== n))}
                  >
                    <IconX size={14} />
                  </ActionIcon>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <div className="row" style={{ justifyContent: 'space-between', marginTop: 10 }}>
        <Button variant="default" onClick={onBack}>
          Back to the note
        </Button>
        <span className="quiet">{left ? `${left} to look at` : 'all looked at'}</span>
        <Button ref={take} loading={busy} onClick={onTake}>
          Take {lines.length} {lines.length === 1 ? 'group' : 'groups'} in
        </Button>
      </div>
    </>
  )
}

/** Why a row is to be looked at. */
const lookAt = ({ thing, size }: Line): string =>
  ({ kind: 'a guess', size: `about ${size}?`, count: thing.note || 'how many?', owner: 'whose?' })[
    thing.unsure as string
  ] ?? ''

/** Whose a thing is, and what for. */
const whoseAndFor = (thing: Thing, people: readonly Schemas['Person'][]): string =>
  [people.find(({ id }) => id === thing.owner)?.name, thing.together, thing.label]
    .filter((word, n, all) => word && all.indexOf(word) === n)
    .join(', ')
