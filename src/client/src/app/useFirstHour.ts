import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { useAccount } from '@/app/account'
import { api, take, type Schemas } from '@/app/api/client'
import { queryKey } from '@/app/keys'
import { sayError } from '@/ui/notices'

/** The first hour of a class: what is done of it, and getting on with it. Nobody but its lead teacher is asked. */
export function useFirstHour() {
  const router = useRouter()
  const queries = useQueryClient()
  const { classId, leads } = useAccount()
  const path = () => ({ classId: classId.value })
  const { data: view } = useQuery({
    queryKey: queryKey('first-hour', classId),
    queryFn: () => take(api.GET('/api/classes/{classId}/first-hour', { params: { path: path() } })),
    enabled: leads,
  })
  const going = computed(() => view.value?.over === false)

  async function decide(call: Promise<unknown>) {
    try {
      await call
      await queries.invalidateQueries()
    } catch (problem) {
      sayError(problem)
    }
  }
  const settle = (step: Schemas['FirstStep'], later: boolean) =>
    decide(
      take(
        api.PUT('/api/classes/{classId}/first-hour/steps/{step}', {
          params: { path: { ...path(), step } },
          body: { later },
        }),
      ),
    )
  const takeHolidays = (holidays: string[]) =>
    decide(
      take(api.PUT('/api/classes/{classId}/first-hour/timetable', { params: { path: path() }, body: { holidays } })),
    )
  const end = () => decide(take(api.DELETE('/api/classes/{classId}/first-hour', { params: { path: path() } })))
  watch(
    () => going.value && view.value!.steps.every((s) => s.state === 'Done'),
    (all) => all && end(),
    { immediate: true },
  )

  // Told before it is known whether the hour is over, it is kept in mind.
  const opened = ref(false)
  const firstCardOpened = () => (opened.value = true)
  watch(
    () => opened.value && going.value && view.value!.steps.some((s) => s.step === 'Card' && s.state !== 'Done'),
    (first) => first && settle('Card', false),
    { immediate: true },
  )

  /** Back to where the next step waits, or on to where one goes otherwise. */
  const goOn = (otherwise: string) =>
    router.push({ name: going.value ? 'today' : otherwise, params: { classId: classId.value } })

  return { view, going, settle, takeHolidays, end, firstCardOpened, goOn }
}
