package api

import (
	"context"
	"mime"
)

func (h Handlers) AskedOfImport(
	ctx context.Context,
	r AskedOfImportRequestObject,
) (AskedOfImportResponseObject, error) {
	q, err := h.app.Intake.Asked(ctx, r.Import)
	if err != nil {
		return nil, err
	}
	return AskedOfImport200JSONResponse(*q), nil
}

func (h Handlers) AnswerImport(ctx context.Context, r AnswerImportRequestObject) (AnswerImportResponseObject, error) {
	i, err := h.app.Intake.AnswerImport(ctx, r.Import, *r.Body)
	return AnswerImport202JSONResponse(i), err
}

func (h Handlers) GiveUpImport(ctx context.Context, r GiveUpImportRequestObject) (GiveUpImportResponseObject, error) {
	return GiveUpImport204Response{}, h.app.Intake.GiveUpImport(ctx, r.Import)
}

func (h Handlers) PreviewImport(
	ctx context.Context,
	r PreviewImportRequestObject,
) (PreviewImportResponseObject, error) {
	p, err := h.app.Intake.PreviewImport(ctx, r.Import, *r.Body, r.Params.Refill != nil && *r.Params.Refill)
	if err != nil {
		return nil, err
	}
	return PreviewImport200JSONResponse(*p), nil
}

func (h Handlers) ListReaderMaps(
	ctx context.Context,
	_ ListReaderMapsRequestObject,
) (ListReaderMapsResponseObject, error) {
	list, err := h.app.Intake.ReaderMaps(ctx)
	return ListReaderMaps200JSONResponse(list), err
}

func (h Handlers) DeleteReaderMap(
	ctx context.Context,
	r DeleteReaderMapRequestObject,
) (DeleteReaderMapResponseObject, error) {
	return DeleteReaderMap204Response{}, h.app.Intake.DropReaderMap(ctx, r.Reader)
}

func (h Handlers) Shelf(ctx context.Context, r ShelfRequestObject) (ShelfResponseObject, error) {
	list, err := h.app.Figures.Shelf(ctx, at(r.Review, r.Params.Look))
	return Shelf200JSONResponse(list), err
}

// ExportTally answers with a file.
func (h Handlers) ExportTally(ctx context.Context, r ExportTallyRequestObject) (ExportTallyResponseObject, error) {
	called := ""
	if r.Params.Called != nil {
		called = *r.Params.Called
	}
	format, media := string(r.Params.Format), "text/csv; charset=utf-8"
	if format == "xlsx" {
		media = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"
	}
	file, name, err := h.app.Figures.TallyFile(
		ctx,
		at(r.Review, r.Params.Look),
		r.Params.Facet,
		format,
		called,
		r.Params.AsIs != nil && *r.Params.AsIs,
	)
	if err != nil {
		return nil, err
	}
	disposition := mime.FormatMediaType("attachment", map[string]string{"filename": name})
	return ExportTally200AsteriskResponse{
		Body:        file,
		ContentType: media,
		Headers:     ExportTally200ResponseHeaders{ContentDisposition: &disposition},
	}, nil
}

// ExportRecords answers with a file.
func (h Handlers) ExportRecords(
	ctx context.Context,
	r ExportRecordsRequestObject,
) (ExportRecordsResponseObject, error) {
	file, name, err := h.app.Figures.Export(ctx, at(r.Review, r.Params.Look), *r.Body)
	if err != nil {
		return nil, err
	}
	disposition := mime.FormatMediaType("attachment", map[string]string{"filename": name})
	return ExportRecords200AsteriskResponse{
		Body:        file,
		ContentType: r.Body.Format.Media(),
		Headers:     ExportRecords200ResponseHeaders{ContentDisposition: &disposition},
	}, nil
}
