import { ActionIcon } from '@mantine/core'

/** A small button that is a picture, with its name for the pointer and for a reader of the screen. */
export function Tool({
  label,
  onClick,
  disabled,
  children,
}: {
  label: string
  onClick: () => void
  disabled?: boolean
  children: React.ReactNode
}) {
  return (
    <ActionIcon
      variant="default"
      size={28}
      aria-label={label}
      title={label}
      disabled={disabled ?? false}
      onClick={onClick}
    >
      {children}
    </ActionIcon>
  )
}
