import type { QueryClient } from '@tanstack/vue-query'
import { createRouter, createWebHistory, type RouteRecordRaw } from 'vue-router'
import { accountQuery } from './account'

// Each place is loaded when it is first opened, so that the clipboard stays small.
const places: RouteRecordRaw[] = [
  { path: 'today/:day?', name: 'today', component: () => import('@/features/today/TodayPage.vue') },
  {
    path: 'plan/:day(\\d{4}-\\d{2}-\\d{2})?',
    name: 'week',
    component: () => import('@/features/week/WeekPage.vue'),
  },
  { path: 'plan/year', name: 'year', component: () => import('@/features/planning/StringPage.vue') },
  {
    path: 'plan/term/:day(\\d{4}-\\d{2}-\\d{2})?',
    name: 'term',
    component: () => import('@/features/planning/StringPage.vue'),
  },
  { path: 'plan/make', name: 'make-plan', component: () => import('@/features/planning/MakePage.vue') },
  { path: 'plan/revise', name: 'revise-plan', component: () => import('@/features/planning/RevisePage.vue') },
  { path: 'plan/coverage', name: 'coverage', component: () => import('@/features/planning/CoveragePage.vue') },
  {
    path: 'class',
    name: 'class',
    component: () => import('@/features/class-grid/GridPage.vue'),
  },
  {
    path: 'class/children/:childId(\\d+)',
    name: 'child',
    component: () => import('@/features/child-page/ChildPage.vue'),
  },
  { path: 'class/look-again', name: 'look-again', component: () => import('@/features/noticing/LookAgainPage.vue') },
  { path: 'class/slips', name: 'slips', component: () => import('@/features/noticing/SlipsPage.vue') },
  { path: 'class/baseline', name: 'baseline', component: () => import('@/features/baseline/ChecksPage.vue') },
  {
    path: 'class/baseline/:checkId(\\d+)',
    name: 'check',
    component: () => import('@/features/baseline/CheckPage.vue'),
  },
  { path: 'class/trail', name: 'trail', component: () => import('@/features/trail/TrailPage.vue') },
  { path: 'class/records', name: 'records', component: () => import('@/features/records/RecordsPage.vue') },
  {
    path: 'class/agreement/:sessionId(\\d+)?',
    name: 'agreement',
    component: () => import('@/features/agreement/AgreementPage.vue'),
  },
  {
    path: 'groups/:day(\\d{4}-\\d{2}-\\d{2})?',
    name: 'groups',
    component: () => import('@/features/groups/GroupsPage.vue'),
  },
  {
    path: 'groups/ahead/:day?',
    name: 'groups-ahead',
    component: () => import('@/features/groups/AheadPage.vue'),
  },
  {
    path: 'groups/after/:day?',
    name: 'groups-after',
    component: () => import('@/features/groups/AfterPage.vue'),
  },
  {
    path: 'groups/company/:day?',
    name: 'groups-company',
    component: () => import('@/features/groups/CompanyPage.vue'),
  },
  {
    path: 'clipboard/:day(\\d{4}-\\d{2}-\\d{2})?',
    name: 'clipboard',
    component: () => import('@/features/clipboard/SessionsPage.vue'),
  },
  {
    path: 'clipboard/session/:sessionId',
    name: 'record',
    component: () => import('@/features/clipboard/RecordPage.vue'),
  },
  { path: 'clipboard/anyone', name: 'anyone', component: () => import('@/features/clipboard/AnyonePage.vue') },
  { path: 'sessions/:sessionId', name: 'session', component: () => import('@/features/sessions/CardPage.vue') },
  { path: 'carpet/:day', name: 'carpet', component: () => import('@/features/sessions/CardPage.vue') },
  { path: 'mats', name: 'mats', component: () => import('@/features/mats/MatsPage.vue') },
  { path: 'mats/:desk/:kind?', name: 'mat', component: () => import('@/features/mats/MatPage.vue') },
  { path: 'jar', name: 'jar', component: () => import('@/features/guess-jar/JarPage.vue') },
  { path: 'sheets', name: 'sheets', component: () => import('@/features/sheets/SheetsPage.vue') },
  { path: 'thoughts', name: 'thoughts', component: () => import('@/features/thoughts/ThoughtsPage.vue') },
  { path: 'map', name: 'map', component: () => import('@/features/skill-maps/MapPage.vue') },
  { path: 'activities', name: 'activities', component: () => import('@/features/activities/LibraryPage.vue') },
  { path: 'activities/:id', name: 'activity', component: () => import('@/features/activities/ActivityPage.vue') },
  {
    path: 'activities/:id/change',
    name: 'activity-edit',
    component: () => import('@/features/activities/EditPage.vue'),
  },
  { path: 'cupboard', name: 'cupboard', component: () => import('@/features/cupboard/CupboardPage.vue') },
  { path: 'set-out/:day?', name: 'set-out', component: () => import('@/features/cupboard/SetOutPage.vue') },
  { path: 'set-up/approach', name: 'approach', component: () => import('@/features/class-approach/ApproachPage.vue') },
  { path: 'set-up', name: 'set-up', component: () => import('@/features/set-up/SetUpPage.vue') },
  { path: 'school', name: 'school', component: () => import('@/features/whole-school/SchoolPage.vue') },
  {
    path: 'school/children',
    name: 'school-children',
    component: () => import('@/features/whole-school/ChildrenPage.vue'),
  },
  { path: 'school/roster', name: 'school-roster', component: () => import('@/features/whole-school/RosterPage.vue') },
  { path: 'account', name: 'account', component: () => import('@/features/account/AccountPage.vue') },
  {
    path: 'set-up/class-list',
    name: 'class-list',
    component: () => import('@/features/class-list/ImportPage.vue'),
  },
]

// What is opened with a child at one's sleeve, or before anyone is known, does without the library; everything else has it.
const lean = new Set([
  'clipboard',
  'record',
  'anyone',
  'sign-in',
  'home',
  'nowhere',
  'new-password',
  'lost-password',
  'post',
])
// Open to whoever is not signed in.
const open = new Set(['nowhere', 'new-password', 'lost-password', 'post'])

export function makeRouter(queries: QueryClient, loadPrime: () => Promise<void>) {
  const router = createRouter({
    history: createWebHistory(),
    routes: [
      { path: '/', name: 'home', redirect: '/sign-in' },
      { path: '/sign-in', name: 'sign-in', component: () => import('@/features/account/SignInPage.vue') },
      {
        path: '/new-password',
        name: 'new-password',
        component: () => import('@/features/account/NewPasswordPage.vue'),
      },
      {
        path: '/lost-password',
        name: 'lost-password',
        component: () => import('@/features/account/LostPasswordPage.vue'),
      },
      { path: '/post', name: 'post', component: () => import('@/features/post/PostPage.vue') },
      {
        path: '/school',
        component: () => import('@/features/whole-school/SchoolDoor.vue'),
        children: [
          { path: '', name: 'school-door', component: () => import('@/features/whole-school/SchoolPage.vue') },
          {
            path: 'children',
            name: 'school-door-children',
            component: () => import('@/features/whole-school/ChildrenPage.vue'),
          },
          {
            path: 'roster',
            name: 'school-door-roster',
            component: () => import('@/features/whole-school/RosterPage.vue'),
          },
        ],
      },
      { path: '/c/:classId(\\d+)', component: () => import('./AppShell.vue'), children: places },
      { path: '/:rest(.*)*', name: 'nowhere', component: () => import('./NowherePage.vue') },
    ],
    scrollBehavior: (_to, _from, saved) => saved ?? { top: 0 },
  })

  router.beforeEach(async (to) => {
    const { signedIn } = await queries.fetchQuery(accountQuery)
    const first = signedIn?.classes[0]
    if (to.name === 'sign-in' && first) return { name: 'today', params: { classId: first.id } }
    if (to.name === 'sign-in') return signedIn?.leads ? { name: 'school-door' } : true
    if (!signedIn && !open.has(String(to.name))) return { name: 'sign-in', query: { back: to.fullPath } }
    if (to.params.classId && !signedIn?.classes.some((c) => c.id === Number(to.params.classId)))
      return { name: 'nowhere', params: { rest: ['no-class'] } }
    return true
  })
  router.beforeResolve(async (to) => {
    if (!lean.has(String(to.name))) await loadPrime()
  })
  return router
}
