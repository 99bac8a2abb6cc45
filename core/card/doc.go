// Package card says what a person does in the field: what to check before a take,
// what to do when it goes wrong, and how to get through a dark passage.
//
// Its words are cautions for people who stand in the cold with a craft in hand.
// They defer to local rules and to the maker's and the pilot's own procedures, and
// state no law.
package card
