export type Stage = 'walk' | 'string' | 'space' | 'grade' | 'dig' | 'pour'

export const stages: { id: Stage; name: string }[] = [
  { id: 'walk', name: 'Walk' },
  { id: 'string', name: 'String' },
  { id: 'space', name: 'Space' },
  { id: 'grade', name: 'Grade' },
  { id: 'dig', name: 'Dig' },
  { id: 'pour', name: 'Pour' },
]
