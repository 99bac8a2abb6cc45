// Package assemble makes questions of plain facts: a camera with its profile, the glass
// of a kit, and a shot as people type it become what [shot], [day] and the card weigh.
//
// The types carry the tags by which a request is checked, so that what is stored, what is
// asked and what is assembled is one struct. The server, the page and the command line
// all come through here; nothing is assembled anywhere else.
package assemble
