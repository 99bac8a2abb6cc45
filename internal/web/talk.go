package web

import (
	"bytes"
	"context"
	"fmt"
	"net/http"
	"strings"
	"sync"
	"time"

	"github.com/coder/websocket"
	"github.com/gin-gonic/gin"

	"pinhole/core/request"
)

// mostAsked is how many questions of one connection are answered at a time; the next is read when one is done.
const mostAsked = 16

// mostAround is the most that stands around a question: its number and what is asked.
const mostAround = 64

// slowest is how long an answer may take to be taken.
const slowest = 30 * time.Second

// talk answers computations over one open connection, which takes a page a third of the time that a
// request by itself takes. A message "7 shot {…}" asks what POST /api/calc/shot answers, and is answered
// "7 200 {…}" with its status and text; "7" alone says that nobody waits for it any more. Numbers are the
// asker's own. Whatever holds for a request holds here, since each question goes through the same handler.
func talk(answer http.Handler) gin.HandlerFunc {
	return func(c *gin.Context) {
		if !strings.EqualFold(c.GetHeader("Upgrade"), "websocket") {
			refuse(c, newFailure(http.StatusUpgradeRequired, "this opens a connection for computations: ask for a WebSocket, or post one computation to /api/calc/ and its name"))
			return
		}
		line, err := websocket.Accept(c.Writer, c.Request, nil) // of the same origin alone; it has answered where it fails
		if err != nil {
			return
		}
		defer func() { _ = line.CloseNow() }()
		line.SetReadLimit(request.MaxBytes + mostAround)
		answerAll(c.Request, line, answer)
	}
}

// answerAll answers what is asked until the connection ends.
func answerAll(r *http.Request, line *websocket.Conn, answer http.Handler) {
	// Not the opening request's: its session would hold for all that is asked, however long ago it ended.
	ctx, end := context.WithCancel(context.Background())
	defer end()
	var stops sync.Map
	turns := make(chan struct{}, mostAsked)
	for {
		_, message, err := line.Read(ctx)
		if err != nil {
			return
		}
		number, question, asks := strings.Cut(string(message), " ")
		if !asks {
			if stop, found := stops.Load(number); found {
				stop.(context.CancelFunc)()
			}
			continue
		}
		turns <- struct{}{}
		asked, stop := context.WithCancel(ctx)
		stops.Store(number, stop)
		go func() {
			defer func() { <-turns; stops.Delete(number); stop() }()
			given := &reply{header: http.Header{}}
			answer.ServeHTTP(given, questionOf(asked, r, question))
			if asked.Err() == nil {
				tell(ctx, line, fmt.Appendf(nil, "%s %d %s", number, given.status, given.body.Bytes()))
			}
		}()
	}
}

// tell writes a message; whoever takes none for long loses the connection, and its reading ends.
func tell(ctx context.Context, line *websocket.Conn, message []byte) {
	ctx, end := context.WithTimeout(ctx, slowest)
	defer end()
	_ = line.Write(ctx, websocket.MessageText, message)
}

// questionOf is the request that a question stands for, by whoever opened the connection.
func questionOf(ctx context.Context, opened *http.Request, question string) *http.Request {
	name, body, _ := strings.Cut(question, " ")
	r, err := http.NewRequestWithContext(ctx, http.MethodPost, "/api/calc/", strings.NewReader(body))
	if err != nil {
		panic(err) // it is a constant
	}
	r.URL.Path += name
	r.Host, r.RemoteAddr, r.TLS = opened.Host, opened.RemoteAddr, opened.TLS
	r.Header.Set("Content-Type", mediaJSON)
	for _, kept := range []string{"Cookie", "Origin", "Sec-Fetch-Site", "User-Agent"} {
		r.Header[kept] = opened.Header[kept]
	}
	return r
}

// reply keeps what a handler answers.
type reply struct {
	header http.Header
	status int
	body   bytes.Buffer
}

// Header returns the headers, which nobody reads.
func (r *reply) Header() http.Header { return r.header }

// WriteHeader keeps the first status.
func (r *reply) WriteHeader(status int) {
	if r.status == 0 {
		r.status = status
	}
}

// Write keeps a part of the body.
func (r *reply) Write(part []byte) (int, error) {
	r.WriteHeader(http.StatusOK)
	return r.body.Write(part)
}
