import type { Directive, DirectiveBinding, VNode } from 'vue'
import Tooltip from 'primevue/tooltip'

type Hooks = 'created' | 'beforeMount' | 'mounted' | 'updated' | 'unmounted'
const library = Tooltip as unknown as Record<
  Hooks,
  ((el: HTMLElement, binding: DirectiveBinding, vnode: VNode, before: VNode | null) => void) | undefined
>
const asleep = new WeakMap<HTMLElement, { binding: DirectiveBinding; vnode: VNode }>()

/**
 * The library's tooltip, for a pointer, for a finger and for whoever comes by keyboard (the library takes either the pointer or the focus). It is bound when it is
 * first asked for: the map has 150, the grid a hundred, and to bind them all is most of a second before the page is there.
 */
export const tooltip: Directive<HTMLElement, string> = {
  mounted(el, binding, vnode) {
    asleep.set(el, { binding, vnode })
    const show = () => {
      const now = asleep.get(el)
      if (now) {
        asleep.delete(el)
        for (const hook of ['created', 'beforeMount', 'mounted'] as const)
          library[hook]?.(el, now.binding, now.vnode, null)
      }
      el.dispatchEvent(new MouseEvent('mouseenter'))
    }
    const hide = () => el.dispatchEvent(new MouseEvent('mouseleave'))
    el.addEventListener('mouseenter', () => asleep.has(el) && show())
    el.addEventListener('focus', () => el.matches(':focus-visible') && show())
    el.addEventListener('blur', hide)
    // After a tap it stays until something else is touched.
    el.addEventListener('click', (event) => {
      if ((event as PointerEvent).pointerType !== 'touch') return
      setTimeout(show)
      document.addEventListener('pointerdown', hide, { once: true, capture: true })
    })
  },
  updated(el, binding, vnode, before) {
    if (asleep.has(el)) asleep.set(el, { binding, vnode })
    else library.updated?.(el, binding, vnode, before)
  },
  unmounted(el, binding, vnode, before) {
    if (!asleep.delete(el)) library.unmounted?.(el, binding, vnode, before)
  },
}
