// Zones writes the table of the world's time zones that the server embeds. It is run by the build.
package main

import (
	"bufio"
	"errors"
	"fmt"
	"os"

	tzfrellite "github.com/ringsaturn/tzf-rel-lite"

	"pinhole/internal/zone"
)

func main() {
	out := bufio.NewWriter(os.Stdout)
	if err := errors.Join(zone.Pack(tzfrellite.LiteCompressData, out), out.Flush()); err != nil {
		fmt.Fprintln(os.Stderr, "zones:", err)
		os.Exit(1)
	}
}
