package api

import "context"

// Prune, like all below, answers what the contract says.
func (h Handlers) Prune(ctx context.Context, r PruneRequestObject) (PruneResponseObject, error) {
	v, err := h.app.Figures.Prune(ctx, at(r.Review, r.Params.Look), r.Block, r.Params.Share)
	if err != nil {
		return nil, err
	}
	return Prune200JSONResponse(*v), nil
}

func (h Handlers) Remarks(ctx context.Context, r RemarksRequestObject) (RemarksResponseObject, error) {
	v, err := h.app.Figures.Remarks(ctx, at(r.Review, r.Params.Look), r.Block)
	if err != nil {
		return nil, err
	}
	return Remarks200JSONResponse(*v), nil
}

func (h Handlers) TryTerms(ctx context.Context, r TryTermsRequestObject) (TryTermsResponseObject, error) {
	v, err := h.app.Figures.TryTerms(ctx, at(r.Review, r.Params.Look), *r.Body)
	if err != nil {
		return nil, err
	}
	return TryTerms200JSONResponse(v), nil
}

func (h Handlers) Judging(ctx context.Context, r JudgingRequestObject) (JudgingResponseObject, error) {
	v, err := h.app.Figures.Judging(ctx, at(r.Review, r.Params.Look), *r.Body)
	if err != nil {
		return nil, err
	}
	return Judging200JSONResponse(*v), nil
}

func (h Handlers) Judge(ctx context.Context, r JudgeRequestObject) (JudgeResponseObject, error) {
	if err := h.app.Judge(ctx, r.Review, r.Record, string(r.Body.Verdict)); err != nil {
		return nil, err
	}
	return Judge204Response{}, nil
}

func (h Handlers) Estimate(ctx context.Context, r EstimateRequestObject) (EstimateResponseObject, error) {
	v, err := h.app.Figures.Estimate(ctx, at(r.Review, r.Params.Look), *r.Body)
	if err != nil {
		return nil, err
	}
	return Estimate200JSONResponse(*v), nil
}

func (h Handlers) KeptBlocks(ctx context.Context, _ KeptBlocksRequestObject) (KeptBlocksResponseObject, error) {
	list, err := h.app.Figures.KeptBlocks(ctx)
	return KeptBlocks200JSONResponse(list), err
}

func (h Handlers) ForgetBlock(ctx context.Context, r ForgetBlockRequestObject) (ForgetBlockResponseObject, error) {
	return ForgetBlock204Response{}, h.app.Figures.ForgetBlock(ctx, r.Params.Name, !back(r.Params.Back))
}

func (h Handlers) KeepBlock(ctx context.Context, r KeepBlockRequestObject) (KeepBlockResponseObject, error) {
	v, err := h.app.Figures.KeepBlock(ctx, at(r.Review, r.Params.Look), *r.Body)
	if err != nil {
		return nil, err
	}
	return KeepBlock200JSONResponse(*v), nil
}
