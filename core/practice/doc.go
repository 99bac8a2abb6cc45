// Package practice asks what people who match filters to light have to know by heart, and marks
// what they answer. A question and its one right answer follow from its kind, its grade and its
// seed alone, and are found by the rules by which everything else is answered: no answer of a
// question can disagree with that of a shot.
//
// Wrong answers are wrong by a margin that the question's kind states; where the right one stands
// among them, and how it compares with them in size, is drawn evenly, so that nothing of it can
// be told from its form.
package practice
