// What choices are called on screen.
const names: Record<string, string> = {
  none: 'no share',
  quarter: 'a quarter',
  third: 'a third',
  half: 'a half',
  fill: 'fill low ground',
  cut: 'cut high ground',
  both: 'half and half',
  level: 'level',
  stepped: 'stepped',
  raked: 'raked',
  face: 'on the faces',
  off: 'just off the faces',
  'stand-off': 'stand-off',
  sight: 'by sight',
}

export function choiceName(choice: string): string {
  return names[choice] ?? choice.replace(/^(\d+)(lb|kg)$/, '$1 $2 bag')
}

export const kindName: Record<string, string> = { end: 'end', corner: 'corner', gate: 'gate', line: 'line' }
