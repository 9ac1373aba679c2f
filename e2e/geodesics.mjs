// Writes exchange/testdata/geodesics.json: places and the distance between
// them on the WGS 84 ellipsoid, by a reference geodesic library. With --check
// it fails when the file is not what the library says.
import { readFileSync, writeFileSync } from 'node:fs'
import geodesic from 'geographiclib-geodesic'

const out = new URL('../exchange/testdata/geodesics.json', import.meta.url)
let seed = 20261125
const random = () => (seed = (seed * 48271) % 2147483647) / 2147483647
const earth = geodesic.Geodesic.WGS84
const pairs = []
for (const reach of [30, 300, 1000, 5000]) {
  for (let i = 0; i < 25; i++) {
    const from = { latitude: -75 + 150 * random(), longitude: -180 + 360 * random() }
    const to = earth.Direct(from.latitude, from.longitude, 360 * random(), reach * (0.5 + 0.5 * random()))
    const g = earth.Inverse(from.latitude, from.longitude, to.lat2, to.lon2)
    pairs.push({ from, to: { latitude: to.lat2, longitude: to.lon2 }, metres: g.s12, bearing: (g.azi1 + 360) % 360 })
  }
}
const text = JSON.stringify(pairs, null, 1) + '\n'
if (process.argv.includes('--check')) {
  if (readFileSync(out, 'utf8') !== text) {
    console.error('exchange/testdata/geodesics.json is not what the geodesic library says: run node geodesics.mjs')
    process.exit(1)
  }
} else writeFileSync(out, text)
