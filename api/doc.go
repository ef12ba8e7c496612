// Package api is the contract between browser and program: openapi.yaml, the types and routes made
// from it, and handlers that translate and delegate to app.
package api

//go:generate go tool oapi-codegen -config oapi-codegen.yaml openapi.yaml
//go:generate sh -c "go run ./names > ../web/src/api/fields.ts"
