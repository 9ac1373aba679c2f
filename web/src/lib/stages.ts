import * as msg from '../gen/messages'
export type Stage =
  'walk' | 'string' | 'space' | 'grade' | 'gates' | 'dig' | 'pour' | 'build' | 'days' | 'log'

export const stages: { id: Stage; name: string }[] = [
  { id: 'walk', name: msg.stages_walk },
  { id: 'string', name: msg.common_string },
  { id: 'space', name: msg.stages_space },
  { id: 'grade', name: msg.stages_grade },
  { id: 'gates', name: msg.common_gates },
  { id: 'dig', name: msg.common_dig },
  { id: 'pour', name: msg.stages_pour },
  { id: 'build', name: msg.stages_build },
  { id: 'days', name: msg.stages_days },
  { id: 'log', name: msg.stages_log },
]
