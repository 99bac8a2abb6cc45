// Package demo fills an empty data file with the Marl Terrace harvest: a made-up
// weekend on a made-up island, with cameras and filters of no maker.
package demo
