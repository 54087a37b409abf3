import type { HubConnection } from '@microsoft/signalr'
import { onBeforeUnmount, onMounted, watch, type Ref } from 'vue'

/** What another adult has just recorded, as the server tells it. */
export interface JustSeen {
  id: string
  childId: number
  skill: string
  support: 'Alone' | 'Prompted' | 'Together' | 'NotYet'
  numbers: string | null
  sessionId: number | null
  adultId: number
  by: string
}

/** Hears what is recorded in the class while the page is open. Without a network it is silent, and comes back by itself. */
export function useLive(classId: Ref<number>, heard: { seen?(seen: JustSeen): void; withdrawn?(id: string): void }) {
  let connection: HubConnection | undefined
  let left = false
  async function connect() {
    const { HubConnectionBuilder, LogLevel } = await import('@microsoft/signalr')
    if (left) return
    connection = new HubConnectionBuilder()
      .withUrl('/live')
      .withAutomaticReconnect({ nextRetryDelayInMilliseconds: () => 3000 })
      .configureLogging(LogLevel.None)
      .build()
    connection.on('seen', (seen: JustSeen) => heard.seen?.(seen))
    connection.on('withdrawn', (id: string) => heard.withdrawn?.(id))
    connection.onreconnected(() => connection?.invoke('Watch', classId.value))
    await start()
  }
  async function start() {
    try {
      await connection?.start()
      await connection?.invoke('Watch', classId.value)
    } catch {
      if (!left) setTimeout(() => void start(), 5000)
    }
  }
  const tell = (what: 'Tapped' | 'Undone', about: JustSeen | string) =>
    void connection?.invoke(what, classId.value, about).catch(() => undefined)
  onMounted(() => void connect())
  watch(classId, (id) => void connection?.invoke('Watch', id).catch(() => undefined))
  onBeforeUnmount(() => {
    left = true
    void connection?.stop()
  })
  return {
    /** A tap waits before it is sent; the others hear of it at once. */
    tapped: (tap: JustSeen) => tell('Tapped', tap),
    undone: (id: string) => tell('Undone', id),
  }
}
