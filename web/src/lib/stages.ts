export type Stage = 'walk' | 'space' | 'grade' | 'dig' | 'pour'

export const stages: { id: Stage; name: string }[] = [
  { id: 'walk', name: 'Walk' },
  { id: 'space', name: 'Space' },
  { id: 'grade', name: 'Grade' },
  { id: 'dig', name: 'Dig' },
  { id: 'pour', name: 'Pour' },
]
