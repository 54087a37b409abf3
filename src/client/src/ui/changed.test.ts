import { mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick } from 'vue'
import { Changed } from '@/app/api/client'
import { answerOffer, decide, offer } from './changed'
import ChangedMeanwhile from './ChangedMeanwhile.vue'

const changed = new Changed('The plan has changed since you looked at it.', ['Ines Okonjo, 9:40: a lesson moved.'])
const settled = () => new Promise((r) => setTimeout(r))

describe('a decision on something that another adult has changed', () => {
  beforeEach(() => (offer.value = undefined))

  it('is offered again with the version of now, and says what has changed', async () => {
    let version = 1
    const send = vi.fn(async () => {
      if (version === 1) throw changed
      return `on ${version}`
    })
    const done = decide(send, async () => void (version = 2))
    await settled()
    expect(offer.value).toMatchObject({ changes: ['Ines Okonjo, 9:40: a lesson moved.'] })
    answerOffer(true)
    expect(await done).toBe('on 2')
    expect(send).toHaveBeenCalledTimes(2)
  })

  it('is left when the adult says so', async () => {
    const send = vi.fn().mockRejectedValue(changed)
    const done = decide(send, async () => undefined)
    await settled()
    answerOffer(false)
    expect(await done).toBeUndefined()
    expect(send).toHaveBeenCalledTimes(1)
  })

  it('passes any other refusal on', async () => {
    await expect(
      decide(
        () => Promise.reject(new Error('no')),
        async () => undefined,
      ),
    ).rejects.toThrow('no')
  })

  it('shows the sentence and every change', async () => {
    HTMLDialogElement.prototype.showModal = vi.fn()
    HTMLDialogElement.prototype.close = vi.fn()
    const page = mount(ChangedMeanwhile)
    void decide(vi.fn().mockRejectedValue(changed), async () => undefined)
    await settled()
    await nextTick()
    expect(page.text()).toContain('The plan has changed')
    expect(page.text()).toContain('a lesson moved')
    await page.find('button.main').trigger('click')
  })
})
