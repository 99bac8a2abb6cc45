package web

import (
	"context"
	"fmt"
	"net"
	"net/http"
	"slices"
	"strings"
	"time"

	"github.com/gin-gonic/gin"
)

// policy lets the page load only what ships with the application. Styles are
// inserted by the component library at run time and need 'unsafe-inline';
// scripts do not. The computation runs in the page as WebAssembly, in a worker.
const policy = "default-src 'none'; script-src 'self' 'wasm-unsafe-eval'; worker-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; media-src 'self' blob:; font-src 'self'; " +
	"connect-src 'self'; manifest-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'"

// harden sets the headers that every answer carries.
func harden(c *gin.Context) {
	h := c.Writer.Header()
	h.Set("Content-Security-Policy", policy)
	h.Set("X-Content-Type-Options", "nosniff")
	h.Set("X-Frame-Options", "DENY")
	h.Set("Referrer-Policy", "no-referrer")
	h.Set("Cross-Origin-Opener-Policy", "same-origin")
	h.Set("Cross-Origin-Resource-Policy", "same-origin")
	h.Set("Permissions-Policy", "camera=(), microphone=(), geolocation=(self), screen-wake-lock=(self)")
	if isUnder(c.Request.URL.Path, "/api") {
		h.Set("Cache-Control", "no-store")
	}
}

// checkHost returns why a request for that Host is refused, or nil. Only names
// of this machine are answered: another name that resolves here is a page
// elsewhere trying to read what is ours (DNS rebinding).
func checkHost(host string, allowed []string) error {
	name := host
	if bare, _, err := net.SplitHostPort(host); err == nil {
		name = bare
	}
	name = strings.Trim(strings.ToLower(name), "[]")
	if slices.Contains(allowed, name) {
		return nil
	}
	return fmt.Errorf("this server does not answer for the host %q", host)
}

func guardHost(allowed []string) gin.HandlerFunc {
	return func(c *gin.Context) {
		if err := checkHost(c.Request.Host, allowed); err != nil {
			refuse(c, newFailure(http.StatusMisdirectedRequest, err.Error()))
		}
	}
}

// guardOrigin refuses writes that a page of another origin makes, and its reading of the API,
// of which it would see no answer, and yet make work.
func guardOrigin() gin.HandlerFunc {
	protection := http.NewCrossOriginProtection()
	return func(c *gin.Context) {
		site := c.Request.Header.Get("Sec-Fetch-Site") // browsers set it, and no page can
		isForeign := (site == "cross-site" || site == "same-site") && isUnder(c.Request.URL.Path, "/api")
		if err := protection.Check(c.Request); err != nil || isForeign {
			refuse(c, newFailure(http.StatusForbidden, "requests from another site are refused"))
		}
	}
}

// mostImports is how many files are read at one time: each may take much memory.
const mostImports = 2

// importPatience is how long one more file waits for its turn.
const importPatience = 20 * time.Second

// guardImports lets a few files be read at a time, and others wait a while.
func guardImports() gin.HandlerFunc {
	imports := newQueue(mostImports, maxWaiting)
	return func(c *gin.Context) {
		if !isUnder(c.Request.URL.Path, "/api/import") && !isUnder(c.Request.URL.Path, "/api/measure") && c.Request.URL.Path != "/api/kit/import" {
			return
		}
		waiting, cancel := context.WithTimeout(c.Request.Context(), importPatience)
		defer cancel()
		if err := imports.do(waiting, func() error { c.Next(); return nil }); err != nil {
			refuse(c, newFailure(http.StatusServiceUnavailable, "other files are being read: try again"))
		}
	}
}

// guardBody bounds what is read and takes JSON only, and files as themselves where
// files are read: a form of a foreign page cannot send either. Measuring takes forms, and keeps
// nothing; guardOrigin keeps foreign pages from it.
func guardBody(most int64) gin.HandlerFunc {
	return func(c *gin.Context) {
		r, takes, most := c.Request, "application/json", most
		switch {
		case isUnder(r.URL.Path, "/api/import"):
			takes, most = "application/octet-stream", mostUpload
		case isUnder(r.URL.Path, "/api/measure"):
			takes, most = "multipart/form-data", mostMeasured
		}
		if r.Body == nil || r.ContentLength == 0 {
			return
		}
		media, _, _ := strings.Cut(r.Header.Get("Content-Type"), ";")
		if strings.TrimSpace(strings.ToLower(media)) != takes {
			refuse(c, newFailure(http.StatusUnsupportedMediaType, "send "+takes))
			return
		}
		if r.ContentLength > most {
			refuse(c, newFailure(http.StatusRequestEntityTooLarge, fmt.Sprintf("a request has at most %d bytes", most)))
			return
		}
		r.Body = http.MaxBytesReader(c.Writer, r.Body, most)
	}
}

func refuse(c *gin.Context, f *failure) {
	writeFailure(c.Writer, f)
	c.Abort()
}
