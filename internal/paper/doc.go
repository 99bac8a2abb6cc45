// Package paper writes what is to be printed, as PDF at true size. Its fonts come
// with the application and are embedded.
package paper
