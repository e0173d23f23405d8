import { Modal } from '@mantine/core'

const KEYS: readonly (readonly [string, string])[] = [
  ['1 2 3 4 6', 'stages'],
  ['/', 'find anything in the house'],
  ['n', 'next reading, or the call-out line'],
  ['Enter', 'type on a dimension line'],
  ['↑ ↓', 'move the selected part on its pitch'],
  ['Shift ↑ ↓', 'resize a drawer'],
  ['Delete', 'take the selected part out'],
  ['u', 'undo'],
  ['Shift u', 'redo'],
  ['[ ]', 'previous and next alternative'],
  ['c', 'lay the next alternative over this one'],
  ['v', 'swap elevation and plan'],
  ['p', 'print'],
  ['?', 'this list'],
]

export function KeysHelp({ opened, onClose }: { opened: boolean; onClose: () => void }) {
  return (
    <Modal opened={opened} onClose={onClose} title="Keys" size="sm">
      <table className="table">
        <tbody>
          {KEYS.map(([key, what]) => (
            <tr key={key}>
              <th scope="row" style={{ position: 'static', background: 'none' }}>
                <kbd>{key}</kbd>
              </th>
              <td>{what}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Modal>
  )
}
