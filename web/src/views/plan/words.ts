import type { PlanView } from './usePlan'

/** The name of a problem as the server says it. */
export const problemWord = (view: PlanView, problem: string): string =>
  view.problems.find((p) => p.problem === problem)?.name.text ?? problem
