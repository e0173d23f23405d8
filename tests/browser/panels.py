"""What is wrong with a panel that is open: out of the window, cut off, over its own words, without labels."""

from playwright.sync_api import Locator

FAULTS = """
(root) => {
  const faults = []
  const slack = 1.5
  const shown = (el) => {
    const box = el.getBoundingClientRect(), style = getComputedStyle(el)
    return box.width > 1 && box.height > 1 && style.visibility !== 'hidden' && style.opacity !== '0' &&
      !el.closest('.visually-hidden, [aria-hidden=true]')
  }
  const name = (el) => {
    const words = (el.getAttribute('aria-label') || el.textContent || el.tagName).trim().replace(/\\s+/g, ' ')
    return `${el.tagName.toLowerCase()} “${words.slice(0, 40)}”`
  }
  const outer = root.getBoundingClientRect()
  if (outer.left < -slack || outer.right > innerWidth + slack || outer.top < -slack || outer.bottom > innerHeight + slack)
    faults.push(`leaves the window: ${[outer.left, outer.top, outer.right, outer.bottom].map(Math.round)}`)

  // Words and controls cut off by what holds them: a box that scrolls that way is meant to.
  const scrolls = (el, way) => ['auto', 'scroll'].includes(getComputedStyle(el)[way])
  const controls = [...root.querySelectorAll('button, input, select, textarea, a, [role=slider], label, h2, h3, p, li, td, th, output')]
    .filter(shown).filter((el) => !(el.matches('input') && el.type === 'hidden'))
  for (const el of controls) {
    const box = el.getBoundingClientRect()
    for (let up = el.parentElement; up; up = up.parentElement) {
      const style = getComputedStyle(up), edge = up.getBoundingClientRect()
      if (style.overflowX !== 'visible' && !scrolls(up, 'overflowX') &&
          (box.left < edge.left - slack || box.right > edge.right + slack)) { faults.push(`cut off sideways: ${name(el)}`); break }
      if (style.overflowY !== 'visible' && !scrolls(up, 'overflowY') &&
          (box.top < edge.top - slack || box.bottom > edge.bottom + slack)) { faults.push(`cut off: ${name(el)}`); break }
      if (up === root) break
    }
    if ((box.left < outer.left - slack || box.right > outer.right + slack) && !el.closest('.things-scroll, .list-columns'))
      faults.push(`over the edge: ${name(el)}`)
  }

  // Words in one line that are wider than their place.
  for (const el of root.querySelectorAll('select, input[type=text], input:not([type])')) {
    if (!shown(el) || !el.matches('select')) continue
    const words = el.options[el.selectedIndex]?.text ?? ''
    const pen = document.createElement('canvas').getContext('2d'), style = getComputedStyle(el)
    pen.font = `${style.fontWeight} ${style.fontSize} ${style.fontFamily}`
    const room = el.clientWidth - parseFloat(style.paddingLeft) - parseFloat(style.paddingRight)
    if (pen.measureText(words).width > room + 2) faults.push(`a select lies over its words: “${words}” in ${name(el)}`)
  }

  // Controls over words or over each other.
  const leaves = controls.filter((el) => el.matches('button, input:not([type=checkbox]), select, textarea'))
  const texts = []
  const walker = document.createTreeWalker(root, NodeFilter.SHOW_TEXT)
  while (walker.nextNode()) {
    const at = walker.currentNode.parentElement
    if (!walker.currentNode.textContent.trim() || !at || !shown(at) || at.closest('svg, option, select')) continue
    const range = document.createRange()
    range.selectNodeContents(walker.currentNode)
    for (const box of range.getClientRects()) if (box.width > 1) texts.push([at, box])
  }
  const covers = (a, b) => Math.min(a.right, b.right) - Math.max(a.left, b.left) > 3 &&
    Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top) > 3
  for (const el of leaves)
    for (const [at, box] of texts)
      if (!el.contains(at) && !at.contains(el) && !at.closest('label')?.contains(el) && covers(el.getBoundingClientRect(), box))
        faults.push(`${name(el)} lies over “${at.textContent.trim().slice(0, 30)}”`)

  // Everything to choose or to type has a name.
  for (const el of root.querySelectorAll('input, select, textarea, [role=slider]')) {
    if (!shown(el) || el.type === 'hidden') continue
    const said = el.getAttribute('aria-label') || el.getAttribute('aria-labelledby') || el.labels?.length
    if (!said && !el.closest('[aria-label]')) faults.push(`without a label: ${name(el)}`)
  }
  return [...new Set(faults)]
}
"""

SHOWS_LABELS = """
(root) => [...root.querySelectorAll('select')].filter((el) => el.offsetWidth && ![...(el.labels ?? [])].some((l) => l.offsetWidth > 4))
  .map((el) => el.getAttribute('aria-label') ?? el.name)
"""
"""Selects whose label cannot be seen."""


def faults(panel: Locator) -> list[str]:
    """Everything that is wrong with an open panel, menu or dialog."""
    found: list[str] = panel.evaluate(FAULTS)
    return found


def unlabelled_selects(panel: Locator) -> list[str]:
    """Selects of a panel that only a screen reader can tell apart."""
    found: list[str] = panel.evaluate(SHOWS_LABELS)
    return found
