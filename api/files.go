package api

import (
	"context"
	"encoding/json"
	"mime"
	"strings"

	"tamiz/app"
	"tamiz/exchange/records"
)

func (h Handlers) AskedOfImport(ctx context.Context, r AskedOfImportRequestObject) (AskedOfImportResponseObject, error) {
	q, err := h.app.Asked(ctx, r.Import)
	if err != nil {
		return nil, err
	}
	return AskedOfImport200JSONResponse(*q), nil
}

func (h Handlers) AnswerImport(ctx context.Context, r AnswerImportRequestObject) (AnswerImportResponseObject, error) {
	i, err := h.app.AnswerImport(ctx, r.Import, *r.Body)
	return AnswerImport202JSONResponse(i), err
}

func (h Handlers) GiveUpImport(ctx context.Context, r GiveUpImportRequestObject) (GiveUpImportResponseObject, error) {
	return GiveUpImport204Response{}, h.app.GiveUpImport(ctx, r.Import)
}

func (h Handlers) PreviewImport(ctx context.Context, r PreviewImportRequestObject) (PreviewImportResponseObject, error) {
	p, err := h.app.PreviewImport(ctx, r.Import, *r.Body, r.Params.Refill != nil && *r.Params.Refill)
	if err != nil {
		return nil, err
	}
	return PreviewImport200JSONResponse(*p), nil
}

func (h Handlers) ListReaderMaps(ctx context.Context, _ ListReaderMapsRequestObject) (ListReaderMapsResponseObject, error) {
	list, err := h.app.ReaderMaps(ctx)
	return ListReaderMaps200JSONResponse(list), err
}

func (h Handlers) DeleteReaderMap(ctx context.Context, r DeleteReaderMapRequestObject) (DeleteReaderMapResponseObject, error) {
	return DeleteReaderMap204Response{}, h.app.DropReaderMap(ctx, r.Reader)
}

func (h Handlers) Shelf(ctx context.Context, r ShelfRequestObject) (ShelfResponseObject, error) {
	list, err := h.app.Shelf(ctx, r.Review)
	return Shelf200JSONResponse(list), err
}

// ExportRecords answers with a file. A page to be printed is opened, everything else is saved.
func (h Handlers) ExportRecords(ctx context.Context, r ExportRecordsRequestObject) (ExportRecordsResponseObject, error) {
	e := app.Export{Format: records.Format(r.Body.Format), Name: r.Body.Name}
	if err := json.Unmarshal([]byte(r.Body.Of), &e.Of); err != nil {
		return nil, &app.Problem{Type: "invalid", Status: 422, Field: "of", Title: "It is not said which records are wanted.", Detail: err.Error()}
	}
	if r.Body.Fields != nil && *r.Body.Fields != "" {
		e.Fields = strings.Split(*r.Body.Fields, ",")
	}
	file, name, err := h.app.Export(ctx, r.Review, e)
	if err != nil {
		return nil, err
	}
	how := "attachment"
	if e.Format == records.Page {
		how = "inline"
	}
	disposition := mime.FormatMediaType(how, map[string]string{"filename": name})
	return ExportRecords200AsteriskResponse{Body: file, ContentType: e.Format.Media(), Headers: ExportRecords200ResponseHeaders{ContentDisposition: &disposition}}, nil
}
