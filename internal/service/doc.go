// Package service joins what is stored with the computation: it turns cameras and
// filters as their owner knows them into a bench that a shot is answered on, and
// keeps each shot together with the answer it was given.
package service
