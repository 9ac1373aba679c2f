package naming

import (
	"slices"
	"strconv"
	"strings"
)

// Labels are what posts are called in order along the run: P1, P2 and so on.
// Pinned are the labels that posts keep, empty for a post that keeps none: the
// others take the numbers between them, and where there are more posts than
// numbers the rest go by the number before them with a letter, as P7a does
// between P7 and P8. No two are alike.
func Labels(pinned []string) []string {
	out := slices.Clone(pinned)
	taken := map[string]bool{}
	var first, last int // of the pinned numbers, in the order of the run
	for i, p := range pinned {
		if p == "" {
			continue
		}
		if taken[p] { // two cannot keep one label: the first does
			out[i] = ""
			continue
		}
		taken[p] = true
		if n := number(p); n > 0 {
			if last = n; first == 0 {
				first = n
			}
		}
	}
	step := 1
	if last < first {
		step = -1 // the run is walked the other way since
	}
	for a := 0; a < len(out); {
		if out[a] != "" {
			a++
			continue
		}
		b := a
		for b < len(out) && out[b] == "" {
			b++
		}
		fill(out, a, b, step, taken)
		a = b
	}
	return out
}

// fill labels the posts from a to before b, which stand between pinned ones.
func fill(out []string, a, b, step int, taken map[string]bool) {
	from, to := 0, 0 // the numbers of the pinned ones on either side; 0 for none
	if a > 0 {
		from = number(out[a-1])
	}
	past := 0 // from where on numbers belong to others
	if b < len(out) {
		if to = number(out[b]); out[b] != "P"+strconv.Itoa(to) {
			past = step // its own number comes before P7c
		}
	}
	n, give := from+step, b-a
	switch {
	case from == 0 && to > 0 && step > 0:
		n = 1
	case from == 0 && to > 0:
		n = to + give
	case from == 0 && step < 0:
		n = give
	}
	for i := a; i < b; i++ {
		label := "P" + strconv.Itoa(n)
		if n < 1 || to > 0 && (to+past-n)*step <= 0 || taken[label] {
			label = between(out, i, n, step, taken)
		} else {
			n += step
		}
		out[i], taken[label] = label, true
	}
}

// between is the number of the post before with the next letter that is free.
func between(out []string, i, n, step int, taken map[string]bool) string {
	base := max(1, n-step)
	if i > 0 {
		base = max(1, number(out[i-1]))
	}
	for k := 1; ; k++ {
		if label := "P" + strconv.Itoa(base) + letters(k); !taken[label] {
			return label
		}
	}
}

// letters are a, b … z, aa, ab and so on.
func letters(k int) string {
	out := ""
	for ; k > 0; k = (k - 1) / 26 {
		out = string(rune('a'+(k-1)%26)) + out
	}
	return out
}

// number is the number in a label, 0 where there is none.
func number(label string) int {
	n, err := strconv.Atoi(strings.TrimRight(strings.TrimPrefix(label, "P"), "abcdefghijklmnopqrstuvwxyz"))
	if err != nil || n < 0 {
		return 0
	}
	return n
}
