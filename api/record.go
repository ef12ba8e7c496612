package api

import (
	"bytes"
	"context"
	"mime"

	"tamiz/exchange/records"
)

func (h Handlers) WrittenRecord(
	ctx context.Context,
	r WrittenRecordRequestObject,
) (WrittenRecordResponseObject, error) {
	v, err := h.app.Written.Record(ctx, at(r.Review, r.Params.Look))
	if err != nil {
		return nil, err
	}
	return WrittenRecord200JSONResponse(*v), nil
}

// recordMedia are the media types of the formats of a record.
var recordMedia = map[string]string{
	"md":   "text/markdown; charset=utf-8",
	"html": "text/html; charset=utf-8",
	"json": "application/json",
	"docx": "application/vnd.openxmlformats-officedocument.wordprocessingml.document",
}

// SaveRecord answers with a file.
func (h Handlers) SaveRecord(ctx context.Context, r SaveRecordRequestObject) (SaveRecordResponseObject, error) {
	format := string(r.Params.Format)
	body, name, err := h.app.Written.File(ctx, at(r.Review, r.Params.Look), format)
	if err != nil {
		return nil, err
	}
	disposition := mime.FormatMediaType("attachment", map[string]string{"filename": name})
	return SaveRecord200AsteriskResponse{
		Body:        bytes.NewReader(body),
		ContentType: recordMedia[format],
		Headers:     SaveRecord200ResponseHeaders{ContentDisposition: &disposition},
	}, nil
}

// SaveHandSearch answers with a file.
func (h Handlers) SaveHandSearch(
	ctx context.Context,
	r SaveHandSearchRequestObject,
) (SaveHandSearchResponseObject, error) {
	format, called := string(r.Params.Format), ""
	if r.Params.Called != nil {
		called = *r.Params.Called
	}
	body, name, err := h.app.Written.HandSearch(ctx, at(r.Review, r.Params.Look), called, format)
	if err != nil {
		return nil, err
	}
	disposition := mime.FormatMediaType("attachment", map[string]string{"filename": name})
	return SaveHandSearch200AsteriskResponse{
		Body:        bytes.NewReader(body),
		ContentType: recordMedia[format],
		Headers:     SaveHandSearch200ResponseHeaders{ContentDisposition: &disposition},
	}, nil
}

// Bundle answers with a file.
func (h Handlers) Bundle(ctx context.Context, r BundleRequestObject) (BundleResponseObject, error) {
	var formats []records.Format
	if r.Params.Formats != nil {
		for _, f := range *r.Params.Formats {
			formats = append(formats, records.Format(f))
		}
	}
	file, name, err := h.app.Written.Bundle(ctx, at(r.Review, r.Params.Look), formats)
	if err != nil {
		return nil, err
	}
	disposition := mime.FormatMediaType("attachment", map[string]string{"filename": name})
	return Bundle200AsteriskResponse{
		Body:        file,
		ContentType: "application/zip",
		Headers:     Bundle200ResponseHeaders{ContentDisposition: &disposition},
	}, nil
}
