// Readiness before a session: what is said at the gate, what the rules on this
// device say of it, and the beginning, with a signal or without one.
import { useDebounceFn } from '@vueuse/core'
import { v7 } from 'uuid'
import { computed, reactive, ref, shallowRef, watch } from 'vue'
import { api, told, Trouble } from '../../api/client'
import type { Schemas } from '../../api/types'
import { isLead, me } from '../../api/me'
import { useLoad, useSend } from '../../api/use'
import type { Outbox } from '../../offline/outbox'
import { theRules, type Verdict } from '../../rules/rules'
import { localDate } from '../../words'
import { keptKey, type ArenaSession } from './useArena'

type Readiness = Schemas['ArenaReadiness']
/** A signal that takes longer to begin a session is taken for none. */
const patience = 5000

export function useSessionStart(caseId: string, box: Outbox) {
  const params = { path: { id: caseId } }
  const rules = theRules()
  const openHere = ref('')
  /** What can be begun with, and what stands against it. */
  const asks = shallowRef<Schemas['ArenaChoice'][]>([])
  const { data, trouble, load } = useLoad(async () => {
    const view = await told(api.GET('/api/cases/{id}/session-start', { params }))
    await rules.read(view.stage.catalog, async () => (await told(api.GET('/api/catalog'))).catalog)
    asks.value = (await rules.ask('asks', { brief: view.stage.brief, words: view.words })).asks
    openHere.value = view.open_session ?? (await unended(await box.setting<string>(`begun ${caseId}`)))
    return view
  })

  /** A session begun on this device that nobody has ended, and the server may
   * not know of yet. */
  async function unended(id?: string) {
    const kept = id ? await box.of(`session/${id}`) : []
    const begins = id ? await box.waiting(`start/${caseId}/${id}`) : []
    const open = kept.length + begins.length > 0 && !kept.some((k) => k.entry.kind === 'end')
    return open && id ? id : ''
  }

  const ready = reactive({
    arousal: undefined as number | undefined,
    handler: '' as Readiness['handler'],
    tack: false,
    body: undefined as boolean | undefined,
    alone: false,
    weather: '',
    stop: '' as Readiness['stop'],
    settled: '' as Readiness['settled'],
    noPen: false,
    holder: '',
    trailer: '',
    step: '',
  })
  const id = v7()
  const verdict = shallowRef<Verdict>()
  const starting = useSend()

  const missing = computed(() =>
    [
      ready.arousal === undefined && 'how the horse is',
      !ready.handler && 'how the handler is',
      ready.body === undefined && 'the body',
    ].filter(Boolean),
  )
  const holder = computed(() => ready.holder || (data.value?.handlers[0]?.id ?? ''))
  /** Whether it is asked how soon the horse settled, whatever else is said yet. */
  const asksSettling = ref(false)
  const may = computed(() => verdict.value?.may === true && !!verdict.value.ask && missing.value.length === 0)

  const readiness = (): Readiness => ({
    arousal: ready.arousal ?? null,
    handler: ready.handler,
    tack: ready.tack,
    body: ready.body ?? false,
    alone: ready.alone,
    weather: ready.weather || undefined,
    stop: ready.stop || undefined,
    settled: ready.settled || undefined,
    no_pen: ready.noPen || undefined,
    trailer: ready.trailer || undefined,
    ask: ready.step ? asks.value.find((a) => a.ask.step === ready.step)?.ask : undefined,
  })

  const ask = useDebounceFn(async () => {
    const view = data.value
    if (!view) return
    const said = await rules.ask('gate', {
      brief: view.stage.brief,
      today: localDate(Date.now()),
      readiness: readiness(),
      lead: isLead.value,
      words: view.words,
    })
    asksSettling.value = said.settles === true
    verdict.value = missing.value.length ? undefined : said
  }, 50)
  watch([ready, data], () => void ask())

  /** Begins the session and tells its id, or nothing where it may not. */
  const begin = () =>
    starting.send(async () => {
      const body = {
        id,
        started_at: Date.now(),
        zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
        handler: holder.value,
        readiness: readiness(),
      }
      try {
        await told(api.POST('/api/cases/{id}/sessions', { params, body, signal: AbortSignal.timeout(patience) }))
      } catch (error) {
        if (!(error instanceof Trouble) || error.status !== 0) throw error
        await beginHere(body)
      }
      return id
    })

  /** Without a signal: the session stands on this device, and goes with the rest. */
  async function beginHere(body: Omit<Schemas['StartInputBody'], 'begun'>) {
    const view = data.value
    const begun = verdict.value?.ask
    if (!view || !begun) return
    const session: ArenaSession = {
      ...view.stage,
      id,
      weather: ready.weather,
      days_off: view.days_off,
      date: localDate(body.started_at),
      handlers: view.handlers,
      beginning: {
        ask: begun,
        started: body.started_at,
        handler: holder.value || me.value?.id,
        readiness: body.readiness,
      },
      rules: view.rules,
      words: view.words,
      track: [],
    }
    await box.keep(keptKey(id), session)
    await box.keep(`begun ${caseId}`, id)
    await box.begin(`start/${caseId}/${id}`, { ...body, begun })
  }

  return { data, trouble, load, asks, ready, missing, holder, asksSettling, verdict, may, starting, openHere, begin }
}
