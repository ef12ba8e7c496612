// Names prints, for the browser, the names of the fields that a column or tag of a file can stand for.
package main

import (
	"fmt"
	"os"
	"strings"

	"tamiz/exchange"
)

func main() {
	var lists []string
	for _, f := range exchange.Targets {
		if exchange.Many(f) {
			lists = append(lists, f)
		}
	}
	fmt.Fprint(os.Stdout, "// Made from exchange.Targets by `make contract`; not written by hand.\n")
	list := func(says, name string, of []string) {
		fmt.Fprintf(
			os.Stdout,
			"\n/** %s */\nexport const %s = [\n  '%s',\n] as const\n",
			says,
			name,
			strings.Join(of, "',\n  '"),
		)
	}
	list("The fields that a column or a tag of a file can stand for.", "fields", exchange.Targets)
	list("Those that hold a list of values.", "lists", lists)
}
