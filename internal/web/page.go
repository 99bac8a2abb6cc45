package web

import (
	"embed"
	"fmt"
	"io/fs"
	"strings"
)

//go:embed all:dist
var dist embed.FS

// frontEnd returns the files of the built front end.
func frontEnd() (fs.FS, error) {
	page, err := fs.Sub(dist, "dist")
	if err != nil {
		return nil, fmt.Errorf("open the embedded front end: %w", err)
	}
	return page, nil
}

func isUnder(path, folder string) bool {
	return path == folder || strings.HasPrefix(path, folder+"/")
}

// exists reports whether the front end has a file at that address.
func exists(page fs.FS, path string) bool {
	info, err := fs.Stat(page, strings.TrimPrefix(path, "/"))
	return err == nil && !info.IsDir()
}
