package explain

import (
	"strconv"

	"golang.org/x/text/language"
	"golang.org/x/text/message"
)

var printer = message.NewPrinter(language.English)

func number(n uint64) string { return printer.Sprint(n) }

func plainNumber(n int) string { return strconv.Itoa(n) }
