package web

import (
	"bytes"
	"compress/gzip"
	"embed"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"net/http"
	"strings"
	"time"

	"github.com/gin-gonic/gin"
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

// packing ends the names of files that the build has compressed, in place of the plain ones: they
// are sent as they are, and make the binary smaller.
const packing = ".gz"

// exists reports whether the front end has a file at that address, plain or packed.
func exists(page fs.FS, path string) bool {
	name := strings.TrimPrefix(path, "/")
	return isFile(page, name) || isFile(page, name+packing)
}

func isFile(page fs.FS, name string) bool {
	info, err := fs.Stat(page, name)
	return err == nil && !info.IsDir()
}

// servePacked serves a file that the build has compressed: as it is to whoever takes it so, else
// unpacked. ok is false where there is no such file.
func servePacked(c *gin.Context, page fs.FS) (ok bool) {
	path := c.Request.URL.Path
	packed, err := fs.ReadFile(page, strings.TrimPrefix(path, "/")+packing)
	if err != nil {
		return false
	}
	content := packed
	c.Header("Vary", "Accept-Encoding")
	if takesGzip(c.GetHeader("Accept-Encoding")) {
		c.Header("Content-Encoding", "gzip")
	} else if content, err = unpacked(packed); err != nil {
		return false
	}
	c.Status(http.StatusOK)
	http.ServeContent(c.Writer, c.Request, path, time.Time{}, bytes.NewReader(content))
	return true
}

// takesGzip reports whether an Accept-Encoding lists gzip and does not refuse it.
func takesGzip(accepted string) bool {
	for coding := range strings.SplitSeq(accepted, ",") {
		name, quality, _ := strings.Cut(strings.ReplaceAll(coding, " ", ""), ";")
		if name == "gzip" {
			return strings.Trim(strings.TrimPrefix(quality, "q="), "0.") != "" || quality == ""
		}
	}
	return false
}

func unpacked(packed []byte) ([]byte, error) {
	r, err := gzip.NewReader(bytes.NewReader(packed))
	if err != nil {
		return nil, fmt.Errorf("unpack a file of the page: %w", err)
	}
	content, err := io.ReadAll(r)
	return content, errors.Join(err, r.Close())
}
