package server_test

import (
	"archive/zip"
	"bytes"
	"context"
	"errors"
	"fmt"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"math/rand/v2"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"mallow/core/stage/record"
	"mallow/server"
	"mallow/store"
)

// picture is a photograph as a camera gives it: no two pixels alike.
func picture(t testing.TB, wide, high int) string {
	t.Helper()
	m := image.NewRGBA(image.Rect(0, 0, wide, high))
	random := rand.New(rand.NewPCG(1, 2))
	for i := 0; i < len(m.Pix); i += 4 {
		v := uint8(random.UintN(256))
		m.Pix[i], m.Pix[i+1], m.Pix[i+2], m.Pix[i+3] = v, v/2, 255-v, 255
	}
	var b bytes.Buffer
	if err := jpeg.Encode(&b, m, &jpeg.Options{Quality: 60}); err != nil {
		t.Fatal(err)
	}
	return b.String()
}

// logDoc is a job with a log: every post is so far, as its ids say.
func logDoc(facts string) string {
	return `{"mallow":2,"name":"Log 🦊","units":{"system":"imperial","smallestMark":1.5875},"site":{"frostDepth":600},"observed":[` + facts + `],"lines":[{"id":"L1","runs":[{"id":"R1","name":"Front","length":24384}]}]}`
}

// Photographs are kept as they came and come out again, one by one and in a zip named by
// their posts; what is no photograph, or too large, is refused by name and nothing is lost.
func TestPhotographs(t *testing.T) {
	c := start(t)
	var made server.JobState
	c.must(201, "POST", "/api/jobs", `{"doc":`+logDoc("")+`}`, &made)
	at := "/api/jobs/" + made.ID + "/photos"
	small := picture(t, 320, 240)
	var kept server.KeptPhoto
	c.must(201, "POST", at, small, &kept)
	if kept.Width != 320 || kept.Height != 240 || kept.Size != len(small) {
		t.Errorf("%+v", kept)
	}
	var dot bytes.Buffer
	if err := png.Encode(&dot, image.NewGray(image.Rect(0, 0, 1, 1))); err != nil {
		t.Fatal(err)
	}
	c.must(201, "POST", at, dot.String(), nil)
	if status, head, raw := c.ask("GET", at+"/"+kept.ID, ""); status != 200 || head.Get("Content-Type") != "image/jpeg" || string(raw) != small {
		t.Errorf("%d %s, %d bytes of %d", status, head.Get("Content-Type"), len(raw), len(small))
	}
	for name, bad := range map[string]string{"nothing": "", "words": "<script>alert(1)</script>", "cut short": small[:20], "svg": `<svg xmlns="http://www.w3.org/2000/svg"/>`, "a long line": wide(t)} {
		if status, _, raw := c.ask("POST", at, bad); status != 422 || !strings.Contains(string(raw), "/photo") {
			t.Errorf("%s: %d %s", name, status, raw)
		}
	}
	if status, _, raw := c.ask("POST", at, small+strings.Repeat(" ", 3<<20)); status != 422 || !strings.Contains(string(raw), "shrink it first") {
		t.Errorf("%d %s", status, raw)
	}
	for _, path := range []string{"/api/jobs/nobody/photos", at + "/nobody/"} {
		if status, _, _ := c.ask("POST", path, small); status != 404 && status != 405 {
			t.Errorf("%s: %d", path, status)
		}
	}
	if status, _, _ := c.ask("GET", at+"/nobody", ""); status != 404 {
		t.Errorf("a photograph that is not there: %d", status)
	}
	c.must(200, "PATCH", "/api/jobs/"+made.ID, body(t, map[string]any{"base": made.Revision, "what": "photo", "edits": []any{map[string]any{"path": "/observed/f1", "value": map[string]any{"id": "f1", "on": "post/R1.2", "what": "note", "photo": kept.ID}}}}), nil)
	var all server.KeptPhotos
	c.must(200, "GET", at, "", &all)
	if len(all.Photos) != 2 || all.Photos[0].ID != kept.ID {
		t.Fatalf("%+v", all)
	}
	status, _, raw := c.ask("GET", at+".zip", "")
	z, err := zip.NewReader(bytes.NewReader(raw), int64(len(raw)))
	if status != 200 || err != nil || len(z.File) != 2 || !strings.Contains(z.File[0].Name, "P2") || !strings.HasSuffix(z.File[0].Name, ".jpg") {
		t.Fatalf("%d %v %+v", status, err, z)
	}
	// What has no hand is not turned.
	if status, _, raw := c.ask("POST", "/api/plan", logDoc(`{"id":"f1","on":"post/R1.2","what":"dug","turned":true}`)); status != 422 || !strings.Contains(string(raw), "/turned") {
		t.Errorf("%d %s", status, raw)
	}
	// A photograph belongs to a note alone.
	if status, _, raw := c.ask("POST", "/api/plan", logDoc(`{"id":"f1","on":"post/R1.2","what":"dug","photo":"x"}`)); status != 422 || !strings.Contains(string(raw), "/photo") {
		t.Errorf("%d %s", status, raw)
	}
}

// wide is a photograph that is one pixel wider than is kept.
func wide(t testing.TB) string {
	t.Helper()
	var b bytes.Buffer
	m := image.NewGray(image.Rect(0, 0, 4097, 1))
	m.Set(1, 0, color.White)
	if err := png.Encode(&b, m); err != nil {
		t.Fatal(err)
	}
	return b.String()
}

// A job has as many photographs as its limit, and no more; the bin takes them along.
func TestPhotographsHaveALimit(t *testing.T) {
	kept, err := store.Open(context.Background(), filepath.Join(t.TempDir(), "jobs.db"))
	if err != nil {
		t.Fatal(err)
	}
	defer func() { _ = kept.Close() }()
	head, err := kept.Create(context.Background(), store.Draft{Doc: []byte(logDoc("")), Name: "Log"})
	if err != nil {
		t.Fatal(err)
	}
	for n := range store.MostPhotos {
		if _, err := kept.AddPhoto(context.Background(), head.Job, store.Photo{Kind: "image/png", Width: 1, Height: 1}, []byte{byte(n)}); err != nil {
			t.Fatal(n, err)
		}
	}
	var full *store.FullError
	if _, err := kept.AddPhoto(context.Background(), head.Job, store.Photo{Kind: "image/png"}, []byte{1}); !errors.As(err, &full) || full.Count != store.MostPhotos {
		t.Errorf("one more: %v", err)
	}
	if all, err := kept.Photos(context.Background(), head.Job); err != nil || len(all) != store.MostPhotos {
		t.Errorf("%d, %v", len(all), err)
	}
}

// A tape with a button, a level and an inclinometer measure what stands there, give or
// take; the same thing measures the same again.
func TestDevicesMeasure(t *testing.T) {
	c := start(t)
	ask := func(post, of string) (g server.Gauged) {
		c.must(200, "POST", "/api/device", `{"doc":`+logDoc("")+`,"post":"`+post+`","of":"`+of+`"}`, &g)
		return g
	}
	for of, want := range map[string]struct {
		device string
		least  float64
		most   float64
	}{"gap": {"tape", 2400, 2480}, "depth": {"tape", 600, 1200}, "line": {"tape", -40, 40}, "plumb": {"inclinometer", -40, 40}, "lean": {"inclinometer", -40, 40}, "top": {"level", -40, 40}} {
		g := ask("R1.3", of)
		if string(g.Device) != want.device || float64(g.Value) < want.least || float64(g.Value) > want.most || ask("R1.3", of) != g {
			t.Errorf("%s: %+v", of, g)
		}
	}
	for _, bad := range []struct{ post, of, says string }{{"R1.1", "gap", "/of"}, {"R1.3", "weight 🦊", "/of"}, {"nobody", "gap", "/post"}} {
		if status, _, raw := c.ask("POST", "/api/device", `{"doc":`+logDoc("")+`,"post":"`+bad.post+`","of":"`+bad.of+`"}`); status != 422 || !strings.Contains(string(raw), bad.says) {
			t.Errorf("%v: %d %s", bad, status, raw)
		}
	}
}

// What finished jobs teach: holes that took 30 minutes each, told by how many they are; a
// job that is not finished teaches nothing, nor does one in the bin.
func TestUsualOverTheAPI(t *testing.T) {
	c := start(t)
	var facts []string
	for n := range 11 {
		for k, what := range []string{"dug", "poured"} {
			facts = append(facts, fmt.Sprintf(`{"id":"f%d","on":"post/R1.%d","what":"%s","when":"2027-05-0%dT%s:00Z"}`, 2*n+k, n+1, what, 3+k, time.Date(0, 1, 1, 7, 30*n, 0, 0, time.UTC).Format("15:04")))
		}
	}
	var u record.Usual
	c.must(200, "GET", "/api/usual", "", &u)
	if u.Jobs != 0 || u.Dig.Posts != 0 {
		t.Errorf("%+v", u)
	}
	c.must(201, "POST", "/api/jobs", `{"doc":`+logDoc(strings.Join(facts[:20], ","))+`}`, nil)
	c.must(200, "GET", "/api/usual", "", &u)
	if u.Jobs != 0 {
		t.Errorf("an unfinished job teaches: %+v", u)
	}
	var made server.JobState
	c.must(201, "POST", "/api/jobs", `{"doc":`+logDoc(strings.Join(facts, ","))+`}`, &made)
	for range 2 { // found again the second time
		c.must(200, "GET", "/api/usual", "", &u)
		if u.Jobs != 1 || u.Dig.Posts != 10 || u.Dig.Value <= 1 {
			t.Errorf("%+v", u)
		}
	}
	c.must(204, "DELETE", "/api/jobs/"+made.ID, "", nil)
	if c.must(200, "GET", "/api/usual", "", &u); u.Jobs != 0 {
		t.Errorf("one in the bin teaches: %+v", u)
	}
}

// BenchmarkOpenWithPhotographs opens a job with 500 photographs as the browser shrinks
// them.
func BenchmarkOpenWithPhotographs(b *testing.B) {
	kept, err := store.Open(context.Background(), filepath.Join(b.TempDir(), "jobs.db"))
	if err != nil {
		b.Fatal(err)
	}
	defer func() { _ = kept.Close() }()
	head, err := kept.Create(context.Background(), store.Draft{Doc: []byte(logDoc("")), Name: "Log"})
	if err != nil {
		b.Fatal(err)
	}
	one := []byte(picture(b, 1600, 1200))
	for range 500 {
		if len(one) > 700<<10 {
			one = one[:700<<10] // noise packs worse than any photograph
		}
		if _, err := kept.AddPhoto(context.Background(), head.Job, store.Photo{Kind: "image/jpeg", Width: 1600, Height: 1200}, one); err != nil {
			b.Fatal(err)
		}
	}
	b.ResetTimer()
	for range b.N {
		if _, err := kept.Get(context.Background(), head.Job); err != nil {
			b.Fatal(err)
		}
		if all, err := kept.Photos(context.Background(), head.Job); err != nil || len(all) != 500 {
			b.Fatal(err)
		}
	}
}
