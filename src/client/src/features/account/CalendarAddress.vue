<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useAccount } from '@/app/account'
import { api, take } from '@/app/api/client'
import { moment } from '@/app/dates'
import { queryKey } from '@/app/keys'
import { t } from '@/app/language'
import { say, sayError } from '@/ui/notices'
import ShownOnce from '@/ui/ShownOnce.vue'

/** The class's lessons in one's own calendar program, by an address that stands for a password. */
const queries = useQueryClient()
const { classId, current } = useAccount()
const path = () => ({ path: { classId: classId.value } })
const key = computed(() => queryKey('calendar-address', classId.value))
const { data: own } = useQuery({
  queryKey: key,
  queryFn: () => take(api.GET('/api/classes/{classId}/calendar/address', { params: path() })),
})
const address = ref<string>()

async function change(deed: Promise<{ address: string } | undefined>) {
  try {
    const made = await deed
    address.value = made && `${location.origin}${made.address}`
    if (!made) say(t('The address opens nothing any more.'))
  } catch (problem) {
    sayError(problem)
  }
  await queries.invalidateQueries({ queryKey: key.value })
}
const make = () => change(take(api.POST('/api/classes/{classId}/calendar/address', { params: path() })))
const withdraw = () =>
  change(take(api.DELETE('/api/classes/{classId}/calendar/address', { params: path() })).then(() => undefined))
</script>

<template>
  <h2>{{ $t('Lessons of {name} in your calendar', { name: current?.name }) }}</h2>
  <p>
    {{
      $t(
        'An address that your calendar program asks by itself: lessons and groups, no child by name. Whoever knows it sees them, so it is yours alone.',
      )
    }}
  </p>
  <ShownOnce
    v-if="address"
    :words="$t('Put it into your calendar program now, as a calendar from the internet. It is shown once.')"
    :what="address"
  />
  <p v-else-if="own?.made" class="soft">{{ $t('You have one, made {moment}.', { moment: moment(own.made) }) }}</p>
  <p class="beside">
    <button type="button" class="button" @click="make">
      {{ own?.made ? $t('A new address in its place') : $t('Make the address') }}
    </button>
    <button v-if="own?.made" type="button" class="button plain" @click="withdraw">{{ $t('Withdraw it') }}</button>
  </p>
</template>
