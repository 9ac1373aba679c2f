export type Stage = 'walk' | 'string' | 'space' | 'grade' | 'gates' | 'dig' | 'pour'

export const stages: { id: Stage; name: string }[] = [
  { id: 'walk', name: 'Walk' },
  { id: 'string', name: 'String' },
  { id: 'space', name: 'Space' },
  { id: 'grade', name: 'Grade' },
  { id: 'gates', name: 'Gates' },
  { id: 'dig', name: 'Dig' },
  { id: 'pour', name: 'Pour' },
]
