// Command tamiz is the web application and the core without the browser.
package main

import (
	"errors"
	"fmt"
	"os"

	"github.com/spf13/cobra"

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
		RunE: func(c *cobra.Command, args []string) error {
			if len(args) == 0 {
				return c.Help()
			}
			return usage("there is no command %q; see tamiz --help", args[0])
		},
	}
	root.SetFlagErrorFunc(func(_ *cobra.Command, err error) error { return errors.Join(errUsage, err) })
	root.AddCommand(serveCommand(), demoCommand(), databaseCommand(), tallyCommand(), countCommand(), findCommand(),
		checkCommand(), rescueCommand(), alikeCommand(), fitCommand(), headingsCommand(), renderCommand(), worldCommand(), standinCommand(), sourceCommand(), drawCommand(), convertCommand())
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
