package calc

import "testing"

func TestEachComputationHasAnExampleThatItAnswers(t *testing.T) {
	for _, op := range Operations() {
		example := op.Example()
		if example == nil {
			t.Errorf("%s has no example in examples.json", op.Name)
			continue
		}
		if _, err := op.Run(example); err != nil {
			t.Errorf("%s refuses its own example: %v", op.Name, err)
		}
	}
	if len(examples()) != len(Operations()) {
		t.Errorf("examples.json has %d examples of %d computations", len(examples()), len(Operations()))
	}
}
