package spacing_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"mallow/core/job"
	"mallow/core/length"
	"mallow/core/spacing"
)

var plainSite = spacing.Site{Mark: 1, Hole: func(job.PostKind) length.Length { return 300 }}

func ptr(l length.Length) *length.Length { return &l }

// Stretches whose count is known: 96 in c-c for 8 ft lumber (common practice);
// 11.347 m with one bay held at 3.6 m leaves five bays of 61 in (common
// practice: the rest, 7.747 m, at most 1.8 m apart).
func TestCount(t *testing.T) {
	for _, c := range []struct {
		stretch, most length.Length
		want          int
	}{
		{131.5 * length.Foot, 96 * length.Inch, 17},
		{96 * length.Foot, 96 * length.Inch, 12},
		{96*length.Foot + 0.0001, 96 * length.Inch, 12}, // below any tape
		{96*length.Foot + 1, 96 * length.Inch, 13},
		{11347 - 3600, 1800, 5},
		{100, 2400, 1},
	} {
		if got := spacing.Count(c.stretch, c.most); got != c.want {
			t.Errorf("%v over %v: got %d bays, want %d", c.stretch, c.most, got, c.want)
		}
	}
	if each := length.Length(11347-3600) / 5; math.Round(each.Inches()) != 61 {
		t.Errorf("five bays of %v in", each.Inches())
	}
}

// On random runs with random gates: every opening is exact, bays add up to
// the run, none is over the most, and a bay fewer would be.
func TestLayOnRandomRuns(t *testing.T) {
	rng := rand.New(rand.NewPCG(3, 4))
	for range 3000 {
		run := randomRun(rng)
		l := spacing.Lay(run, plainSite)
		sum := length.Length(0)
		gates := 0
		for i, b := range l.Bays {
			each := l.Posts[i+1].Station - l.Posts[i].Station
			sum += each
			if b.First != i || each <= 0 {
				t.Fatalf("bay %d of %+v is %v", i, run, each)
			}
			if b.Gate != spacing.NoGate {
				gates++
				if got := each - run.Post.Width; !length.Same(got, run.Gates[b.Gate].Opening) {
					t.Fatalf("gate %d opens %v, want %v", b.Gate, got, run.Gates[b.Gate].Opening)
				}
			} else if each > run.Spacing.Most+length.Tolerance {
				t.Fatalf("bay %d is %v, over %v", i, each, run.Spacing.Most)
			}
		}
		if !length.Same(sum, *run.Length) || gates != len(run.Gates) || len(l.Posts) != len(l.Bays)+1 {
			t.Fatalf("%+v: bays add up to %v, %d gates", run, sum, gates)
		}
		for _, s := range l.Segments {
			if s.Gate == spacing.NoGate && s.Bays > 1 && (s.To-s.From)/length.Length(s.Bays-1) <= run.Spacing.Most {
				t.Fatalf("%d bays in %v, though one fewer would do", s.Bays, s.To-s.From)
			}
		}
		mirrored(t, run, l)
	}
}

func randomRun(rng *rand.Rand) job.Run {
	run := job.Run{
		Length: ptr(length.Length(2000 + rng.Float64()*80000)),
		Post:   job.Post{Width: 90}, Spacing: job.Spacing{Most: length.Length(600 + rng.Float64()*3000)},
	}
	at := length.Length(0)
	for rng.IntN(3) > 0 {
		opening := length.Length(800 + rng.Float64()*2000)
		if rng.IntN(4) > 0 { // else hung on the post before it
			at += length.Length(rng.Float64() * 9000)
		}
		if at+opening+90 > *run.Length {
			break
		}
		run.Gates = append(run.Gates, job.Gate{At: at + opening/2 + 45, Opening: opening})
		at += opening + 90
	}
	rng.Shuffle(len(run.Gates), func(a, b int) { run.Gates[a], run.Gates[b] = run.Gates[b], run.Gates[a] })
	return run
}

// The run seen from the other side has its posts at the mirrored stations.
func mirrored(t *testing.T, run job.Run, l spacing.Layout) {
	t.Helper()
	other := run
	other.Gates = nil
	for _, g := range run.Gates {
		other.Gates = append(other.Gates, job.Gate{At: *run.Length - g.At, Opening: g.Opening})
	}
	m := spacing.Lay(other, plainSite)
	for i := range l.Posts {
		q := m.Posts[len(m.Posts)-1-i]
		if !length.Same(l.Posts[i].Station, *run.Length-q.Station) || l.Posts[i].Kind != q.Kind {
			t.Fatalf("%+v: post %d at %v has its mirror at %v", run, i, l.Posts[i].Station, q.Station)
		}
	}
}
