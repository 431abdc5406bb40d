/**
 * Text in a drawing is never smaller than twelve pixels: where a screen is too narrow for that, the drawing keeps the
 * width that its text needs and is moved along inside its own frame, instead of shrinking.
 */
import type { Directive } from 'vue'

const LEAST_PX = 12

/** Width that a drawing needs so that its smallest text is legible, from sizes in its own units. [px] */
export function neededWidth(viewWidth: number, smallestText: number): number {
  return smallestText > 0 ? Math.ceil((viewWidth * LEAST_PX) / smallestText) : 0
}

/** Widths of the drawings that were held wide, in their own units: one that is drawn anew is held so no longer. */
const heldAt = new WeakMap<SVGSVGElement, number>()
const watched = new WeakMap<SVGSVGElement, ResizeObserver>()

/** Sizes of its texts: of those that are marked alike one is asked, a drawing has hundreds. */
function sizesOf(svg: SVGSVGElement): number[] {
  const one = new Map<string, Element>()
  for (const text of svg.querySelectorAll('text, tspan')) {
    let marks = ''
    for (let at: Element | null = text; at && at !== svg; at = at.parentElement)
      marks += `${at.getAttribute('class')} ${at.getAttribute('font-size')} ${at.getAttribute('style')}|`
    one.set(marks, text)
  }
  return [...one.values()].map((text) => parseFloat(getComputedStyle(text).fontSize))
}

function fit(svg: SVGSVGElement): void {
  const box = svg.viewBox.baseVal
  const sizes = sizesOf(svg)
  if (!box || box.width === 0 || sizes.length === 0) return
  if (heldAt.has(svg) && heldAt.get(svg) !== box.width) {
    heldAt.delete(svg)
    svg.style.minWidth = svg.style.minHeight = svg.style.maxHeight = ''
  }
  const width = neededWidth(box.width, Math.min(...sizes))
  const frame = svg.parentElement
  const scale = svg.getBoundingClientRect().width / box.width
  const height = svg.getBoundingClientRect().height / box.height
  if (Math.min(scale, height) >= width / box.width - 0.001) return
  heldAt.set(svg, box.width)
  svg.style.minWidth = `${width}px`
  svg.style.minHeight = `${(width * box.height) / box.width}px`
  svg.style.maxHeight = 'none'
  if (frame) {
    frame.style.overflowX = 'auto'
    frame.style.minWidth = '0'
    frame.tabIndex = 0
  }
}

export const legible: Directive<SVGSVGElement> = {
  mounted(svg) {
    const observer = new ResizeObserver(() => fit(svg))
    observer.observe(svg)
    watched.set(svg, observer)
    fit(svg)
  },
  updated: fit,
  unmounted(svg) {
    watched.get(svg)?.disconnect()
  },
}
