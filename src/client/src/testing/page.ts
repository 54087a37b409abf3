import { VueQueryPlugin } from '@tanstack/vue-query'
import { flushPromises, mount } from '@vue/test-utils'
import type { Component } from 'vue'
import { installPrime } from '@/app/prime'
import { createMemoryHistory, createRouter } from 'vue-router'

/** What was asked of the server in a test, and what it answers: by method and path. */
export interface Call {
  method: string
  path: string
  params: { path?: Record<string, unknown>; query?: Record<string, unknown> }
  body?: unknown
}
export const calls: Call[] = []
const answers = new Map<string, unknown>()
const account = {
  language: 'en-GB',
  signedIn: {
    version: '0.15.0',
    fullName: 'Ines Okonjo',
    id: 1,
    classes: [{ id: 1, name: 'Rowan', role: 'LeadTeacher', school: 'Lantern Hill', leadsSchool: true }],
  },
  today: '2026-11-25',
}

/** What is answered from now on: always the same, or by what is asked; or once it has come. */
export const answer = (method: string, path: string, data: unknown) => answers.set(`${method} ${path}`, data)

const asked =
  (method: string) =>
  (path: string, init: Partial<Call> = {}) => {
    calls.push({ method, path, params: init.params ?? {}, body: init.body })
    const known = path === '/api/account' ? account : answers.get(`${method} ${path}`)
    const data: unknown = typeof known === 'function' ? known(init.params?.path) : known
    return Promise.resolve(data).then((come) => ({ data: come, response: { ok: true, status: 200 } }))
  }

export const fakeApi = {
  GET: asked('GET'),
  PUT: asked('PUT'),
  POST: asked('POST'),
  PATCH: asked('PATCH'),
  DELETE: asked('DELETE'),
}

const names = [
  'today', 'activities', 'activity', 'activity-edit', 'cupboard', 'set-out', 'map', 'week', 'sheets', 'approach', 'class', 'look-again', 'slips',
  'baseline', 'trail', 'records', 'groups', 'groups-ahead', 'groups-after', 'groups-company', 'session', 'clipboard', 'anyone', 'sign-in', 'year', 'term', 'make-plan', 'revise-plan', 'coverage', 'set-up', 'carpet', 'school',
] // prettier-ignore

/** A page at its address, with what it asks for answered. */
export async function openPage(page: Component, path: string, props: Record<string, unknown> = {}) {
  calls.length = 0
  const nothing = { template: '<p />' }
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [
      { path: '/c/:classId/set-out/:day?', name: 'set-out', component: nothing },
      { path: '/c/:classId/activities/:id', name: 'activity', component: nothing },
      { path: '/c/:classId/class/children/:childId', name: 'child', component: nothing },
      { path: '/c/:classId/class/baseline/:checkId', name: 'check', component: nothing },
      { path: '/c/:classId/class/agreement/:sessionId?', name: 'agreement', component: nothing },
      { path: '/c/:classId/activities/:id/change', name: 'activity-edit', component: nothing },
      ...names
        .filter((n) => !['set-out', 'activity', 'activity-edit'].includes(n))
        .map((name) => ({ path: `/c/:classId/${name}/:day?/:sessionId?`, name, component: nothing })),
      { path: '/c/:classId/:rest(.*)*', component: nothing },
      { path: '/:rest(.*)*', component: nothing },
    ],
  })
  await router.push(path)
  const wrapper = mount(page, {
    props,
    global: { plugins: [router, VueQueryPlugin, { install: installPrime }] },
    attachTo: document.body,
  })
  await flushPromises()
  await flushPromises()
  return { wrapper, router }
}
