package calc

import (
	_ "embed"
	"encoding/json"
	"sync"
)

//go:embed examples.json
var examplesText []byte

var examples = sync.OnceValue(func() map[string]json.RawMessage {
	var byName map[string]json.RawMessage
	if err := json.Unmarshal(examplesText, &byName); err != nil {
		panic(err) // the file is part of the program
	}
	return byName
})

// Example returns a request that the computation answers, to begin with.
func (o Operation) Example() json.RawMessage { return examples()[o.Name] }
