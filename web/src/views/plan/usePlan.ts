// The plan of a case: as it stands, and as it would be with other choices,
// which the server works out and nothing keeps until it is made.
import { computed, ref, shallowRef } from 'vue'
import { api, told } from '../../api/client'
import type { Schemas } from '../../api/types'
import { useLoad, useSend } from '../../api/use'

export type PlanView = Schemas['Plan']
export type Choices = Schemas['PlanChoices']
/** Changes a copy of the choices; the plan is then tried with it. */
export type Change = (edit: (c: Choices) => void) => Promise<void>

type Help = Schemas['PlanHelp']

/** Pulls a lever: tries the plan with what it would change. */
export function pull(change: Change, problem: string, h: Help) {
  void change((c) => {
    if (h.visits_per_week) c.visits_per_week = h.visits_per_week
    if (h.homework_per_week) c.homework_per_week = h.homework_per_week
    if (h.until) c.goals = { ...c.goals, [problem]: { ...c.goals?.[problem], until: h.until } }
    if (h.by) c.by = h.by
  })
}

const plain = <T>(v: T): T => JSON.parse(JSON.stringify(v)) as T

export function usePlan(caseId: string) {
  const path = { path: { id: caseId } }
  const kept = useLoad(() => told(api.GET('/api/cases/{id}/plan', { params: path })))
  const tried = shallowRef<PlanView>()
  const trying = useSend()
  const making = useSend()
  const reason = ref('')
  const view = computed(() => tried.value ?? kept.data.value)

  const change: Change = async (edit) => {
    const choices = plain(view.value?.choices ?? {})
    edit(choices)
    const answer = await trying.send(() => told(api.POST('/api/cases/{id}/plan/try', { params: path, body: { choices } })))
    if (answer) tried.value = answer
  }

  function undo() {
    tried.value = undefined
    trying.trouble.value = undefined
  }

  async function make() {
    const first = kept.data.value?.made.length === 0
    const body = {
      reason: reason.value || (first ? 'First plan after the assessment' : ''),
      ...(tried.value ? { choices: tried.value.choices } : {}),
    }
    const answer = await making.send(() => told(api.POST('/api/cases/{id}/plans', { params: path, body })))
    if (!answer) return false
    kept.data.value = answer
    undo()
    reason.value = ''
    return true
  }

  return { kept, view, tried, trying, making, reason, change, undo, make }
}
