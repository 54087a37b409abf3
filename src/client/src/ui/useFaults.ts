import { ref } from 'vue'
import { Refused } from '@/app/api/client'
import { sayError } from './notices'

/** What was refused stands at its field; what belongs to no field of the form is said over the page. */
export function useFaults(...fields: string[]) {
  const faults = ref<Record<string, string[]>>({})
  return {
    faults,
    forget: () => (faults.value = {}),
    tell(problem: unknown) {
      faults.value = problem instanceof Refused ? problem.fields : {}
      if (!fields.some((field) => faults.value[field])) sayError(problem)
    },
  }
}
