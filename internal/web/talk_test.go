package web

import (
	"encoding/json"
	"fmt"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"

	"github.com/coder/websocket"

	"pinhole/core/calc"
	"pinhole/core/request"
)

// dial opens a connection to a site.
func dial(t *testing.T, url string, header http.Header) *websocket.Conn {
	t.Helper()
	line, _, err := websocket.Dial(t.Context(), url+"/api/calc", &websocket.DialOptions{HTTPHeader: header})
	if err != nil {
		t.Fatal(err)
	}
	line.SetReadLimit(-1)
	t.Cleanup(func() { _ = line.CloseNow() })
	return line
}

func ask(t *testing.T, line *websocket.Conn, message string) {
	t.Helper()
	if err := line.Write(t.Context(), websocket.MessageText, []byte(message)); err != nil {
		t.Fatal(err)
	}
}

// hear returns the number, status and text of the next answer.
func hear(t *testing.T, line *websocket.Conn) (number, status, text string) {
	t.Helper()
	_, message, err := line.Read(t.Context())
	if err != nil {
		t.Fatal(err)
	}
	number, rest, _ := strings.Cut(string(message), " ")
	status, text, _ = strings.Cut(rest, " ")
	return number, status, text
}

// Every computation, and every kind of refusal, is answered on an open connection as by a request of its own.
func TestAConnectionAnswersAsRequestsDo(t *testing.T) {
	s := newSite(t)
	server := httptest.NewServer(s.handler)
	defer server.Close()
	type question struct{ name, body string }
	questions := []question{{"label", `{"label":"dark"}`}, {"label", "ND16"}, {"label", ""}, {"guess", "{}"}, {"../shots", "{}"}, {"label", `{"label":"` + strings.Repeat("x", request.MaxBytes-20) + `"}`}}
	for _, op := range calc.Operations() {
		example, err := json.Marshal(op.Example())
		if err != nil {
			t.Fatal(err)
		}
		questions = append(questions, question{op.Name, string(example)})
	}
	line := dial(t, server.URL, nil)
	go func() { // all at once: answers come in any order
		for i, q := range questions {
			if line.Write(t.Context(), websocket.MessageText, fmt.Appendf(nil, "%d %s %s", i, q.name, q.body)) != nil {
				return
			}
		}
	}()
	for range questions {
		number, status, text := hear(t, line)
		var i int
		if _, err := fmt.Sscan(number, &i); err != nil {
			t.Fatal(err)
		}
		q := questions[i]
		want := s.do("POST", "/api/calc/"+q.name, q.body, func(r *http.Request) { r.Header.Set("Content-Type", "application/json") })
		if status != fmt.Sprint(want.Code) || text != want.Body.String() {
			t.Errorf("%s %.80s is answered %s %.300s, and by a request %d %.300s", q.name, q.body, status, text, want.Code, want.Body)
		}
	}
}

// A question that nobody waits for ends at once, and is not answered; what comes after it is.
func TestAQuestionIsGivenUp(t *testing.T) {
	begun, ended := make(chan struct{}), make(chan struct{})
	router := http.NewServeMux()
	router.HandleFunc("/api/calc/long", func(_ http.ResponseWriter, r *http.Request) {
		close(begun)
		<-r.Context().Done()
		close(ended)
	})
	router.HandleFunc("/api/calc/short", func(w http.ResponseWriter, _ *http.Request) { _, _ = w.Write([]byte("there")) })
	server := httptest.NewServer(talkingOf(router))
	defer server.Close()
	line := dial(t, server.URL, nil)
	ask(t, line, "1 long {}")
	<-begun
	ask(t, line, "1")
	<-ended
	ask(t, line, "1") // it is over: nothing happens
	ask(t, line, "2 short {}")
	if number, status, text := hear(t, line); number != "2" || status != "200" || text != "there" {
		t.Errorf("answered %s %s %s", number, status, text)
	}
}

// Whoever leaves ends what was asked for.
func TestLeavingEndsTheQuestions(t *testing.T) {
	begun, ended := make(chan struct{}, mostAsked), make(chan struct{}, mostAsked)
	server := httptest.NewServer(talkingOf(http.HandlerFunc(func(_ http.ResponseWriter, r *http.Request) {
		begun <- struct{}{}
		<-r.Context().Done()
		ended <- struct{}{}
	})))
	defer server.Close()
	line := dial(t, server.URL, nil)
	for i := range 3 {
		ask(t, line, fmt.Sprintf("%d long {}", i))
		<-begun
	}
	_ = line.CloseNow()
	for range 3 {
		<-ended
	}
}

// A connection is open to whom requests are: to no foreign page, and to no device that was not let in, or was shut out since.
func TestAConnectionIsGuarded(t *testing.T) {
	s := newShared(t)
	server := httptest.NewServer(s.handler)
	defer server.Close()
	open := func(header http.Header) (*websocket.Conn, int) {
		line, answer, err := websocket.Dial(t.Context(), server.URL+"/api/calc", &websocket.DialOptions{HTTPHeader: header})
		if err != nil {
			return nil, answer.StatusCode
		}
		t.Cleanup(func() { _ = line.CloseNow() })
		return line, answer.StatusCode
	}
	if _, status := open(nil); status != http.StatusUnauthorized {
		t.Errorf("a stranger is answered %d", status)
	}
	let := s.give(passphrase, "10.0.0.1").Result().Cookies()[0]
	cookie := let.Name + "=" + let.Value
	for _, foreign := range []http.Header{{"Cookie": {cookie}, "Sec-Fetch-Site": {"cross-site"}}, {"Cookie": {cookie}, "Origin": {"http://elsewhere.example"}}} {
		if _, status := open(foreign); status != http.StatusForbidden {
			t.Errorf("a foreign page is answered %d", status)
		}
	}
	line, status := open(http.Header{"Cookie": {cookie}})
	if line == nil {
		t.Fatalf("a device that was let in is answered %d", status)
	}
	ask(t, line, `1 label {"label":"ND16"}`)
	if _, status, text := hear(t, line); status != "200" {
		t.Errorf("once in, a question is answered %s %s", status, text)
	}
	if w := s.do("DELETE", "/api/session", "", func(r *http.Request) { r.Header.Set("Cookie", cookie) }); w.Code != http.StatusOK {
		t.Fatalf("leaving gives %d: %s", w.Code, w.Body)
	}
	ask(t, line, `2 label {"label":"ND16"}`)
	if _, status, text := hear(t, line); status != "401" {
		t.Errorf("once out, a question is answered %s %s", status, text)
	}
}

// talkingOf serves connections whose questions a handler answers.
func talkingOf(answer http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		line, err := websocket.Accept(w, r, nil)
		if err != nil {
			return
		}
		defer func() { _ = line.CloseNow() }()
		answerAll(r, line, answer)
	})
}
