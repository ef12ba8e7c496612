// Command tamiz is the web application and the core without the browser.
package main

import (
	"errors"
	"fmt"
	"os"
	"strings"

	"github.com/spf13/cobra"

	"tamiz/core/text"
	"tamiz/exchange"
)

// errUsage marks a call that is wrong in itself; the program then ends with 2.
var errUsage = errors.New("wrong call")

func main() {
	if err := newRoot().Execute(); err != nil {
		os.Exit(report(err))
	}
}

func newRoot() *cobra.Command {
	root := &cobra.Command{
		Use: "tamiz", Short: "Finds the words and headings that a search strategy lacks",
		SilenceUsage: true, SilenceErrors: true, Args: cobra.ArbitraryArgs,
		// Of a command that there is not, it is the command that is at fault, not its flags.
		FParseErrWhitelist: cobra.FParseErrWhitelist{UnknownFlags: true},
		RunE: func(c *cobra.Command, args []string) error {
			if len(args) == 0 && len(os.Args) > 1 && strings.HasPrefix(os.Args[1], "-") {
				return usage("there is no flag %s before a command; see tamiz --help", os.Args[1])
			}
			if len(args) == 0 {
				return c.Help()
			}
			return usage("there is no command %q; see tamiz --help", args[0])
		},
	}
	root.SetFlagErrorFunc(func(_ *cobra.Command, err error) error { return errors.Join(errUsage, err) })
	root.AddCommand(
		serveCommand(),
		demoCommand(),
		databaseCommand(),
		tallyCommand(),
		countCommand(),
		findCommand(),
		checkCommand(),
		rescueCommand(),
		blindCommand(),
		blocksCommand(),
		pruneCommand(),
		compareCommand(),
		alikeCommand(),
		fitCommand(),
		headingsCommand(),
		headingCommand(),
		vocabularyCommand(),
		renderCommand(),
		explainCommand(),
		dialectsCommand(),
		worldCommand(),
		standinCommand(),
		sourceCommand(),
		drawCommand(),
		convertCommand(),
	)
	return root
}

func usage(format string, args ...any) error {
	return errors.Join(errUsage, fmt.Errorf(format, args...))
}

// report tells what went wrong on standard error and returns the exit code.
func report(err error) int {
	code := 1
	if errors.Is(err, errUsage) {
		code = 2
		if list, ok := err.(interface{ Unwrap() []error }); ok {
			err = errors.Join(list.Unwrap()[1:]...)
		}
	}
	fmt.Fprintln(os.Stderr, "tamiz:", exchange.InWords(err))
	return code
}

// worded refuses a word without anything in it that can be looked for.
func worded(what, word string) error {
	if len(text.Tokens(strings.Trim(word, "*?"))) == 0 {
		return usage("%s holds no word: %q", what, word)
	}
	return nil
}

// least refuses a call with fewer arguments than it needs.
func least(n int, what string) cobra.PositionalArgs {
	return func(_ *cobra.Command, args []string) error {
		if len(args) < n {
			return usage("%s", what)
		}
		return nil
	}
}

// exactly refuses a call with fewer or more arguments than it takes.
func exactly(n int, what string) cobra.PositionalArgs {
	return func(_ *cobra.Command, args []string) error {
		if len(args) != n {
			return usage("%s", what)
		}
		return nil
	}
}
