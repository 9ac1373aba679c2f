package document

import (
	"encoding/json"
	"fmt"
	"mallow/core/job"
	"strconv"
	"strings"
)

// Apply makes the edits in order and returns the changed document. Fields
// that Mallow does not know stay as they are.
func Apply(doc []byte, edits []job.Edit) ([]byte, error) {
	tree, _, err := parse(doc)
	if err != nil {
		return nil, err
	}
	for _, e := range edits {
		steps := strings.Split(strings.TrimPrefix(e.Path, "/"), "/")
		if _, err := put(tree, steps, e.Value, e.Path); err != nil {
			return nil, err
		}
	}
	return json.Marshal(tree)
}

func put(node any, steps []string, value any, path string) (any, error) {
	if len(steps) == 0 {
		return value, nil
	}
	switch n := node.(type) {
	case map[string]any:
		if len(steps) == 1 && value == nil {
			delete(n, steps[0])
			return n, nil
		}
		child, ok := n[steps[0]]
		switch {
		case !ok && len(steps) > 1 && steps[1] == "-":
			child = []any{}
		case !ok && len(steps) > 1:
			child = map[string]any{}
		}
		changed, err := put(child, steps[1:], value, path)
		n[steps[0]] = changed
		return n, err
	case []any:
		if steps[0] == "-" && len(steps) == 1 {
			return append(n, value), nil
		}
		i, err := strconv.Atoi(steps[0])
		if err != nil || i < 0 || i >= len(n) {
			return n, fmt.Errorf("edit of %s: no element %s", path, steps[0])
		}
		changed, err := put(n[i], steps[1:], value, path)
		n[i] = changed
		return n, err
	}
	return node, fmt.Errorf("edit of %s: nothing to go into at %s", path, steps[0])
}
