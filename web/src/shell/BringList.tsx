import { Button, FileButton, Modal, NativeSelect, Textarea } from '@mantine/core'
import { useState } from 'react'

import { said, type Schemas } from '../api/client'

/** What a list gave: how many rows were taken in, and which were not. */
export interface Taken {
  added: number
  faults: Schemas['FaultView'][]
}

/** Bring a spreadsheet: drop, choose or paste it, say which column is what, see what was not understood. */
export function BringList({
  title,
  about,
  sample,
  rows,
  look,
  take,
  onClose,
}: {
  title: string
  about?: string
  /** A few rows as they may be pasted. */
  sample: string
  /** What a row becomes, in the plural: *groups*. */
  rows: string
  look: (form: FormData) => Promise<Schemas['ListPreview']>
  take: (form: FormData) => Promise<Taken>
  onClose: () => void
}) {
  const [source, setSource] = useState<{ file: File | null; text: string }>({ file: null, text: '' })
  const [preview, setPreview] = useState<Schemas['ListPreview'] | null>(null)
  const [meanings, setMeanings] = useState<Record<number, string>>({})
  const [taken, setTaken] = useState<Taken | null>(null)
  const [error, setError] = useState('')
  const [busy, setBusy] = useState(false)
  const attempt = (act: () => Promise<void>) => {
    setBusy(true)
    setError('')
    act()
      .catch((problem: unknown) => setError(said(problem)))
      .finally(() => setBusy(false))
  }
  const form = (next: typeof source, columns?: string) => {
    const data = new FormData()
    if (next.file) data.append('file', next.file)
    data.append('text', next.text)
    if (columns !== undefined) data.append('columns', columns)
    return data
  }
  const lookAt = (next: typeof source) =>
    attempt(async () => {
      setSource(next)
      const found = await look(form(next))
      setPreview(found)
      setMeanings(Object.fromEntries(found.columns.map((column) => [column.number, column.guess ?? ''])))
    })
  const takeIn = () =>
    attempt(async () => {
      const columns = (preview?.columns ?? []).map((column) => meanings[column.number] ?? '').join(',')
      const answer = await take(form(source, columns))
      if (answer.faults.length === 0) onClose()
      else setTaken(answer)
    })
  return (
    <Modal opened onClose={onClose} size="xl" title={title}>
      {!preview && (
        <div
          className="drop"
          onDragOver={(event) => event.preventDefault()}
          onDrop={(event) => {
            event.preventDefault()
            const file = event.dataTransfer.files[0]
            if (file) lookAt({ file, text: '' })
          }}
        >
          {about && <p className="quiet">{about}</p>}
          <p>
            Drop a CSV or XLSX file here, choose it, or paste rows. The first row says what the columns are.
          </p>
          <FileButton
            onChange={(file) => file && lookAt({ file, text: '' })}
            accept=".csv,.xlsx,text/csv"
            inputProps={{ 'aria-label': 'Spreadsheet file' }}
          >
            {(props) => (
              <Button {...props} variant="default" loading={busy}>
                Choose a file
              </Button>
            )}
          </FileButton>
          <Textarea
            label="Or paste rows"
            minRows={4}
            autosize
            maxRows={10}
            placeholder={sample}
            value={source.text}
            onChange={(event) => setSource({ file: null, text: event.currentTarget.value })}
          />
          <Button mt="sm" disabled={!source.text.trim()} loading={busy} onClick={() => lookAt(source)}>
            Look at the rows
          </Button>
        </div>
      )}
      {preview && !taken && (
        <>
          <p className="quiet">
            {preview.rows} rows. Say which column is what; leave out what is not needed.
          </p>
          <div className="list-columns">
            <table className="table">
              <thead>
                <tr>
                  {preview.columns.map((column) => (
                    <th key={column.number}>
                      <NativeSelect
                        size="xs"
                        label={column.header || `column ${column.number + 1}`}
                        value={meanings[column.number] ?? ''}
                        data={[{ value: '', label: 'left out' }, ...preview.meanings]}
                        onChange={(event) => {
                          const { value } = event.currentTarget
                          setMeanings((before) => ({ ...before, [column.number]: value }))
                        }}
                      />
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {(preview.columns[0]?.cells ?? []).map((_, n) => (
                  <tr key={n}>
                    {preview.columns.map((column) => (
                      <td key={column.number}>{column.cells[n]}</td>
                    ))}
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          <Button mt="sm" loading={busy} onClick={takeIn}>
            Take {preview.rows} rows in
          </Button>
        </>
      )}
      {taken && (
        <>
          <p>
            {taken.added} {rows} were taken in; {taken.faults.length} rows were not:
          </p>
          <ul className="faults">
            {taken.faults.slice(0, 50).map((fault) => (
              <li key={fault.row} className="misheard">
                Row {fault.row}: {fault.problem}. {fault.mend}
              </li>
            ))}
          </ul>
          <Button onClick={onClose}>Done</Button>
        </>
      )}
      {error && (
        <p className="misheard" role="alert">
          {error}
        </p>
      )}
    </Modal>
  )
}
