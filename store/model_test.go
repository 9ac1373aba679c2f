package store_test

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"math/rand/v2"
	"os"
	"path/filepath"
	"slices"
	"testing"
	"time"

	"mallow/store"
)

// The model of the store: plain lists of revisions.
type modelled struct {
	docs    [][]byte // revision i+1
	parents []int
	head    int
	binned  bool
}

func (m *modelled) child() int {
	for n := len(m.docs); n > 0; n-- {
		if m.parents[n-1] == m.head {
			return n
		}
	}
	return 0
}

// Random operations on the store and on the model come to the same, through
// packing, reopening, backing up and going back to a backup.
func TestStoreIsAsItsModel(t *testing.T) {
	steps := 1500
	if testing.Short() {
		steps = 250
	}
	for seed := range uint64(3) {
		t.Run(fmt.Sprint(seed), func(t *testing.T) {
			t.Parallel()
			against(t, rand.New(rand.NewPCG(seed, 16)), steps)
		})
	}
}

func against(t *testing.T, r *rand.Rand, steps int) {
	ctx := context.Background()
	file := filepath.Join(t.TempDir(), store.FileName)
	s, err := store.Open(ctx, file)
	if err != nil {
		t.Fatal(err)
	}
	defer func() { s.Close() }()
	model := map[string]*modelled{}
	var ids []string
	must := func(err error) {
		t.Helper()
		if err != nil {
			t.Fatal(err)
		}
	}
	same := func(id string) {
		t.Helper()
		m, got := model[id], must1(s.Get(ctx, id))(t)
		if got.Number != m.head || !bytes.Equal(got.Doc, m.docs[m.head-1]) || got.Deleted != m.binned ||
			got.CanUndo != (m.parents[m.head-1] > 0) || got.CanRedo != (m.child() > 0) {
			t.Fatalf("job %s is at %d (%v, %v), not as the model: at %d of %d", id, got.Number, got.CanUndo, got.CanRedo, m.head, len(m.docs))
		}
	}
	next := func(doc []byte) []byte {
		doc = slices.Clone(doc)
		for range 1 + r.IntN(4) {
			doc[r.IntN(len(doc))] = byte(' ' + r.IntN(90))
		}
		return doc
	}
	for range steps {
		if len(ids) == 0 || r.IntN(40) == 0 {
			doc := bytes.Repeat([]byte(fmt.Sprint(r.Uint64())), 1+r.IntN(200))
			got := must1(s.Create(ctx, draft(doc, "new")))(t)
			ids, model[got.Job] = append(ids, got.Job), &modelled{docs: [][]byte{doc}, parents: []int{0}, head: 1}
		}
		id := ids[r.IntN(len(ids))]
		m := model[id]
		switch r.IntN(12) {
		case 0, 1, 2, 3:
			doc := next(m.docs[m.head-1])
			_, err := s.Save(ctx, id, store.Base{Number: m.head}, draft(doc, "saved"))
			must(err)
			m.docs, m.parents, m.head = append(m.docs, doc), append(m.parents, m.head), len(m.docs)+1
		case 4:
			if _, err := s.Save(ctx, id, store.Base{Number: m.head + 1}, draft([]byte("x"), "stale")); !errors.As(err, new(*store.StaleError)) {
				t.Fatalf("a stale save: %v", err)
			}
		case 5:
			if _, err := s.Undo(ctx, id, store.Base{Number: m.head}); m.parents[m.head-1] > 0 {
				must(err)
				m.head = m.parents[m.head-1]
			} else if !errors.Is(err, store.ErrNothingThen) {
				t.Fatal(err)
			}
		case 6:
			if _, err := s.Redo(ctx, id, store.Base{Number: m.head}); m.child() > 0 {
				must(err)
				m.head = m.child()
			} else if !errors.Is(err, store.ErrNothingThen) {
				t.Fatal(err)
			}
		case 7:
			to := 1 + r.IntN(len(m.docs))
			if m.docs[to-1] == nil {
				to = m.head
			}
			_, err := s.Restore(ctx, id, store.Base{Number: m.head}, to)
			must(err)
			m.docs, m.parents, m.head = append(m.docs, m.docs[to-1]), append(m.parents, m.head), len(m.docs)+1
		case 8:
			_, err := s.Pack(ctx, 1+r.IntN(20))
			must(err)
		case 9:
			if m.binned = !m.binned; m.binned {
				must(s.Delete(ctx, id))
			} else {
				must(s.Undelete(ctx, id))
			}
		case 10:
			if r.IntN(8) == 0 {
				must(s.Close())
				s, err = store.Open(ctx, file)
				must(err)
			}
		case 11:
			if r.IntN(20) == 0 { // to a backup and what came after it is gone
				b := must1(s.BackUpNow(ctx, "asked"))(t)
				if _, err := s.Save(ctx, id, store.Base{Number: m.head}, draft([]byte("lost"), "after the backup")); err != nil {
					t.Fatal(err)
				}
				_, err := s.Replace(ctx, b.Path)
				must(err)
				// What was saved in between is gone, and so is its number: the job is saved
				// once more under another.
				m.docs, m.parents = append(m.docs, nil, m.docs[m.head-1]), append(m.parents, -1, m.head)
				m.head = len(m.docs)
			}
		}
		same(id)
	}
	must1(s.Pack(ctx, 1<<20))(t)
	for _, id := range ids {
		same(id)
		for n, want := range model[id].docs {
			if want == nil {
				continue
			}
			if doc := must1(s.Doc(ctx, id, n+1))(t); !bytes.Equal(doc, want) {
				t.Fatalf("job %s, revision %d is not what was saved", id, n+1)
			}
		}
	}
	must(s.Look(ctx))
}

// must1 stops the test on an error.
func must1[T any](v T, err error) func(testing.TB) T {
	return func(t testing.TB) T {
		t.Helper()
		if err != nil {
			t.Fatal(err)
		}
		return v
	}
}

// What packing saves on revisions that differ by a figure, as a crew's do.
func TestPackedHistoryIsSmall(t *testing.T) {
	ctx := context.Background()
	s, _ := open(t)
	doc, err := os.ReadFile("../demo/jobs/1-tansy-bank.json")
	if err != nil {
		t.Fatal(err)
	}
	r := must1(s.Create(ctx, draft(doc, "one")))(t)
	for i := range 99 {
		next := bytes.Replace(doc, []byte(`"height": `), fmt.Append(nil, `"height": 1`, i%9), 1+i%5)
		r = must1(s.Save(ctx, r.Job, r.At(), draft(next, "again")))(t)
	}
	before := must1(s.Size(ctx))(t)
	must1(s.Pack(ctx, 1000))(t)
	after := must1(s.Size(ctx))(t)
	t.Logf("100 revisions of %d bytes: %d bytes before, %d after", len(doc), before.Documents, after.Documents)
	if after.Documents*10 > before.Documents {
		t.Errorf("packing 100 like revisions left %d of %d bytes", after.Documents, before.Documents)
	}
}

// The rule in days, worked by hand: at day 400, saves at noon and at six of
// every day. The last 30 days keep both of each day, the days up to 365 the later one,
// those before the last of their month.
func TestHistoryIsThinnedByItsRule(t *testing.T) {
	ctx := context.Background()
	start := time.Date(2025, 1, 1, 12, 0, 0, 0, time.UTC)
	now := start
	s, err := store.OpenAt(ctx, filepath.Join(t.TempDir(), store.FileName), func() time.Time { return now })
	if err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	r := must1(s.Create(ctx, draft([]byte("day 0"), "one")))(t)
	docs := map[int]string{1: "day 0"}
	for day := 1; day <= 400; day++ {
		for _, hour := range []int{0, 6} {
			now = start.AddDate(0, 0, day).Add(time.Duration(hour) * time.Hour)
			doc := fmt.Sprintf("day %d hour %d", day, hour)
			r = must1(s.Save(ctx, r.Job, r.At(), draft([]byte(doc), "more")))(t)
			docs[r.Number] = doc
		}
	}
	must1(s.Pack(ctx, 1<<20))(t)
	if err := s.Pin(ctx, r.Job, 5, true); err != nil {
		t.Fatal(err)
	}
	binned := must1(s.Create(ctx, draft([]byte("binned"), "one")))(t)
	if err := s.Delete(ctx, binned.Job); err != nil {
		t.Fatal(err)
	}
	// The first time only announces; nothing goes within a day.
	if went := must1(s.Tidy(ctx))(t); went.Revisions+went.Jobs != 0 {
		t.Fatalf("%+v went unannounced", went)
	}
	shown := must1(s.Tidying(ctx))(t)
	now = now.Add(23 * time.Hour)
	if went := must1(s.Tidy(ctx))(t); went.Revisions+went.Jobs != 0 {
		t.Fatalf("%+v went too early", went)
	}
	now = now.Add(time.Hour)
	went := must1(s.Tidy(ctx))(t)
	if went.Revisions != shown.Revisions || went.Jobs != 0 {
		t.Errorf("announced %+v, went %+v", shown, went)
	}
	kept := must1(s.History(ctx, r.Job, 0, 1000))(t).Revisions
	// Both saves of days 371 to 400 and the evening's of day 370, whose noon is
	// 30 days and 6 hours back: 61. One of each day from 36 (its evening is 364
	// days back) to 369, and day 370 has its evening: 334 + day 35's evening,
	// exactly 365 days back: 1. January's last is day 30, February's within the
	// year is there by day; before: January (day 30), and February's last save
	// older than a year is day 35 at noon, whose day is dated apart: 2. Pinned: 1.
	at := shown.Noticed
	whole, byDay, byMonth := 0, map[string]bool{}, map[string]bool{}
	for _, k := range kept {
		switch age := at.Sub(k.SavedAt); {
		case age <= 30*24*time.Hour:
			whole++
		case age <= 365*24*time.Hour:
			if day := k.SavedAt.Format(time.DateOnly); byDay[day] {
				t.Errorf("%s is kept twice", day)
			} else {
				byDay[day] = true
			}
		case k.Number != 5:
			if month := k.SavedAt.Format("2006-01"); byMonth[month] {
				t.Errorf("%s is kept twice", month)
			} else {
				byMonth[month] = true
			}
		}
		if doc := must1(s.Doc(ctx, r.Job, k.Number))(t); string(doc) != docs[k.Number] {
			t.Errorf("revision %d is %q, was %q", k.Number, doc, docs[k.Number])
		}
	}
	if whole != 61 || len(byDay) != 335 || len(byMonth) != 2 || len(kept) != 61+335+2+1 {
		t.Errorf("%d whole, %d by day, %d by month, %d in all", whole, len(byDay), len(byMonth), len(kept))
	}
	// Undo still leads back to the first that is left, one by one.
	n := 0
	for r = must1(s.Get(ctx, r.Job))(t); r.CanUndo; n++ {
		r = must1(s.Undo(ctx, r.Job, r.At()))(t)
	}
	if n != len(kept)-1 {
		t.Errorf("undo led back through %d of %d", n+1, len(kept))
	}
	// The bin is emptied after 30 days, a day after that was announced.
	now = now.Add(30 * 24 * time.Hour)
	must1(s.Tidy(ctx))(t)
	now = now.Add(25 * time.Hour)
	if went := must1(s.Tidy(ctx))(t); went.Jobs != 1 {
		t.Errorf("%+v went from the bin", went)
	}
	if _, err := s.Get(ctx, binned.Job); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("the binned job: %v", err)
	}
	if err := s.SetTidying(ctx, false); err != nil {
		t.Fatal(err)
	}
	now = now.AddDate(2, 0, 0)
	for range 3 {
		now = now.Add(25 * time.Hour)
		if went := must1(s.Tidy(ctx))(t); went.Jobs+went.Revisions != 0 {
			t.Errorf("switched off, %+v went", went)
		}
	}
}

// By hand: daily backups of 60 days, one a day.
func TestRotationKeepsDaysWeeksAndMonths(t *testing.T) {
	at := time.Date(2026, 11, 28, 3, 0, 0, 0, time.UTC) // a Saturday
	var list []store.Backup
	for d := range 60 {
		list = append(list, store.Backup{Why: "daily", At: at.AddDate(0, 0, -d)})
	}
	for k := range 9 {
		list = append(list, store.Backup{Why: "asked", At: at.AddDate(0, 0, -60-k)})
	}
	stay, leave := store.Rotated(list)
	var got []string
	for _, b := range stay {
		got = append(got, b.At.Format("01-02"))
	}
	// 7 days; Sundays end the weeks before: 22 (a day already), 15, 8 November;
	// the months' last: 31 October, 30 September is 59 days back; 5 others.
	want := []string{"11-28", "11-27", "11-26", "11-25", "11-24", "11-23", "11-22", "11-15", "11-08", "10-31", "09-30", "09-29", "09-28", "09-27", "09-26", "09-25"}
	if !slices.Equal(got, want) || len(stay)+len(leave) != len(list) {
		t.Errorf("kept %v\nwant %v", got, want)
	}
}

// A large document is packed as it is saved, comes back byte for byte, and is
// packed for good with the others once a newer one is there.
func TestLargeDocumentsArePackedAtOnce(t *testing.T) {
	ctx := context.Background()
	s, _ := open(t)
	large := func(n int) []byte {
		return append(bytes.Repeat([]byte(`{"on":"post/R1.7","what":"dug"},`), 20_000), fmt.Sprint(n)...)
	}
	r := must1(s.Create(ctx, draft(large(1), "one")))(t)
	if size := must1(s.Size(ctx))(t); size.Documents*20 > int64(len(large(1))) {
		t.Errorf("%d bytes are kept as %d", len(large(1)), size.Documents)
	}
	for n := 2; n <= 4; n++ {
		r = must1(s.Save(ctx, r.Job, r.At(), draft(large(n), "more")))(t)
	}
	read := func() {
		t.Helper()
		for n := 1; n <= 4; n++ {
			if got := must1(s.Doc(ctx, r.Job, n))(t); !bytes.Equal(got, large(n)) {
				t.Fatalf("revision %d came back with %d bytes of %d", n, len(got), len(large(n)))
			}
		}
	}
	read()
	before := must1(s.Size(ctx))(t)
	if n := must1(s.Pack(ctx, 100))(t); n != 3 {
		t.Errorf("%d documents were packed for good, not the 3 that are old", n)
	}
	read()
	if after := must1(s.Size(ctx))(t); after.Documents >= before.Documents {
		t.Errorf("%d bytes before, %d after", before.Documents, after.Documents)
	}
}
