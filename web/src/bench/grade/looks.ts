// The looks and the schools of stepping, each with what it costs.
export const looks = [
  { value: 'level', name: 'Level', costs: 'one height; tall posts and daylight at the low end' },
  { value: 'stepped', name: 'Stepped', costs: 'level panels; a triangle under the low end of each' },
  { value: 'raked', name: 'Raked', costs: 'leans with the ground; panels must rack, bumps can show' },
  {
    value: 'rolling',
    name: 'Rolling',
    costs: 'straight over several bays; small dips are filled or bridged',
  },
]

export const stepWays = [
  { value: 'least', name: 'Least gap', costs: 'closest to the ground; every drop differs' },
  {
    value: 'even',
    name: 'Even, by a tight string',
    costs: 'equal drops; more daylight where the ground bends',
  },
  { value: 'gradual', name: 'Gradual', costs: 'drops grow into the slope; no two quite alike' },
  { value: 'round', name: 'Round drops', costs: 'one block sets every drop; a little more gap' },
]
