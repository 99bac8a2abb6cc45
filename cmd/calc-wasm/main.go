//go:build js && wasm

// Calc-wasm is the computation for the page. It defines two functions that answer with the HTTP
// status and the JSON text of the answer or the problem: pinholeAnswer(name, body), as
// POST /api/calc/NAME does for a server that is gone; and pinholeMeasure(name, parts), as
// POST /api/measure/NAME, for files that stay on the device. A part is {option, text} or
// {option, name, bytes, pixels}, the bytes a Uint8Array; pixels, {width, height, rgba}, are of a
// file that the page has decoded.
package main

import (
	"bytes"
	"encoding/json"
	"errors"
	"runtime/debug"
	"syscall/js"

	"pinhole/core/calc"
	"pinhole/core/measure"
	"pinhole/core/problem"
)

// Memory that a page has taken it does not give back: it is better collected sooner.
const collectAt = 40

func main() {
	debug.SetGCPercent(collectAt)
	js.Global().Set("pinholeAnswer", js.FuncOf(func(_ js.Value, args []js.Value) any {
		status, text := answer(args[0].String(), []byte(args[1].String()))
		return map[string]any{"status": status, "text": text}
	}))
	js.Global().Set("pinholeMeasure", js.FuncOf(func(_ js.Value, args []js.Value) any {
		status, text := measured(args[0].String(), args[1])
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
	return told(op.Run(body))
}

// measured answers a measurement of parts.
func measured(name string, parts js.Value) (status int, text string) {
	op, known := measure.Named(name)
	if !known {
		return written(notFound, &problem.Document{Type: "about:blank", Title: "Not Found", Status: notFound, Detail: "there is no measurement " + name})
	}
	in := measure.Input{Files: map[string][]measure.File{}, Texts: map[string][]string{}}
	for i := range parts.Length() {
		part := parts.Index(i)
		option := part.Get("option").String()
		if text := part.Get("text"); text.Type() == js.TypeString {
			in.Texts[option] = append(in.Texts[option], text.String())
			continue
		}
		file := measure.File{Name: part.Get("name").String(), Bytes: copied(part.Get("bytes"))}
		if pixels := part.Get("pixels"); pixels.Truthy() {
			file.Pixels = &measure.Pixels{Width: pixels.Get("width").Int(), Height: pixels.Get("height").Int(), RGBA: copied(pixels.Get("rgba"))}
		}
		in.Files[option] = append(in.Files[option], file)
	}
	return told(op.Run(in))
}

// copied returns the bytes of a Uint8Array.
func copied(from js.Value) []byte {
	body := make([]byte, from.Length())
	js.CopyBytesToGo(body, from)
	return body
}

// told returns what a computation gave as its answer.
func told(given any, err error) (status int, text string) {
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
		return internal, `{"type":"about:blank","title":"Internal Server Error","status":500,"detail":"the answer cannot be written: it holds what is no number"}`
	}
	return status, text.String()
}
