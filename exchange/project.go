package exchange

import (
	"math"

	"mallow/core/job"
	"mallow/core/length"
)

// The WGS 84 ellipsoid (NIMA TR8350.2).
const (
	semiMajor  = 6378137.0
	flattening = 1 / 298.257223563
	eccentric2 = flattening * (2 - flattening)
)

// local projects places on earth onto the plane that touches the ellipsoid at
// an origin: x east, y north. A kilometre from the origin distances are right
// to a hundredth of a millimetre; at ten, to 12 mm.
type local struct {
	sinLat, cosLat, sinLon, cosLon float64
	x, y, z                        float64 // origin, metres from the earth's centre
	origin                         job.Place
}

func around(origin job.Place) local {
	l := local{origin: origin}
	l.sinLat, l.cosLat = math.Sincos(origin.Latitude * math.Pi / 180)
	l.sinLon, l.cosLon = math.Sincos(origin.Longitude * math.Pi / 180)
	l.x, l.y, l.z = geocentric(origin)
	return l
}

// geocentric is a place in metres from the earth's centre.
func geocentric(p job.Place) (x, y, z float64) {
	sinLat, cosLat := math.Sincos(p.Latitude * math.Pi / 180)
	sinLon, cosLon := math.Sincos(p.Longitude * math.Pi / 180)
	n := semiMajor / math.Sqrt(1-eccentric2*sinLat*sinLat)
	return n * cosLat * cosLon, n * cosLat * sinLon, n * (1 - eccentric2) * sinLat
}

// metres is a place on the plane, east and north of the origin.
func (l local) metres(p job.Place) (east, north float64) {
	x, y, z := geocentric(p)
	dx, dy, dz := x-l.x, y-l.y, z-l.z
	east = -l.sinLon*dx + l.cosLon*dy
	north = -l.sinLat*l.cosLon*dx - l.sinLat*l.sinLon*dy + l.cosLat*dz
	return east, north
}

// place is where on earth a point of the plane lies: Newton's method on
// metres, whose derivatives are the radii of curvature.
func (l local) place(east, north float64) job.Place {
	p := l.origin
	w := 1 - eccentric2*l.sinLat*l.sinLat
	meridian, vertical := semiMajor*(1-eccentric2)/math.Pow(w, 1.5), semiMajor/math.Sqrt(w)
	for range 8 {
		e, n := l.metres(p)
		p.Latitude += (north - n) / meridian * 180 / math.Pi
		p.Longitude += (east - e) / (vertical * math.Max(l.cosLat, 1e-6)) * 180 / math.Pi
	}
	return p
}

// farthest is how far, in metres, a geographic file may reach from its first
// point, and that from the map's zero: a fence line, not a journey.
const farthest = 5000.0

// project lays geographic points on the map: around its zero, where that has a
// place on earth, or else around the first point.
func (f *Found) project(zero *job.Place) error {
	if len(f.Points) == 0 {
		return nil
	}
	first := f.Points[0].place
	origin := first
	if zero != nil {
		origin = *zero
		if far := apart(origin, first); far > farthest {
			return Refuse("The file's first point, %s, lies %.0f km from where this job is on earth. Take it into a job of its own.", placeText(first), far/1000)
		}
	}
	f.Origin = &origin
	l := around(origin)
	kept := f.Points[:0]
	for _, p := range f.Points {
		if apart(first, p.place) > farthest {
			f.bad(p.Row, placeText(p.place), "more than %g km from the first point", farthest/1000)
			continue
		}
		east, north := l.metres(p.place)
		p.X, p.Y = length.Length(east*1000), length.Length(north*1000)
		kept = append(kept, p)
	}
	f.Points = kept
	return nil
}

// apart is the straight distance between two places, metres.
func apart(a, b job.Place) float64 {
	x, y, z := geocentric(a)
	u, v, w := geocentric(b)
	return math.Hypot(math.Hypot(x-u, y-v), z-w)
}
