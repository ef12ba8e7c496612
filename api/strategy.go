package api

import (
	"context"

	"tamiz/app/desk"
)

// WrittenLines, like all below, answers what the contract says.
func (h Handlers) WrittenLines(ctx context.Context, r WrittenLinesRequestObject) (WrittenLinesResponseObject, error) {
	v, err := h.app.Outside.Lines(ctx, desk.At{Review: r.Review}, r.Params.Source)
	if err != nil {
		return nil, err
	}
	return WrittenLines200JSONResponse(*v), nil
}
