"""What is wrong with a panel that is open: out of the window, cut off, over its own words, without labels."""

from playwright.sync_api import Locator

FAULTS = """
(root) => {
  const faults = [], slack = 1.5
  const name = (el) => {
    const words = (el.getAttribute('aria-label') || el.textContent || el.tagName).trim().replace(/\\s+/g, ' ')
    return `${el.tagName.toLowerCase()} “${words.slice(0, 40)}”`
  }
  const scrolls = (el, way) => ['auto', 'scroll'].includes(getComputedStyle(el)[way])
  const meet = (a, b) => ({left: Math.max(a.left, b.left), right: Math.min(a.right, b.right),
                           top: Math.max(a.top, b.top), bottom: Math.min(a.bottom, b.bottom)})
  // What of a box can be seen: what a scrolling holder has moved out of sight is not lost.
  const seen = (el, box) => {
    for (let up = el; up && up !== root.parentElement; up = up.parentElement)
      if (scrolls(up, 'overflowY') || scrolls(up, 'overflowX')) box = meet(box, up.getBoundingClientRect())
    return box
  }
  const shown = (el) => {
    const box = seen(el, el.getBoundingClientRect()), style = getComputedStyle(el)
    return box.right - box.left > 1 && box.bottom - box.top > 1 && style.visibility !== 'hidden' &&
      style.opacity !== '0' && !el.closest('.visually-hidden, [aria-hidden=true]')
  }

  const outer = root.getBoundingClientRect()
  const sides = [outer.left, outer.top, outer.right, outer.bottom]
  if (outer.left < -slack || outer.right > innerWidth + slack || outer.top < -slack ||
      outer.bottom > innerHeight + slack) faults.push(`leaves the window: ${sides.map(Math.round)}`)

  // Words and controls cut off by what holds them; sideways, nothing in a panel is to be scrolled for.
  const kinds = 'button, input, select, textarea, a, [role=slider], label, h2, h3, p, li, td, th, output'
  const controls = [...root.querySelectorAll(kinds)].filter(shown).filter((el) => el.type !== 'hidden')
  for (const el of controls) {
    const box = el.getBoundingClientRect()
    for (let up = el.parentElement; up; up = up.parentElement) {
      const style = getComputedStyle(up), edge = up.getBoundingClientRect()
      const aside = box.left < edge.left - slack || box.right > edge.right + slack
      const above = box.top < edge.top - slack || box.bottom > edge.bottom + slack
      if (style.overflowX !== 'visible' && aside && !up.matches('[data-scrolls-sideways]')) {
        faults.push(`cut off sideways: ${name(el)}`); break
      }
      if (style.overflowY !== 'visible' && above && !scrolls(up, 'overflowY')) {
        faults.push(`cut off: ${name(el)}`); break
      }
      if (up === root) break
    }
    if (box.left < outer.left - slack || box.right > outer.right + slack)
      if (!el.closest('[data-scrolls-sideways]')) faults.push(`over the edge: ${name(el)}`)
  }

  // A choice that is wider than its field.
  for (const el of root.querySelectorAll('select')) {
    if (!shown(el)) continue
    const words = el.options[el.selectedIndex]?.text ?? ''
    const pen = document.createElement('canvas').getContext('2d'), style = getComputedStyle(el)
    pen.font = `${style.fontWeight} ${style.fontSize} ${style.fontFamily}`
    const room = el.clientWidth - parseFloat(style.paddingLeft) - parseFloat(style.paddingRight)
    if (pen.measureText(words).width > room + 2) faults.push(`wider than its field: “${words}” in ${name(el)}`)
  }

  // Controls over words that are not theirs.
  const texts = []
  const walker = document.createTreeWalker(root, NodeFilter.SHOW_TEXT)
  while (walker.nextNode()) {
    const at = walker.currentNode.parentElement
    if (!walker.currentNode.textContent.trim() || !at || !shown(at) || at.closest('svg, option, select')) continue
    const range = document.createRange()
    range.selectNodeContents(walker.currentNode)
    for (const box of range.getClientRects()) if (box.width > 1) texts.push([at, seen(at, box)])
  }
  const over = (a, b) => {
    const both = meet(a, b)
    return both.right - both.left > 3 && both.bottom - both.top > 3
  }
  const stuck = (el) => {
    for (let up = el; up && up !== root; up = up.parentElement)
      if (getComputedStyle(up).position === 'sticky') return true
    return false
  }
  for (const el of controls.filter((el) => el.matches('button, input:not([type=checkbox]), select, textarea'))) {
    const box = seen(el, el.getBoundingClientRect())
    for (const [at, words] of texts) {
      const own = el.contains(at) || at.contains(el) || at.closest('label')?.contains(el) || stuck(at) !== stuck(el)
      if (!own && over(box, words)) faults.push(`${name(el)} lies over “${at.textContent.trim().slice(0, 30)}”`)
    }
  }

  // Everything to choose or to type has a name.
  for (const el of root.querySelectorAll('input, select, textarea, [role=slider]')) {
    if (!shown(el) || el.type === 'hidden') continue
    const said = el.getAttribute('aria-label') || el.getAttribute('aria-labelledby') || el.labels?.length
    if (!said && !el.closest('[aria-label]')) faults.push(`without a label: ${name(el)}`)
  }
  return [...new Set(faults)]
}
"""

UNLABELLED = """
(root) => [...root.querySelectorAll('select')]
  .filter((el) => el.offsetWidth && ![...(el.labels ?? [])].some((label) => label.offsetWidth > 4))
  .map((el) => el.getAttribute('aria-label') ?? el.name)
"""


def faults(panel: Locator) -> list[str]:
    """Everything that is wrong with an open panel, menu or dialog."""
    found: list[str] = panel.evaluate(FAULTS)
    return found


def unlabelled_selects(panel: Locator) -> list[str]:
    """Selects of a panel whose label only a screen reader can tell."""
    found: list[str] = panel.evaluate(UNLABELLED)
    return found
