package scenario

import (
	"context"
	"fmt"
	"io"
	"slices"
	"time"

	"tamiz/app/desk"
)

// until waits until something is so.
func until(ctx context.Context, so func() (bool, error)) error {
	for {
		if yes, err := so(); yes || err != nil {
			return err
		}
		select {
		case <-ctx.Done():
			return ctx.Err()
		case <-time.After(50 * time.Millisecond):
		}
	}
}

// fetched waits until some sources have answered and what is wanted of their answers is there.
func (sc *scene) fetched(ctx context.Context, these []int64) error {
	return until(ctx, func() (bool, error) {
		e, err := sc.app.Runs.Everywhere(ctx, desk.At{Review: sc.review})
		if err != nil {
			return false, err
		}
		for _, s := range e.Sources {
			if slices.Contains(these, s.Source) && (s.Waiting || s.Run == nil || s.Fetch == "waiting" || s.Fetch == "drawing") {
				return false, nil
			}
		}
		return true, nil
	})
}

// bringFile brings in a file and waits until it has been read.
func (sc *scene) bringFile(ctx context.Context, kind, name string, file io.Reader) (*int64, error) {
	i, err := sc.app.Intake.ImportFile(ctx, sc.review, kind, name, false, file)
	if err != nil {
		return nil, err
	}
	return i.Sample, until(ctx, func() (bool, error) {
		if i, err = sc.app.Intake.Import(ctx, i.ID); err == nil && i.State == "failed" {
			err = fmt.Errorf("%s: %w", name, i.Error)
		}
		return i.State == "done", err
	})
}
