package document

import "mallow/core/job"

// Diff is the edits that make one document of another: what was changed, by
// the ids of what it was changed in. Apply makes them again.
func Diff(before, after []byte) ([]job.Edit, error) {
	from, err := current(before)
	if err != nil {
		return nil, err
	}
	to, err := current(after)
	if err != nil {
		return nil, err
	}
	return diff("", from, to, []job.Edit{}), nil
}
