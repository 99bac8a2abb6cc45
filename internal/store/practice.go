package store

import "pinhole/core/practice"

// PracticeAnswer is a question of practice that was answered. What is due, and how it goes, follows
// from all of them, so that they can be made on several devices, and joined.
type PracticeAnswer struct {
	Meta
	practice.Answered
}

// PracticeAnswers returns the collection of answers.
func (s *Store) PracticeAnswers() Collection[PracticeAnswer] {
	return Collection[PracticeAnswer]{s, practiceAnswers()}
}

func practiceAnswers() table[PracticeAnswer] {
	return table[PracticeAnswer]{
		name: "practice_answers",
		meta: func(a *PracticeAnswer) *Meta { return &a.Meta },
		columns: func(a *PracticeAnswer) []column {
			return []column{{"kind", (*string)(&a.Kind)}, {"at", zoned{&a.At}}, {"answer", asJSON{&a.Answered}}}
		},
	}
}
