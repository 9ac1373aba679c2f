/** A size as people say it. */
export function bytes(n: number): string {
  const units = ['byte', 'kilobyte', 'megabyte', 'gigabyte', 'terabyte']
  let k = 0
  while (n >= 1000 && k < units.length - 1) {
    n /= 1000
    k++
  }
  return new Intl.NumberFormat(undefined, {
    style: 'unit',
    unit: units[k],
    unitDisplay: 'short',
    maximumFractionDigits: n < 10 && k > 0 ? 1 : 0,
  }).format(n)
}
