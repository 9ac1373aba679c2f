// Package demo holds the made-up jobs that Mallow shows itself with.
package demo

import (
	"embed"
	"io/fs"
)

//go:embed jobs/*.json
var files embed.FS

// Jobs returns the demo's job documents, in the order they are listed.
func Jobs() ([][]byte, error) {
	names, err := fs.Glob(files, "jobs/*.json")
	if err != nil {
		return nil, err
	}
	var docs [][]byte
	for _, name := range names {
		doc, err := files.ReadFile(name)
		if err != nil {
			return nil, err
		}
		docs = append(docs, doc)
	}
	return docs, nil
}
