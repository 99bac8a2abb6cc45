// Package web serves the application over HTTP: the computation and what is
// stored under /api, with an OpenAPI document generated from the code, and the
// built front end everywhere else.
//
// Every failure leaves as a problem document (RFC 9457); what went wrong inside
// stays in the log.
package web
