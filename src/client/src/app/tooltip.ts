import type { Directive } from 'vue'

const GAP = 6
const said = new WeakMap<HTMLElement, string>()
let label: HTMLElement | undefined

function show(el: HTMLElement) {
  const words = said.get(el)
  if (!words) return
  label ??= Object.assign(document.createElement('div'), { className: 'tooltip', role: 'tooltip' })
  label.textContent = words
  document.body.append(label)
  const [at, own] = [el.getBoundingClientRect(), label.getBoundingClientRect()]
  const above = at.top - own.height - GAP
  label.style.left = `${Math.max(GAP, Math.min(innerWidth - own.width - GAP, at.left + (at.width - own.width) / 2))}px`
  label.style.top = `${above < GAP ? at.bottom + GAP : above}px`
}
const hide = () => label?.remove()

/**
 * A few words about what is pointed at, come to by keyboard, or tapped. One label serves the whole page; the library's, of which each place has its own, takes either the
 * pointer or the focus, writes styles into the page that its policy refuses, and kept the map with its 150 beads waiting for most of a second.
 */
export const tooltip: Directive<HTMLElement, string> = {
  mounted(el, { value }) {
    said.set(el, value)
    el.addEventListener('mouseenter', () => show(el))
    el.addEventListener('mouseleave', hide)
    el.addEventListener('focus', () => el.matches(':focus-visible') && show(el))
    el.addEventListener('blur', hide)
    el.addEventListener('keydown', (event) => event.key === 'Escape' && hide())
    el.addEventListener('click', (event) => {
      if ((event as PointerEvent).pointerType !== 'touch') return hide()
      // After a tap it stays until something else is touched.
      setTimeout(() => show(el))
      document.addEventListener('pointerdown', hide, { once: true, capture: true })
    })
  },
  updated: (el, { value }) => void said.set(el, value),
  unmounted: hide,
}
