import { mount } from '@vue/test-utils'
import { defineComponent, h } from 'vue'
import { createMemoryHistory, createRouter } from 'vue-router'
import { describe, expect, it } from 'vitest'
import { freshSeed, useAddress, whole } from './useAddress'

async function opened(address: string) {
  let kept!: ReturnType<typeof useAddress<{ a: string; b: string }>>
  const Mat = defineComponent({
    setup() {
      kept = useAddress({ a: '8', b: '7' })
      return () => h('p', `${kept.at.value.a} and ${kept.at.value.b}`)
    },
  })
  const router = createRouter({ history: createMemoryHistory(), routes: [{ path: '/', component: Mat }] })
  await router.push(address)
  const wrapper = mount(Mat, { global: { plugins: [router] } })
  const settled = () => new Promise((done) => setTimeout(done))
  return { wrapper, router, put: kept.put, settled }
}

describe('what lies on a mat', () => {
  it('is read from the address, the usual where it says nothing', async () => {
    expect((await opened('/?b=5')).wrapper.text()).toBe('8 and 5')
    expect((await opened('/')).wrapper.text()).toBe('8 and 7')
  })

  it('is put into the address without what is usual, and leaves alone what is not its own', async () => {
    const { wrapper, router, put, settled } = await opened('/?b=5&board=1')
    put({ a: '9', b: '7' })
    await settled()
    expect(router.currentRoute.value.query).toEqual({ board: '1', a: '9' })
    expect(wrapper.text()).toBe('9 and 7')
  })
})

describe('a number in an address', () => {
  it('is kept within bounds, and is the usual one where there is none', () => {
    expect(whole('12', 0, 20, 5)).toBe(12)
    expect(whole('99', 0, 20, 5)).toBe(20)
    expect(whole('-3', 0, 20, 5)).toBe(0)
    expect(whole('many', 0, 20, 5)).toBe(5)
  })
})

describe('a seed', () => {
  it('is a short number above nought', () => {
    for (let i = 0; i < 200; i++) expect(freshSeed()).toMatch(/^[1-9]\d{0,4}$/)
  })
})
