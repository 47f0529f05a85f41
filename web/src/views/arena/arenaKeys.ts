// The arena's keys, bound by position; off while a field has the focus.
import { answers, type AnswerWord } from '../../parts/answers'

export interface ArenaActions {
  press: () => void
  letGo: () => void
  tap: (level: number) => void
  tried: () => void
  answer: (word: AnswerWord) => unknown
  arousal: (level: number) => unknown
  side: (word: 'near' | 'off') => void
  release: (when: 'late' | 'wrong moment') => void
  undo: () => unknown
  advice: () => unknown
  more: () => void
  help: () => void
}

const arousals = ['KeyA', 'KeyS', 'KeyD', 'KeyF', 'KeyG']

function inField(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName))
}

function levelOf(code: string): number | undefined {
  const digit = /^(?:Digit|Numpad)(\d)$/.exec(code)?.[1]
  if (digit !== undefined) return Number(digit) || 10
  return code === 'Minus' || code === 'NumpadSubtract' ? 0 : undefined
}

export function arenaKeys(e: KeyboardEvent, act: ArenaActions) {
  if (inField(e.target) || e.ctrlKey || e.metaKey || e.altKey) return
  if (e.code === 'Space') {
    e.preventDefault()
    if (e.type === 'keyup') act.letGo()
    else if (!e.repeat) act.press()
    return
  }
  if (e.type === 'keyup' || e.repeat) return
  const done = () => e.preventDefault()
  const level = levelOf(e.code)
  const answer = answers.find((a) => a.code === e.code)
  const keyed = arousals.indexOf(e.code)
  if (e.key === '?') return (done(), act.help())
  if (level !== undefined) return (done(), act.tap(level))
  if (answer) return (done(), void act.answer(answer.answer))
  if (keyed !== -1) return (done(), void act.arousal(keyed))
  switch (e.code) {
    case 'KeyY':
      return (done(), act.tried())
    case 'KeyN':
      return (done(), act.side('near'))
    case 'KeyO':
      return (done(), act.side('off'))
    case 'KeyL':
      return (done(), act.release('late'))
    case 'KeyM':
      return (done(), act.release('wrong moment'))
    case 'KeyZ':
    case 'Backspace':
      return (done(), void act.undo())
    case 'Period':
      return (done(), void act.advice())
    case 'Slash':
      return (done(), act.more())
  }
}
