package web

import (
	"strconv"
	"time"

	"github.com/gin-gonic/gin"
	"github.com/prometheus/client_golang/prometheus"
	"github.com/prometheus/client_golang/prometheus/collectors"
	"github.com/prometheus/client_golang/prometheus/promhttp"
)

// measured counts and times the requests of a router, and shows that with the state of the process
// at /metrics, in the open exposition format. Paths are those of the operations, never of somebody's
// things.
func measured(router *gin.Engine) {
	took := prometheus.NewHistogramVec(prometheus.HistogramOpts{
		Name: "pinhole_http_request_seconds", Help: "How long requests took, by operation and status.",
		Buckets: []float64{0.001, 0.002, 0.005, 0.01, 0.02, 0.05, 0.1, 0.2, 0.5, 1, 2, 5},
	}, []string{"method", "path", "status"})
	all := prometheus.NewRegistry()
	all.MustRegister(took, collectors.NewGoCollector(), collectors.NewProcessCollector(collectors.ProcessCollectorOpts{}))
	router.Use(func(c *gin.Context) {
		began := time.Now()
		c.Next()
		path := c.FullPath()
		if path == "" {
			path = "page" // of the front end, or nothing
		}
		took.WithLabelValues(c.Request.Method, path, strconv.Itoa(c.Writer.Status())).Observe(time.Since(began).Seconds())
	})
	router.GET("/metrics", gin.WrapH(promhttp.HandlerFor(all, promhttp.HandlerOpts{DisableCompression: true} /* whoever compresses everything does it */)))
}
