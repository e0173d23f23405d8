import { Modal } from '@mantine/core'

const KEYS: readonly (readonly [string, string])[] = [
  ['1 2 3 4 6', 'stages'],
  ['/', 'find anything in the house'],
  ['n', 'next reading, or the call-out line'],
  ['Enter', 'type on a dimension line'],
  ['↑ ↓', 'move the selected part on its pitch'],
  ['Shift ↑ ↓', 'resize a drawer'],
  ['Shift ← →', 'make the selected bay narrower or wider'],
  ['t', 'take up what the selected part holds; arrows choose where, Enter lets go'],
  ['Delete', 'take the selected part out'],
  ['u', 'undo'],
  ['Shift u', 'redo'],
  ['[ ]', 'previous and next alternative'],
  ['c', 'lay the next alternative over this one'],
  ['v', 'swap elevation and plan'],
  ['+ − 0', 'nearer, further, all of the drawing'],
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
