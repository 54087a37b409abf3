import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, onUnmounted, ref, shallowRef, watch, type Ref } from 'vue'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take, type Schemas } from '@/app/api/client'
import { useWeek } from '@/app/week'
import { say, sayError } from '@/ui/notices'
import { askOf, chosenOf, moveChild, noLocks, placeOf, within, type Chosen, type Locks, type View } from './board'
import { t } from '@/app/language'

type Child = { id: number; name: string }

export type Board = ReturnType<typeof useBoard>

/**
 * The board of one part of a week: sets of groups beside each other, what is locked, who is held; all that is asked of the server for it.
 * @param number of the part, from 1
 * @param accepted the groups that stand in the week, all parts
 * @param besides groups as they lie on the board of the other part; undefined where nothing lies there
 */
export function useBoard(number: number, accepted: Ref<View | undefined>, besides: () => Chosen[] | undefined) {
  const queries = useQueryClient()
  const { classId } = useAccount()
  const { monday, path } = useWeek()
  const part = computed(() => accepted.value?.parts.find((p) => p.number === number))
  const stands = computed(() => accepted.value && part.value && within(accepted.value, part.value))

  // A proposal belongs to the week it was asked for.
  const sets = ref<{ name: string; view: View }[]>([])
  const current = ref(0)
  const compared = ref<number>()
  const locks = ref<Locks>(noLocks())
  const moved = ref(false)
  const proposal = computed(() => sets.value[current.value]?.view)
  const shown = computed(() => proposal.value ?? stands.value)
  function putAway() {
    stopLooking()
    sets.value = []
    locks.value = noLocks()
    lay()
  }
  watch([monday, classId], putAway)

  // What is being held, and said about it, belongs to the set that lies there.
  function lay(place = 0) {
    current.value = place
    compared.value = undefined
    moved.value = false
    void pick(undefined)
  }
  watch(current, () => pick(undefined))
  const asked = () => ({ ...askOf(proposal.value, locks.value), part: number, beside: besides() ?? null })
  const question = () => ({ ask: asked(), groups: chosenOf(proposal.value!) })
  const tell = { onError: sayError }

  const ask = useMutation({
    mutationFn: (beside: Chosen[] | void) =>
      take(
        api.POST('/api/classes/{classId}/weeks/{day}/groups/proposal', {
          params: { path: path.value },
          body: beside ? { ...asked(), beside } : asked(),
        }),
      ),
    onSuccess: (view) => {
      stopLooking()
      sets.value = [{ name: t('Best'), view }]
      lay()
    },
    ...tell,
  })

  const others = useMutation({
    mutationFn: () =>
      take(
        api.POST('/api/classes/{classId}/weeks/{day}/groups/others', {
          params: { path: path.value },
          body: question(),
        }),
      ),
    onSuccess: (found) => {
      sets.value = [
        sets.value[current.value]!,
        ...found.sets.map((view, i) => ({ name: t('Other {a}', { a: i + 1 }), view })),
      ]
      lay()
      if (found.sentence) say(found.sentence)
    },
    ...tell,
  })

  /** What if a child were away all week: a set beside the one that lies there. */
  const without = useMutation({
    mutationFn: (child: Child) =>
      take(
        api.POST('/api/classes/{classId}/weeks/{day}/groups/proposal', {
          params: { path: path.value },
          body: { ...asked(), without: [child.id] },
        }),
      ),
    onSuccess: (view, child) => {
      sets.value = [...sets.value, { name: t('Without {name}', { name: child.name }), view }]
      const before = current.value
      lay(sets.value.length - 1)
      compared.value = view.groups.length ? before : undefined
    },
    ...tell,
  })

  // Accepted groups can be changed as well: they are laid out again as a proposal.
  function change() {
    if (!stands.value) return
    sets.value = [{ name: t('As accepted'), view: { ...stands.value, verdict: t('As accepted.') } }]
    lay()
  }

  // A child is picked up: the price of every other table is asked for at once, before anything is put down.
  const picked = ref<Child>()
  const prices = ref<Schemas['PriceView'][]>([])
  const why = shallowRef<{ place: string; answer?: Schemas['WhyNotView'] }>()
  async function pick(child: Child | undefined) {
    prices.value = []
    why.value = undefined
    picked.value = picked.value?.id === child?.id ? undefined : child
    const held = picked.value
    if (!held || !proposal.value) return
    try {
      const found = await take(
        api.POST('/api/classes/{classId}/weeks/{day}/groups/prices', {
          params: { path: path.value },
          body: { ...question(), childId: held.id },
        }),
      )
      if (picked.value === held) prices.value = found
    } catch (problem) {
      sayError(problem)
    }
  }

  // Tables that were held already are not counted by the core: its indices run over the others.
  const open = computed(() => (shown.value?.groups ?? []).filter((g) => !g.run).map((g) => placeOf(g.slot)))
  const priceAt = (place: string) => prices.value.find((p) => p.to !== null && open.value[p.to] === place)

  function put(place: string | null) {
    const child = picked.value
    if (!child || !proposal.value) return
    const to = place === null ? null : open.value.indexOf(place)
    const price = prices.value.find((p) => p.to === to)
    const view = moveChild(proposal.value, child, to, price?.reason ?? t('Put here by hand.'))
    sets.value = sets.value.map((s, i) => (i === current.value ? { ...s, view } : s))
    moved.value = true

    // Who was put somewhere by hand stays there when groups are asked for again; against the rules only the whole group can stay.
    const seats = { ...locks.value.seats }
    delete seats[child.id]
    const against = Boolean(price?.breaks.length) && place !== null
    if (place !== null && !against) seats[child.id] = place
    const kept = against ? [...locks.value.kept.filter((k) => k !== place), place] : locks.value.kept
    locks.value = { ...locks.value, seats, kept }
    void pick(undefined)
  }

  async function askWhy(slot: Schemas['GroupSlotView']) {
    const held = picked.value
    if (!held) return
    // It may take a few seconds: that it is being worked out stands there at once.
    const place = placeOf(slot)
    const asking = { place }
    why.value = asking
    try {
      const answer = await take(
        api.POST('/api/classes/{classId}/weeks/{day}/groups/why-not', {
          params: { path: path.value },
          body: { ...question(), childId: held.id, slotId: slot.slotId, day: slot.day },
        }),
      )
      if (why.value === asking) why.value = { place, answer }
    } catch (problem) {
      if (why.value === asking) why.value = undefined
      sayError(problem)
    }
  }

  function takeWhy() {
    const instead = why.value?.answer?.instead
    if (!instead || !picked.value) return
    const child = picked.value.name
    const before = current.value
    sets.value = [...sets.value, { name: t('{child} there', { child }), view: instead }]
    lay(sets.value.length - 1)
    compared.value = before
  }

  // A longer search in the background, asked after until it has ended.
  const search = ref('')
  const searchPath = () => ({ params: { path: { classId: classId.value, id: search.value } } })
  const { data: looking, error: lost } = useQuery({
    queryKey: queryKey('groups-better', classId, search),
    queryFn: () => take(api.GET('/api/classes/{classId}/groups/better/{id}', searchPath())),
    enabled: computed(() => search.value !== ''),
    refetchInterval: 500,
  })
  const lookOn = useMutation({
    mutationFn: () =>
      take(
        api.POST('/api/classes/{classId}/weeks/{day}/groups/better', {
          params: { path: path.value },
          body: question(),
        }),
      ),
    onSuccess: (begun) => {
      queries.setQueryData(queryKey('groups-better', classId.value, begun.id), begun)
      search.value = begun.id
    },
    ...tell,
  })
  watch(looking, (now) => {
    if (!now || now.state === 'Working') return
    search.value = ''
    const view = now.groups
    if (!view) return
    sets.value = sets.value.map((s, i) => (i === current.value ? { ...s, view } : s))
    lay(current.value)
  })
  watch(lost, (problem) => {
    if (!problem) return
    search.value = ''
    sayError(problem)
  })
  function stopLooking() {
    if (search.value) void api.DELETE('/api/classes/{classId}/groups/better/{id}', searchPath())
    search.value = ''
  }
  onUnmounted(stopLooking)

  return {
    part, stands, sets, current, compared, proposal, shown, locks, moved, picked, prices, why, looking,
    ask, others, without, change, putAway, pick, put, priceAt, askWhy, takeWhy, lookOn, stopLooking,
  } // prettier-ignore
}
