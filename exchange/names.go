package exchange

import "tamiz/core/text"

// What people call the fields of a record in the heads of tables and in tagged text, in the languages in
// which such files are mostly written. Each is compared by its words.
var names = map[string][]string{
	"title": {"title", "article title", "titles", "document title", "título", "titulo", "título del artículo",
		"artículo", "article", "paper", "titel", "aufsatztitel", "titre", "titolo", "titel des artikels"},
	"abstract": {"abstract", "summary", "abstracts", "resumen", "resumo", "résumé", "zusammenfassung",
		"kurzfassung", "riassunto", "description", "descripción"},
	"authors": {"authors", "author", "author s", "author names", "author full names", "autores", "autor",
		"autor es", "autores as", "auteurs", "auteur", "autoren", "verfasser", "autori", "autore", "creator", "creators",
		"by"},
	"journal": {"journal", "source title", "journal title", "publication title", "publication", "periodical",
		"source", "container title", "revista", "título de la revista", "publicado en", "published in", "appeared in",
		"erschienen in", "fuente", "revue", "zeitschrift", "rivista", "journal name", "periódico"},
	"year": {"year", "publication year", "date", "publication date", "pub year", "year published", "issued",
		"año", "ano", "año de publicación", "fecha", "fecha de publicación", "année", "date de publication", "jahr",
		"erscheinungsjahr", "anno", "data"},
	"volume": {"volume", "vol", "volumen", "band", "jahrgang"},
	"issue": {"issue", "number", "issue number", "no", "número", "numero", "ejemplar", "heft", "ausgabe",
		"numéro", "fascicolo"},
	"firstPage": {"first page", "start page", "page start", "firstpage", "página inicial", "erste seite",
		"première page"},
	"lastPage": {"last page", "end page", "page end", "lastpage", "página final", "letzte seite", "dernière page"},
	Pages:      {"pages", "page", "page range", "páginas", "paginas", "seiten", "pagine"},
	"keywords": {"keywords", "keyword", "author keywords", "key words", "palabras clave", "palabras-clave",
		"descriptores de autor", "mots clés", "mots-clés", "schlagwörter", "schlüsselwörter", "stichwörter",
		"parole chiave", "palavras chave", "palavras-chave", "tags"},
	"headings": {"headings", "subject headings", "heading", "index terms", "descriptors", "descriptores",
		"encabezamientos", "controlled terms", "thesaurus terms", "deskriptoren", "descripteurs"},
	"types": {"types", "type", "document type", "publication type", "article type", "genre", "tipo",
		"tipo de documento", "tipo de publicación", "dokumenttyp", "publikationstyp", "type de document"},
	"languages": {"languages", "language", "lang", "idioma", "idiomas", "lengua", "sprache", "langue", "lingua"},
	"substances": {"substances", "substance", "chemicals", "chemical names", "sustancias", "sustancia",
		"substâncias", "substanzen", "stoffe", "sostanze"},
	"countries": {"countries", "country", "place", "país", "pais", "países", "land", "pays", "paese"},
	"doi":       {"doi", "digital object identifier"},
	"accession": {"accession", "accession number", "record number", "unique id", "record id", "número de registro",
		"número de acceso", "zugangsnummer"},
	"localId": {"localid", "local id", "id", "key", "citation key", "reference id", "identifier", "identificador"},
	"issn":    {"issn", "eissn", "issn print"},
	"urls":    {"urls", "url", "link", "links", "web address", "enlace", "dirección"},
	"otherTitles": {"othertitles", "other titles", "translated title", "title in english", "original title",
		"título traducido", "título original", "título en inglés", "übersetzter titel", "titre traduit", "originaltitel"},
	"otherAbstracts": {"otherabstracts", "other abstracts", "translated abstract", "abstract in english",
		"resumen en inglés", "resumen traducido"},
}

var byName = func() map[string]string {
	out := map[string]string{}
	for field, all := range names {
		for _, n := range all {
			out[text.Key(n)] = field
		}
	}
	return out
}()

// FieldOf returns the field that a column or tag of this name stands for, empty where it is not known.
func FieldOf(name string) string { return byName[text.Key(name)] }
