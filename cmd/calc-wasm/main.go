//go:build js && wasm

// Calc-wasm is the computation for a page whose server is gone. It defines one
// function, pinholeAnswer(name, body), which answers as POST /api/calc/NAME does: an
// object with the HTTP status and the JSON text of the answer or the problem.
package main

import (
	"bytes"
	"encoding/json"
	"errors"
	"syscall/js"

	"pinhole/core/calc"
	"pinhole/core/problem"
)

func main() {
	js.Global().Set("pinholeAnswer", js.FuncOf(func(_ js.Value, args []js.Value) any {
		status, text := answer(args[0].String(), []byte(args[1].String()))
		return map[string]any{"status": status, "text": text}
	}))
	select {} // the function is called until the page is gone
}

// The statuses of an answer; a problem has its own.
const (
	ok       = 200
	notFound = 404
	internal = 500
)

func answer(name string, body []byte) (status int, text string) {
	op, known := calc.Named(name)
	if !known {
		return written(notFound, &problem.Document{Type: "about:blank", Title: "Not Found", Status: notFound, Detail: "there is no computation " + name})
	}
	given, err := op.Run(body)
	var doc *problem.Document
	switch {
	case errors.As(err, &doc):
		return written(doc.Status, doc)
	case err != nil:
		return written(internal, &problem.Document{Type: "about:blank", Title: "Internal Server Error", Status: internal, Detail: err.Error()})
	}
	return written(ok, given)
}

func written(status int, v any) (int, string) {
	var text bytes.Buffer
	out := json.NewEncoder(&text)
	out.SetEscapeHTML(false)
	if err := out.Encode(v); err != nil {
		return internal, "null"
	}
	return status, text.String()
}
