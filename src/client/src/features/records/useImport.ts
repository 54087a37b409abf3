import { onScopeDispose, ref } from 'vue'
import { useAccount } from '@/app/account'
import { api } from '@/app/api/client'
import { newId } from '@/ui/newId'

/** How often it is asked, in milliseconds. */
const EACH = 500

/** A file on its way in, and how far the server is with it: asked for while the answer to the file itself is still to come. */
export function useImport() {
  const { classId } = useAccount()
  const share = ref<number>()
  let timer: ReturnType<typeof setInterval> | undefined
  const stop = () => clearInterval(timer)

  async function send<T>(call: (query: { import: string }) => Promise<T>): Promise<T> {
    const id = newId()
    share.value = 0
    stop()
    timer = setInterval(async () => {
      const { data } = await api
        .GET('/api/classes/{classId}/records/imports/{id}', { params: { path: { classId: classId.value, id } } })
        .catch(() => ({ data: undefined }))
      // It may be over by now.
      if (data && share.value !== undefined) share.value = Math.max(share.value, data.share)
    }, EACH)
    try {
      return await call({ import: id })
    } finally {
      stop()
      share.value = undefined
    }
  }

  onScopeDispose(stop)
  return { share, send }
}
