package exchange_test

import (
	"encoding/json"
	"errors"
	"fmt"
	"math"
	"math/rand/v2"
	"os"
	"strings"
	"testing"

	"mallow/catalog"
	"mallow/core/document"
	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/plan"
	"mallow/exchange"
)

var metric = exchange.Options{System: length.Metric}

func read(t *testing.T, name, text string, opt exchange.Options) exchange.Found {
	t.Helper()
	f, err := exchange.Read(name, []byte(text), opt)
	if err != nil {
		t.Fatalf("%s: %v", name, err)
	}
	return f
}

// Distances of projected places against a reference geodesic library: the
// vectors are its own (made by e2e/geodesics.mjs).
func TestDistancesAgainstAGeodesicLibrary(t *testing.T) {
	raw, err := os.ReadFile("testdata/geodesics.json")
	if err != nil {
		t.Fatal(err)
	}
	var pairs []struct {
		From, To        job.Place
		Metres, Bearing float64
	}
	if err := json.Unmarshal(raw, &pairs); err != nil || len(pairs) < 100 {
		t.Fatal(err, len(pairs))
	}
	worst := 0.0
	for _, p := range pairs {
		file := fmt.Sprintf(`{"type":"LineString","coordinates":[[%.15f,%.15f],[%.15f,%.15f]]}`, p.From.Longitude, p.From.Latitude, p.To.Longitude, p.To.Latitude)
		f := read(t, "a.geojson", file, metric)
		d := f.Points[1]
		got := math.Hypot(float64(d.X), float64(d.Y)) / 1000
		bearing := math.Mod(math.Atan2(float64(d.X), float64(d.Y))*180/math.Pi+360, 360)
		turn := math.Abs(math.Mod(bearing-p.Bearing+540, 360) - 180)
		worst = max(worst, math.Abs(got-p.Metres)/p.Metres)
		// A millionth at 5 km and a tenth of a millimetre close by; across the line a millimetre in a kilometre.
		if math.Abs(got-p.Metres) > 1e-4+2e-7*p.Metres || turn*math.Pi/180*p.Metres > 1e-3+1e-6*p.Metres {
			t.Errorf("%v to %v: %.5f m at %.6f°, the library has %.5f at %.6f°", p.From, p.To, got, bearing, p.Metres, p.Bearing)
		}
	}
	t.Logf("worst: %.1e of the distance", worst)
}

// planned is a job with a random line, known on earth, and its plan.
func planned(t testing.TB, rng *rand.Rand, sys length.System) (job.Job, plan.Plan) {
	t.Helper()
	cat, err := catalog.Load()
	if err != nil {
		t.Fatal(err)
	}
	j := document.New("Random", sys, cat)
	like, bearing := j.Lines[0].Runs[0], rng.Float64()*360
	l := job.Line{ID: "L1", Bearing: &bearing, X: 3000, Y: -800}
	j.Site.Place = &job.Place{Latitude: -60 + 120*rng.Float64(), Longitude: -180 + 360*rng.Float64()}
	n := 1 + rng.IntN(5)
	height := 40.0
	for r := range n {
		run := like
		run.ID = fmt.Sprintf("R%d", r+1)
		span := length.Length(4000 + rng.Float64()*40000)
		run.Length = &span
		if r > 0 {
			run.Corner = &job.Corner{By: job.ByDeflection, Side: []job.Side{job.Left, job.Right}[rng.IntN(2)], Angle: 3 + rng.Float64()*100}
		}
		for i := range 5 {
			if i > 0 {
				height += rng.NormFloat64() * 200
			}
			run.Ground = append(run.Ground, job.GroundPoint{At: span * length.Length(i) / 4, Height: length.Length(height)})
		}
		l.Runs = append(l.Runs, run)
	}
	j.Lines = []job.Line{l}
	if errs := document.Check(j); len(errs) > 0 {
		t.Fatal(errs)
	}
	return j, plan.Make(j, cat)
}

func builder(j job.Job) exchange.Build {
	n := 0
	return exchange.Build{Off: 150, Like: j.Lines[0].Runs[0], ID: func() string { n++; return fmt.Sprintf("R%d", n) }}
}

// What is written and read again is the same line: lengths, turns, heights,
// and where it starts.
func TestWrittenAndReadAgainIsTheSameLine(t *testing.T) {
	rng := rand.New(rand.NewPCG(9, 9))
	cat, _ := catalog.Load()
	for n := range 120 {
		j, p := planned(t, rng, []length.System{length.Metric, length.Imperial}[n%2])
		for _, write := range []func() (exchange.Written, error){
			func() (exchange.Written, error) { return exchange.LineCSV(p, 0) },
			func() (exchange.Written, error) { return exchange.LineGPX(p, j, 0) },
			func() (exchange.Written, error) { return exchange.LineGeoJSON(p, j, 0) },
		} {
			file, err := write()
			if err != nil {
				t.Fatal(err)
			}
			f := read(t, file.Name, string(file.Data), exchange.Options{System: j.Units.System, Origin: j.Site.Place})
			built, err := f.Line(builder(j))
			if err != nil || f.BadCount > 0 || len(built.Line.Runs) != len(j.Lines[0].Runs) {
				t.Fatalf("%s: %v, bad %v, %d runs of %d", file.Name, err, f.Bad, len(built.Line.Runs), len(j.Lines[0].Runs))
			}
			again := j
			again.Lines = []job.Line{built.Line}
			again.Lines[0].ID = "L1"
			if errs := document.Check(again); len(errs) > 0 {
				t.Fatalf("%s makes a line that is refused: %v", file.Name, errs)
			}
			q := plan.Make(again, cat)
			for r := range p.Runs {
				a, b := p.Runs[r], q.Runs[r]
				if (a.Length-b.Length).Abs() > 0.02 || len(a.Ground) != len(b.Ground) {
					t.Fatalf("%s: run %d is %v with %d heights, was %v with %d", file.Name, r+1, b.Length, len(b.Ground), a.Length, len(a.Ground))
				}
				for i := range a.Ground {
					if (a.Ground[i].At-b.Ground[i].At).Abs() > 0.02 || (a.Ground[i].Height-b.Ground[i].Height).Abs() > 0.002 {
						t.Fatalf("%s: run %d, height %d: %+v, was %+v", file.Name, r+1, i, b.Ground[i], a.Ground[i])
					}
				}
				if a.From.To(b.From) > 0.02 || a.To.To(b.To) > 0.02 {
					t.Fatalf("%s: run %d lies at %v to %v, was at %v to %v", file.Name, r+1, b.From, b.To, a.From, a.To)
				}
				if turn := math.Mod(a.Bearing-b.Bearing+540, 360) - 180; math.Abs(turn) > 1e-3 {
					t.Fatalf("%s: run %d bears %v, was %v", file.Name, r+1, b.Bearing, a.Bearing)
				}
			}
			if q.Totals.Posts != p.Totals.Posts || q.Totals.Bags != p.Totals.Bags {
				t.Fatalf("%s: %d posts, %d bags; were %d, %d", file.Name, q.Totals.Posts, q.Totals.Bags, p.Totals.Posts, p.Totals.Bags)
			}
		}
		ground, err := exchange.RunCSV(p, 0)
		if err != nil {
			t.Fatal(err)
		}
		points, _, err := read(t, "ground.csv", string(ground.Data), exchange.Options{System: j.Units.System}).Ground(p.Runs[0].Length)
		if err != nil || len(points) != 5 || (points[2].Height-p.Runs[0].Ground[2].Height).Abs() > 0.001 {
			t.Fatalf("ground: %v, %v", points, err)
		}
	}
}

// The ways in which crews and surveyors write files.
func TestCSVIsReadAsItIsWritten(t *testing.T) {
	for _, c := range []struct {
		what, text string
		shape      exchange.Shape
		x, height  length.Length // of the second point
		understood string
	}{
		{"no header, metres", "0,0\n10.5,0.25\n", exchange.Profile, 10500, 250, "station in metres"},
		{"header with units", "Station (ft),Height (in)\n0,0\n10,3\n", exchange.Profile, 3048, 76.2, "station in feet"},
		{"tape notation", "station,height\n0,0\n8' 6 1/2\",-2 1/2in\n", exchange.Profile, 2603.5, -63.5, "station"},
		{"decimal commas", "Chainage;Level\n0;0\n2,5;-0,31\n", exchange.Profile, 2500, -310, "station in metres"},
		{"tabs", "x\ty\tz\n0\t0\t1\n3\t4\t2\n", exchange.Plan, 3000, 2000, "x (east) and y (north) in metres"},
		{"other order", "name,northing,easting,elevation\nA,0,0,1\nB,4,3,2\n", exchange.Plan, 3000, 2000, "x (east)"},
		{"a byte order mark and quotes", "\ufeff\"station\",\"height\"\r\n\"0\",\"0\"\r\n\"1\",\"0.1\"\r\n", exchange.Profile, 1000, 100, "station"},
		{"degrees", "lat,lon,ele\n0,0,1\n0,0.001,2\n", exchange.Plan, 111319.4908, 2000, "degrees"},
	} {
		f := read(t, "a.csv", c.text, metric)
		if f.Shape != c.shape || len(f.Points) != 2 || (f.Points[1].X-c.x).Abs() > 0.001 || f.Points[1].Height == nil || !length.Same(*f.Points[1].Height, c.height) || !strings.Contains(strings.Join(f.Understood, "; "), c.understood) {
			t.Errorf("%s: %+v", c.what, f)
		}
	}
}

// Bad rows are listed with their lines; the good ones are kept.
func TestBadRowsAreListedAndGoodOnesKept(t *testing.T) {
	f := read(t, "a.csv", "station,height\n0,0\n5,abc\n\n10,0.2\n-3,0\n10,0.4\n12\n15,NaN\n1e300,0\n20,0.1\n", metric)
	var lines []string
	for _, b := range f.Bad {
		lines = append(lines, fmt.Sprint(b.Row))
	}
	if len(f.Points) != 3 || strings.Join(lines, " ") != "3 6 8 9 10 7" || f.BadCount != 6 {
		t.Errorf("%d points, bad rows %v: %+v", len(f.Points), lines, f.Bad)
	}
	f = read(t, "a.gpx", "<gpx>\n<trk><trkseg>\n<trkpt lat=\"1\" lon=\"2\"><ele>5</ele></trkpt>\n<trkpt lat=\"91\" lon=\"2\"/>\n<trkpt lat=\"x\" lon=\"2\"/>\n<trkpt lat=\"1.0001\" lon=\"2\"><ele>high</ele></trkpt>\n<trkpt lat=\"1.001\" lon=\"2\"><ele>6</ele></trkpt>\n<trkpt lat=\"40\" lon=\"2\"/>\n</trkseg></trk></gpx>", metric)
	if len(f.Points) != 2 || f.BadCount != 4 || f.Bad[0].Row != 4 || f.Bad[2].Row != 6 || f.Bad[3].Row != 8 {
		t.Errorf("%d points, %+v", len(f.Points), f.Bad)
	}
	f = read(t, "a.geojson", "{\"type\":\"Feature\",\"geometry\":{\"type\":\"LineString\",\"coordinates\":[\n[2,1],\n[2],\n[\"a\",1],\n[2.001,1,7]]}}", metric)
	if len(f.Points) != 2 || f.BadCount != 2 || f.Bad[0].Row != 3 || f.Bad[1].Row != 4 {
		t.Errorf("%d points, %+v", len(f.Points), f.Bad)
	}
}

func TestFilesThatCannotBeUsedSayWhy(t *testing.T) {
	for _, c := range []struct{ name, text, why string }{
		{"a.csv", "  \n", "empty"},
		{"a.csv", "colour,mood\nred,fine\n", "are not known"},
		{"a.csv", "1,2,3,4\n5,6,7,8\n", "no header"},
		{"a.csv", "height,x\n1,2\n", "height, x only"},
		{"a.csv", "x,east,y\n1,2,3\n", "both a x"},
		{"a.csv", "5\n6\n", "one column"},
		{"a.gpx", "<kml></kml>", "begins with <kml>"},
		{"a.gpx", "<gpx><trk>", "not sound GPX"},
		{"a.gpx", "<gpx></gpx>", "no track"},
		{"a.geojson", `{"type":"Topology"}`, "not GeoJSON"},
		{"a.geojson", `{"a":1}`, "without a type"},
		{"a.geojson", `{"type":"MultiLineString","coordinates":[]}`, "MultiLineString"},
		{"a.geojson", `{"type":`, "not sound GeoJSON"},
		{"a.geojson", strings.Repeat(`{"type":"GeometryCollection","geometries":[`, 40) + strings.Repeat("]}", 40), "nested"},
		{"a.csv", "station,height\n" + strings.Repeat("1,1\n", 20300), "more than"},
	} {
		_, err := exchange.Read(c.name, []byte(c.text), metric)
		var file exchange.FileError
		if !errors.As(err, &file) || !strings.Contains(file.Why, c.why) {
			t.Errorf("%.30q: got %v, want %q", c.text, err, c.why)
		}
	}
	far := exchange.Options{System: length.Metric, Origin: &job.Place{Latitude: 10, Longitude: 10}}
	if _, err := exchange.Read("a.csv", []byte("lat,lon\n10.5,10\n10.6,10\n"), far); err == nil || !strings.Contains(err.Error(), "55 km from where this job is") {
		t.Errorf("a file from elsewhere: %v", err)
	}
	one := read(t, "a.csv", "x,y\n1,1\n", metric)
	if _, err := one.Line(exchange.Build{}); err == nil {
		t.Error("a line of one point")
	}
	heap := read(t, "a.csv", "x,y\n1,1\n1,1.1\n1.1,1\n", metric)
	if _, err := heap.Line(builder(job.Job{Lines: []job.Line{{Runs: []job.Run{{}}}}})); err == nil || !strings.Contains(err.Error(), "no line") {
		t.Errorf("a heap of points: %v", err)
	}
}

// A track has its corners found: a yard walked round with a wandering hand
// comes to its four sides, closed, within what was allowed.
func TestCornersOfATrack(t *testing.T) {
	rng := rand.New(rand.NewPCG(4, 2))
	corners := [][2]float64{{0, 0}, {30, 2}, {28, 22}, {-3, 18}, {0, 0}}
	var b strings.Builder
	b.WriteString("x,y,z\n")
	for k := range 4 {
		for i := range 40 {
			part := float64(i) / 40
			x := corners[k][0] + (corners[k+1][0]-corners[k][0])*part
			y := corners[k][1] + (corners[k+1][1]-corners[k][1])*part
			if i > 0 {
				x, y = x+rng.NormFloat64()*0.02, y+rng.NormFloat64()*0.02
			}
			fmt.Fprintf(&b, "%.4f,%.4f,%.4f\n", x, y, 100+0.02*x)
		}
	}
	b.WriteString("0,0,100\n")
	built, err := read(t, "a.csv", b.String(), metric).Line(builder(job.Job{Lines: []job.Line{{Runs: []job.Run{{}}}}}))
	if err != nil || len(built.Line.Runs) != 4 || !built.Line.Closed {
		t.Fatalf("%v: %d runs, closed %v", err, len(built.Line.Runs), built.Line.Closed)
	}
	for k, want := range []float64{math.Hypot(30, 2), math.Hypot(2, 20), math.Hypot(31, 4), math.Hypot(3, 18)} {
		if got := built.Line.Runs[k].Length.Metres(); math.Abs(got-want) > 0.15 {
			t.Errorf("side %d: %.3f m, want %.3f", k+1, got, want)
		}
	}
	if g := built.Line.Runs[0].Ground; len(g) < 30 || !length.Same(g[0].Height, 100000) {
		t.Errorf("ground %v", g)
	}
}

func track(n int) []byte {
	var b strings.Builder
	b.WriteString(`<?xml version="1.0"?><gpx version="1.1"><trk><name>t</name><trkseg>`)
	rng := rand.New(rand.NewPCG(1, 2))
	for i := range n {
		a := 2 * math.Pi * float64(i) / float64(n)
		fmt.Fprintf(&b, "<trkpt lat=\"%.8f\" lon=\"%.8f\"><ele>%.2f</ele><time>2026-01-01T00:00:00Z</time></trkpt>\n",
			50+0.001*math.Sin(a)+1e-7*rng.NormFloat64(), 8+0.001*math.Cos(a)+1e-7*rng.NormFloat64(), 300+5*math.Sin(3*a)+0.05*rng.NormFloat64())
	}
	b.WriteString("</trkseg></trk></gpx>")
	return []byte(b.String())
}

// Ten thousand points, from the file to a line.
func BenchmarkGPX10000(b *testing.B) {
	data := track(10000)
	b.SetBytes(int64(len(data)))
	for b.Loop() {
		f, err := exchange.Read("a.gpx", data, metric)
		if err != nil || len(f.Points) != 10000 {
			b.Fatal(err)
		}
		if _, err := f.Line(builder(job.Job{Lines: []job.Line{{Runs: []job.Run{{}}}}})); err != nil {
			b.Fatal(err)
		}
	}
}

// sound checks what must hold of anything that was read.
func sound(t *testing.T, name string, data []byte) {
	f, err := exchange.Read(name, data, metric)
	if err != nil {
		var file exchange.FileError
		if !errors.As(err, &file) || file.Why == "" {
			t.Fatalf("an error that says nothing to its reader: %v", err)
		}
		return
	}
	for _, p := range f.Points {
		if p.Row < 1 || math.IsNaN(float64(p.X+p.Y)) || math.IsInf(float64(p.X+p.Y), 0) {
			t.Fatalf("%+v", p)
		}
	}
	if f.BadCount < len(f.Bad) {
		t.Fatalf("%d bad rows, %d listed", f.BadCount, len(f.Bad))
	}
	if f.Shape == exchange.Profile {
		if ground, _, err := f.Ground(1e6); err == nil {
			run := job.Run{ID: "R1", Length: new(length.Length), Ground: ground}
			*run.Length = 1e6
			for i, g := range ground {
				if i > 0 && g.At <= ground[i-1].At || g.At < 0 || g.At > 1e6 {
					t.Fatalf("ground out of order: %v", ground)
				}
			}
		}
		return
	}
	built, err := f.Line(builder(job.Job{Lines: []job.Line{{Runs: []job.Run{{}}}}}))
	if err != nil {
		return
	}
	for _, r := range built.Line.Runs {
		if !(*r.Length >= 300) || math.IsInf(float64(*r.Length), 0) {
			t.Fatalf("a run of %v", *r.Length)
		}
		for i, g := range r.Ground {
			if i > 0 && g.At <= r.Ground[i-1].At || g.At < 0 || g.At > *r.Length || math.IsNaN(float64(g.Height)) {
				t.Fatalf("ground of a run out of order: %v", r.Ground)
			}
		}
	}
}

func FuzzCSV(f *testing.F) {
	for _, s := range []string{"station,height\n0,0\n5,1\n", "x;y;z\n1,5;2;3\n9;9;9\n", "lat,lon\n1,1\n1.001,1\n", "\"a\n", "1\t2\n3\t4"} {
		f.Add([]byte(s))
	}
	f.Fuzz(func(t *testing.T, data []byte) { sound(t, "a.csv", data) })
}

func FuzzGPX(f *testing.F) {
	f.Add(track(5))
	f.Add([]byte(`<gpx><rte><rtept lat="1" lon="2"/><rtept lat="1.01" lon="2"><type>corner</type></rtept></rte></gpx>`))
	f.Fuzz(func(t *testing.T, data []byte) { sound(t, "a.gpx", data) })
}

func FuzzGeoJSON(f *testing.F) {
	f.Add([]byte(`{"type":"FeatureCollection","features":[{"type":"Feature","properties":{"corners":[0,1]},"geometry":{"type":"LineString","coordinates":[[1,2,3],[1.001,2]]}}]}`))
	f.Add([]byte(`{"type":"Polygon","coordinates":[[[0,0],[0.01,0],[0,0.01],[0,0]]]}`))
	f.Add([]byte(`{"type":"Point","coordinates":[1,2]}`))
	f.Fuzz(func(t *testing.T, data []byte) { sound(t, "a.geojson", data) })
}
