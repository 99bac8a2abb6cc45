package web

import (
	"net/http"
	"reflect"
	"strings"

	"github.com/danielgtaylor/huma/v2"
)

// RawJSON is a request body that the application's own decoder reads, so that
// every door refuses with the same words.
type RawJSON struct {
	RawBody []byte `contentType:"application/json"`
}

const mediaJSON = "application/json"

// describe puts the types of a registered operation's request and answer into
// the OpenAPI document: huma cannot see them where a body is read raw or an
// answer's type is only known at run time.
func (s *server) describe(method, path string, request, answer reflect.Type) {
	item := s.api.OpenAPI().Paths[path]
	op := map[string]*huma.Operation{
		http.MethodGet: item.Get, http.MethodPost: item.Post, http.MethodPut: item.Put, http.MethodDelete: item.Delete,
	}[method]
	if request != nil {
		op.RequestBody = &huma.RequestBody{Required: true, Content: map[string]*huma.MediaType{mediaJSON: {Schema: s.schema(request)}}}
	}
	if answer != nil {
		for status, response := range op.Responses {
			if strings.HasPrefix(status, "2") {
				response.Content = map[string]*huma.MediaType{mediaJSON: {Schema: s.schema(answer)}}
			}
		}
	}
}

// exemplify puts a request into the OpenAPI document that what is posted to a path may be.
func (s *server) exemplify(path string, request any) {
	s.api.OpenAPI().Paths[path].Post.RequestBody.Content[mediaJSON].Example = request
}

func (s *server) schema(t reflect.Type) *huma.Schema {
	for t.Kind() == reflect.Pointer {
		t = t.Elem()
	}
	return s.api.OpenAPI().Components.Schemas.Schema(t, true, t.Name())
}
