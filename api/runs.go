package api

import "context"

func (h Handlers) Everywhere(ctx context.Context, r EverywhereRequestObject) (EverywhereResponseObject, error) {
	v, err := h.app.Runs.Everywhere(ctx, at(r.Review, r.Params.Look))
	if err != nil {
		return nil, err
	}
	return Everywhere200JSONResponse(*v), nil
}

func (h Handlers) ListRuns(ctx context.Context, r ListRunsRequestObject) (ListRunsResponseObject, error) {
	before := int64(0)
	if r.Params.Before != nil {
		before = *r.Params.Before
	}
	v, err := h.app.Runs.Runs(ctx, r.Review, before, r.Params.Passing != nil && *r.Params.Passing)
	if err != nil {
		return nil, err
	}
	return ListRuns200JSONResponse(*v), nil
}

func (h Handlers) Run(ctx context.Context, r RunRequestObject) (RunResponseObject, error) {
	return Run204Response{}, h.app.Runs.Run(ctx, r.Review, *r.Body)
}

func (h Handlers) WriteDownRun(ctx context.Context, r WriteDownRunRequestObject) (WriteDownRunResponseObject, error) {
	return WriteDownRun204Response{}, h.app.Runs.WriteDown(ctx, r.Review, *r.Body)
}

func (h Handlers) SampleOfRun(ctx context.Context, r SampleOfRunRequestObject) (SampleOfRunResponseObject, error) {
	return SampleOfRun204Response{}, h.app.Runs.SampleOfRun(ctx, r.Review, r.Run)
}

func (h Handlers) GetWatch(ctx context.Context, r GetWatchRequestObject) (GetWatchResponseObject, error) {
	v, err := h.app.Runs.Watched(ctx, r.Review)
	if err != nil {
		return nil, err
	}
	return GetWatch200JSONResponse(*v), nil
}

func (h Handlers) SetWatch(ctx context.Context, r SetWatchRequestObject) (SetWatchResponseObject, error) {
	return SetWatch204Response{}, h.app.Runs.SetWatch(ctx, r.Review, *r.Body)
}

func (h Handlers) Since(ctx context.Context, r SinceRequestObject) (SinceResponseObject, error) {
	v, err := h.app.Runs.Since(ctx, r.Review)
	if err != nil {
		return nil, err
	}
	return Since200JSONResponse(*v), nil
}

func (h Handlers) Dismiss(ctx context.Context, r DismissRequestObject) (DismissResponseObject, error) {
	return Dismiss204Response{}, h.app.Runs.Dismiss(ctx, r.Review, r.Body.Records, !back(r.Params.Back))
}

// back reports whether what a call does is taken back.
func back(said *bool) bool { return said != nil && *said }
