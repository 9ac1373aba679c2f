package document

import (
	"fmt"
	"strings"
)

// FieldError says which field of a document is wrong, what was given and what
// is allowed.
type FieldError struct {
	Field   string `json:"field" jsonschema:"required"`   // JSON pointer, such as /lines/L1/runs/R1/length
	Given   string `json:"given" jsonschema:"required"`   // as it stands in the document
	Allowed string `json:"allowed" jsonschema:"required"` // what may stand there
}

func (e FieldError) Error() string {
	return fmt.Sprintf("%s: given %s; allowed: %s", e.Field, e.Given, e.Allowed)
}

// Errors is every field that is wrong, in document order.
type Errors []FieldError

func (e Errors) Error() string {
	parts := make([]string, 0, len(e))
	for i, f := range e {
		if i == 3 {
			parts = append(parts, fmt.Sprintf("and %d more", len(e)-i))
			break
		}
		parts = append(parts, f.Error())
	}
	return strings.Join(parts, "; ")
}
