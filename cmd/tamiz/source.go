package main

import (
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"path/filepath"
	"time"

	"github.com/spf13/cobra"

	"tamiz/core/bib"
	"tamiz/core/query"
	"tamiz/exchange/records"
	"tamiz/source"
	"tamiz/source/sru"
)

// clientSettings lets a person at the command line ask any address: it is the operator's own machine.
func clientSettings() *sru.Settings { return &sru.Settings{Guard: sru.Guard{Everywhere: true}} }

func sourceCommand() *cobra.Command {
	return &cobra.Command{
		Use: "source URL", Short: "What a source says of itself, and how it would be asked",
		Args: exactly(1, "source needs the address of an SRU server"),
		RunE: func(c *cobra.Command, args []string) error {
			ctx, stop := untilStopped()
			defer stop()
			client, err := clientSettings().NewClient(args[0], "", source.Map{})
			if err != nil {
				return err
			}
			d, m, err := client.Discover(ctx)
			if err != nil {
				return err
			}
			out := json.NewEncoder(c.OutOrStdout())
			out.SetIndent("", "  ")
			out.SetEscapeHTML(false)
			return out.Encode(struct {
				*source.Description
				Map   source.Map `json:"map"`
				Lacks []string   `json:"lacks"`
			}{d, m, m.Lacks()})
		},
	}
}

func drawCommand() *cobra.Command {
	var how, schema string
	var atMost int
	var seed uint64
	c := &cobra.Command{
		Use: "draw URL CQL OUT", Short: "Draw a sample from any SRU source into a file",
		Args: exactly(3, "draw needs the address of an SRU server, a query and a file"),
		RunE: func(c *cobra.Command, args []string) error {
			switch source.How(how) {
			case source.All, source.Newest, source.Years, source.Random:
			default:
				return usage("--how is all, newest, years or random, not %q", how)
			}
			if atMost < 1 {
				return usage("--at-most is 1 or more, not %d", atMost)
			}
			if _, err := records.ByEnding(args[2]); err != nil {
				return errors.Join(errUsage, err)
			}
			return draw(c, args, source.How(how), schema, atMost, seed)
		},
	}
	c.Flags().StringVar(&how, "how", "all", "which records: all, newest, years (spread over them) or random")
	c.Flags().IntVar(&atMost, "at-most", 10_000, "how many records at most")
	c.Flags().Uint64Var(&seed, "seed", 1, "for random: the same seed draws the same positions")
	c.Flags().
		StringVar(&schema, "schema", "", "the form in which records are asked for (default: the fullest that is known)")
	return c
}

func draw(c *cobra.Command, args []string, how source.How, schema string, atMost int, seed uint64) error {
	ctx, stop := untilStopped()
	defer stop()
	client, err := clientSettings().NewClient(args[0], "", source.Map{})
	if err != nil {
		return err
	}
	_, m, err := client.Discover(ctx)
	if err != nil {
		return err
	}
	if schema != "" {
		m.Schema = schema
	}
	client.Map = m
	client.Waiting = func(d time.Duration, why error) {
		fmt.Fprintf(c.ErrOrStderr(), "waiting %s: %v\n", d.Round(time.Millisecond), why)
	}
	order := source.Order{How: how, AtMost: atMost, Seed: seed, Now: time.Now().Year()}
	cql := args[1]
	// What is not in our names is taken to be in the source's own.
	if q, err := query.Parse(args[1], nil); err == nil {
		var notes []source.Note
		cql, notes = source.Render(q.Expr, m)
		for _, n := range notes {
			fmt.Fprintln(c.ErrOrStderr(), n)
		}
	}
	plan, err := source.PlanOf(ctx, client, m, cql, order)
	if err != nil {
		return err
	}
	var known bib.Known
	var drawn []*bib.Record
	troubles := 0
	trouble := func(t source.Trouble) {
		troubles++
		fmt.Fprintln(c.ErrOrStderr(), t)
	}
	d := source.Draw{Source: client, Plan: plan, Page: m.AtMost, Keep: func(b source.Batch) error {
		for _, g := range b.Got {
			if n, ok := known.Find(g.Record); ok {
				trouble(source.Trouble{Part: b.Part, From: g.Position, To: g.Position, Kind: source.Repeated, Detail: drawn[n].ID})
				continue
			}
			known.Add(g.Record, len(drawn))
			drawn = append(drawn, g.Record)
		}
		for _, t := range b.Troubles {
			trouble(t)
		}
		return nil
	}}
	ended := d.Run(ctx)
	// What was got is written even where not all was.
	written := writeFile(
		filepath.Dir(args[2]),
		filepath.Base(args[2]),
		func(w io.Writer) error { return writeRecords(w, args[2], drawn, records.Choice{}) },
	)
	fmt.Fprintf(
		c.ErrOrStderr(),
		"%d found, %d wanted, %d got, %d troubles\n",
		plan.Total,
		plan.Wanted(),
		len(drawn),
		troubles,
	)
	return errors.Join(ended, written)
}
