import type { Schemas } from '../api/client'

/** The paper in the middle of the page: one or two views, and the title block in its corner. */
export function Sheet({
  title,
  children,
  below,
  hold,
}: {
  title: Schemas['TitleBlock'] | null
  children: React.ReactNode
  /** Between the views and the title block. */
  below?: React.ReactNode
  /** What happens to the pointer over the views. */
  hold?: React.HTMLAttributes<HTMLDivElement> | undefined
}) {
  return (
    <section className="sheet" aria-label="Sheet">
      <div className="views" {...hold}>
        {children}
      </div>
      {below}
      {title && (
        <div className="title-block" aria-label="Title block">
          <div>
            <span>{title.shows}</span>
            <b className="name">{title.space}</b>
          </div>
          <div>
            <span>units</span>
            {title.units}
          </div>
          <div>
            <span>{title.date}</span>
            sheet {title.sheet}
          </div>
          {title.agreed && <div className="agreed">{title.agreed}</div>}
        </div>
      )}
    </section>
  )
}
