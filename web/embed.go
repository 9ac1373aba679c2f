// Package web holds the built front end.
package web

import (
	"embed"
	"io/fs"
)

//go:embed all:dist
var dist embed.FS

// Files returns the built interface; it is empty when it was not built.
func Files() fs.FS {
	app, err := fs.Sub(dist, "dist/app")
	if err != nil { // only an invalid name, never a missing folder
		panic(err)
	}
	return app
}
