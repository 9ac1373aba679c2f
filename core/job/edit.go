package job

// Edit is one change of a job document: set the value at a JSON pointer, or
// take it away when Value is null. Remedies are lists of edits.
type Edit struct {
	Path  string `json:"path" jsonschema:"required" jsonschema_description:"JSON pointer into the job document; - as its last part adds to the end of a list."`
	Value any    `json:"value" jsonschema:"required" jsonschema_description:"The new value; null takes the field away."`
}

// Set returns an edit that puts value at path.
func Set(path string, value any) Edit { return Edit{path, value} }
