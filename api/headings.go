package api

import (
	"context"

	"tamiz/app/figures"
)

// Headings, like all below, answers what the contract says.
func (h Handlers) Headings(ctx context.Context, r HeadingsRequestObject) (HeadingsResponseObject, error) {
	s := figures.HeadingSearch{Block: said(r.Params.Block), Language: said(r.Params.Language)}
	if r.Params.Word != nil {
		s.Words = *r.Params.Word
	}
	v, err := h.app.Figures.Headings(ctx, at(r.Review, r.Params.Look), s)
	if err != nil {
		return nil, err
	}
	return Headings200JSONResponse(*v), nil
}

func (h Handlers) Heading(ctx context.Context, r HeadingRequestObject) (HeadingResponseObject, error) {
	v, err := h.app.Figures.Heading(
		ctx,
		at(r.Review, r.Params.Look),
		r.Params.Label,
		said(r.Params.Block),
		said(r.Params.Language),
	)
	if err != nil {
		return nil, err
	}
	return Heading200JSONResponse(*v), nil
}

func (h Handlers) HeadingsProposed(
	ctx context.Context,
	r HeadingsProposedRequestObject,
) (HeadingsProposedResponseObject, error) {
	v, err := h.app.Figures.HeadingsProposed(ctx, at(r.Review, r.Params.Look))
	if err != nil {
		return nil, err
	}
	return HeadingsProposed200JSONResponse(*v), nil
}

func (h Handlers) HeadingBelow(ctx context.Context, r HeadingBelowRequestObject) (HeadingBelowResponseObject, error) {
	v, err := h.app.Figures.HeadingBelow(ctx, at(r.Review, r.Params.Look), r.Params.Label)
	if err != nil {
		return nil, err
	}
	return HeadingBelow200JSONResponse(v), nil
}

func (h Handlers) HeadingPrice(ctx context.Context, r HeadingPriceRequestObject) (HeadingPriceResponseObject, error) {
	v, err := h.app.Figures.HeadingPrice(ctx, at(r.Review, r.Params.Look), *r.Body)
	if err != nil {
		return nil, err
	}
	return HeadingPrice200JSONResponse(*v), nil
}

func (h Handlers) Vocabularies(ctx context.Context, _ VocabulariesRequestObject) (VocabulariesResponseObject, error) {
	v, err := h.app.Vocabularies.All(ctx)
	if err != nil {
		return nil, err
	}
	return Vocabularies200JSONResponse(v), nil
}

func (h Handlers) DeleteVocabulary(
	ctx context.Context,
	r DeleteVocabularyRequestObject,
) (DeleteVocabularyResponseObject, error) {
	if err := h.app.Vocabularies.Delete(ctx, r.Vocabulary); err != nil {
		return nil, err
	}
	return DeleteVocabulary204Response{}, nil
}

func (h Handlers) VocabularyChanges(
	ctx context.Context,
	r VocabularyChangesRequestObject,
) (VocabularyChangesResponseObject, error) {
	v, err := h.app.Vocabularies.Changes(ctx, r.Vocabulary, r.Params.Since)
	if err != nil {
		return nil, err
	}
	return VocabularyChanges200JSONResponse(*v), nil
}

// said is a parameter, or nothing where it was not said.
func said[T any](p *T) (v T) {
	if p != nil {
		v = *p
	}
	return v
}

func (h Handlers) CountTerms(ctx context.Context, r CountTermsRequestObject) (CountTermsResponseObject, error) {
	v, err := h.app.Sources.CountTerms(ctx, at(r.Review, r.Params.Look), r.Params.Source, *r.Body)
	if err != nil {
		return nil, err
	}
	return CountTerms200JSONResponse(v), nil
}
