package web

import (
	"fmt"
	"io/fs"
	"log/slog"
	"mime"
	"net/http"
	"net/netip"
	"reflect"
	"slices"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humagin"
	"github.com/gin-contrib/gzip"
	"github.com/gin-gonic/gin"

	"pinhole/core/request"
	"pinhole/internal/service"
)

// Config is what the server needs.
type Config struct {
	Service *service.Service
	Log     *slog.Logger
	// Hosts are the names the server answers for; none means this machine's own.
	Hosts []string
	// Version of the application, for the OpenAPI document.
	Version string
	// Demo is true where the data file holds the demo.
	Demo bool
	// Share is set for a server of other devices: they are let in by a passphrase.
	Share *Share
	// Shared are the addresses at which other devices reach the data, for showing.
	Shared []string
	// Metrics says whether requests are counted, and shown at /metrics.
	Metrics bool
	// Fingerprint is what their certificate authority is known by.
	Fingerprint string
}

// loopback are the names of this machine for itself.
var loopback = []string{"127.0.0.1", "localhost", "::1"}

// server is what the handlers share.
type server struct {
	service *service.Service
	log     *slog.Logger
	api     huma.API
	door    *door // nil where everybody is let in
}

// New returns the handler of the whole application.
func New(config Config) (http.Handler, error) {
	page, err := frontEnd()
	if err != nil {
		return nil, err
	}
	if len(config.Hosts) == 0 {
		config.Hosts = loopback
	}
	for extension, media := range map[string]string{".webmanifest": "application/manifest+json", ".gz": "application/gzip"} {
		if err := mime.AddExtensionType(extension, media); err != nil {
			return nil, fmt.Errorf("name the media type of %s files: %w", extension, err)
		}
	}
	gin.SetMode(gin.ReleaseMode)
	router := gin.New()
	router.HandleMethodNotAllowed = true
	router.RedirectTrailingSlash = false // a redirect would be answered before any guard
	router.Use(logRequests(config.Log), recoverFrom(config.Log), harden, guardHost(config.Hosts), guardOrigin(),
		guardBody(request.MaxBytes), guardImports(), packForNetwork())
	if config.Metrics {
		measured(router)
	}
	s := &server{service: config.Service, log: config.Log}
	if config.Share != nil {
		s.door = newDoor(config.Share, config.Service.Store, config.Log)
		router.Use(s.door.guard)
		router.GET("/ca.crt", func(c *gin.Context) {
			c.Data(http.StatusOK, "application/x-x509-ca-cert", config.Share.Authority)
		})
	}
	s.register(router, config)
	router.NoMethod(func(c *gin.Context) {
		refuse(c, newFailure(http.StatusMethodNotAllowed, fmt.Sprintf("%s is not possible here", c.Request.Method)))
	})
	router.NoRoute(servePage(page))
	var whole http.Handler = router
	if s.door != nil {
		whole = knowAsker(s.door.sessions.LoadAndSave(router))
	}
	router.GET("/api/calc", talk(whole))
	return whole, nil
}

// packForNetwork compresses answers that go over a network; packing takes longer than it saves on this machine.
func packForNetwork() gin.HandlerFunc {
	pack := gzip.Gzip(gzip.DefaultCompression, gzip.WithExcludedPaths(packedPaths), gzip.WithExcludedExtensions([]string{".gz", ".png", ".woff2"}))
	return func(c *gin.Context) {
		if from, err := netip.ParseAddrPort(c.Request.RemoteAddr); err != nil || !from.Addr().IsLoopback() {
			pack(c)
		}
	}
}

// packedPaths are those whose answers are compressed already: pictures, and what the build packs.
var packedPaths = []string{"/api/render/", "/api/sim/camera/frame", "/assets/"}

// register adds every operation of the API and returns it.
func (s *server) register(router *gin.Engine, config Config) huma.API {
	info := huma.DefaultConfig("Pinhole", config.Version)
	info.Info.Description = "Match ND filters, shutter and light for cameras with one aperture. Units are SI; a unit that is not the obvious one is in the field's name. " +
		"What is posted to /api/calc may go over one WebSocket at /api/calc, too: the message `7 shot {…}` is answered `7 200 {…}`, and `7` alone gives the question up."
	info.OpenAPIPath = "/api/openapi"
	info.DocsPath, info.SchemasPath = "", ""
	info.Components.Schemas = huma.NewMapRegistry("#/components/schemas/", schemaName)
	info.CreateHooks = nil // they would add a $schema member to every answer
	info.DefaultFormat = "application/json"
	s.api = humagin.New(router, info)
	s.registerCalc()
	s.registerMeasure()
	s.registerStored()
	s.registerShots()
	s.registerDrawings()
	s.registerStatus(config)
	s.registerSession()
	listValues(info.Components.Schemas)
	return s.api
}

// schemaPrefixes part types of one name in the computation's packages.
var schemaPrefixes = map[string]string{"/core/measure": "Measured", "/core/take": "Take", "/core/learn": "Log", "/core/practice": "Practice"}

// schemaName names a type in the OpenAPI document. What is stored has the plain
// names of the things it describes, as have the computation's types, so the
// stored ones are told apart by a prefix, and so are those of what is measured.
func schemaName(t reflect.Type, hint string) string {
	name := huma.DefaultSchemaNamer(t, hint)
	if strings.HasSuffix(t.PkgPath(), "/internal/store") {
		return "Stored" + name
	}
	for t.Kind() == reflect.Pointer || t.Kind() == reflect.Slice {
		t = t.Elem()
	}
	for path, prefix := range schemaPrefixes {
		if strings.HasSuffix(t.PkgPath(), path) {
			return prefix + name
		}
	}
	return name
}

// OpenAPI returns the document that describes the API, as JSON.
func OpenAPI(version string) ([]byte, error) {
	gin.SetMode(gin.ReleaseMode)
	api := new(server).register(gin.New(), Config{Version: version})
	return api.OpenAPI().MarshalJSON()
}

func logRequests(log *slog.Logger) gin.HandlerFunc {
	return func(c *gin.Context) {
		start := time.Now()
		c.Next()
		log.InfoContext(c.Request.Context(), "request", "method", c.Request.Method, "path", c.Request.URL.Path,
			"from", c.RemoteIP(), "status", c.Writer.Status(), "duration", time.Since(start))
	}
}

func recoverFrom(log *slog.Logger) gin.HandlerFunc {
	return gin.CustomRecoveryWithWriter(nil, func(c *gin.Context, cause any) {
		log.ErrorContext(c.Request.Context(), "panic", "path", c.Request.URL.Path, "cause", fmt.Sprint(cause))
		refuse(c, newFailure(http.StatusInternalServerError, internalDetail))
	})
}

// isPlace reports whether the front end has a place at an address.
func isPlace(path string) bool {
	place, _, _ := strings.Cut(strings.TrimPrefix(path, "/"), "/")
	return slices.Contains([]string{"shoot", "shot", "card", "kit", "measure", "log", "practice"}, place)
}

// withStatus answers with a status of its own.
type withStatus struct {
	http.ResponseWriter
	status int
}

// WriteHeader writes the status that was chosen.
func (w *withStatus) WriteHeader(int) { w.ResponseWriter.WriteHeader(w.status) }

// servePage serves the front end: its files by name, and the page itself for
// every other address, because the front end has addresses of its own.
func servePage(page fs.FS) gin.HandlerFunc {
	files := http.FileServerFS(page)
	return func(c *gin.Context) {
		path := c.Request.URL.Path
		switch {
		case isUnder(path, "/api"), isUnder(path, "/assets") && !exists(page, path):
			refuse(c, newFailure(http.StatusNotFound, "there is nothing at "+path))
			return
		case c.Request.Method != http.MethodGet && c.Request.Method != http.MethodHead:
			refuse(c, newFailure(http.StatusMethodNotAllowed, fmt.Sprintf("%s is not possible here", c.Request.Method)))
			return
		case isUnder(path, "/assets"):
			// The name of an asset holds a digest of its content.
			c.Header("Cache-Control", "public, max-age=31536000, immutable")
		default:
			c.Header("Cache-Control", "no-cache")
			if !exists(page, path) && path != "/" {
				c.Request.URL.Path = "/"
				if !isPlace(path) {
					files.ServeHTTP(&withStatus{c.Writer, http.StatusNotFound}, c.Request) // the page, which says so
					return
				}
			}
		}
		if servePacked(c, page) {
			return
		}
		c.Status(http.StatusOK) // gin has set 404 by now
		files.ServeHTTP(c.Writer, c.Request)
	}
}
