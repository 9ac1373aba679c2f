package document

import "strconv"

// name gives ids to the entries of those lists whose writers may leave them
// out: heights, rows of the field book, parts with a look, ground beside a
// gate. The same document always gets the same ids.
func name(tree map[string]any) (changed bool) {
	give := func(list any, letter string) { changed = giveIDs(list, letter) || changed }
	give(tree["observed"], "f")
	each(tree["lines"], func(line map[string]any) {
		each(line["runs"], func(run map[string]any) {
			give(run["ground"], "h")
			if grade, ok := run["grade"].(map[string]any); ok {
				give(grade["parts"], "a")
			}
			each(run["gates"], func(gate map[string]any) {
				give(gate["in"], "n")
				give(gate["out"], "n")
			})
		})
		each(line["books"], func(book map[string]any) { give(book["rows"], "w") })
	})
	return changed
}

func each(list any, do func(map[string]any)) {
	entries, _ := list.([]any)
	for _, e := range entries {
		if o, ok := e.(map[string]any); ok {
			do(o)
		}
	}
}

// giveIDs gives ids to the entries that have none, a letter and the next
// number that is free.
func giveIDs(list any, letter string) (changed bool) {
	taken := map[string]bool{}
	each(list, func(o map[string]any) {
		if id, ok := o["id"].(string); ok {
			taken[id] = true
		}
	})
	n := 0
	each(list, func(o map[string]any) {
		if _, named := o["id"]; named {
			return
		}
		for n++; taken[letter+strconv.Itoa(n)]; n++ {
		}
		o["id"], changed = letter+strconv.Itoa(n), true
	})
	return changed
}
