import { ActionIcon } from '@mantine/core'
import { IconX } from '@tabler/icons-react'

/** The small cross at the end of a row that takes it out; `label` says what goes. */
export function TakeOut({ label, onClick }: { label: string; onClick: () => void }) {
  return (
    <ActionIcon
      size={24}
      variant="subtle"
      color="gray"
      className="no-print"
      aria-label={label}
      onClick={onClick}
    >
      <IconX size={14} />
    </ActionIcon>
  )
}
