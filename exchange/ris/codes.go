package ris

// codes are the kinds of reference that TY can name. They say what kind of entry a file holds, not what kind of
// publication the trade calls it.
var codes = map[string]bool{"ABST": true, "ADVS": true, "AGGR": true, "ANCIENT": true, "ART": true, "BILL": true, "BLOG": true, "BOOK": true, "CASE": true, "CHAP": true, "CHART": true,
	"CLSWK": true, "COMP": true, "CONF": true, "CPAPER": true, "CTLG": true, "DATA": true, "DBASE": true, "DICT": true, "EBOOK": true, "ECHAP": true, "EDBOOK": true, "EJOUR": true,
	"ELEC": true, "ENCYC": true, "EQUA": true, "FIGURE": true, "GEN": true, "GOVDOC": true, "GRANT": true, "HEAR": true, "ICOMM": true, "INPR": true, "JFULL": true, "JOUR": true,
	"LEGAL": true, "MANSCPT": true, "MAP": true, "MGZN": true, "MPCT": true, "MULTI": true, "MUSIC": true, "NEWS": true, "PAMP": true, "PAT": true, "PCOMM": true, "RPRT": true,
	"SER": true, "SLIDE": true, "SOUND": true, "STAND": true, "STAT": true, "THES": true, "UNBILL": true, "UNPB": true, "VIDEO": true, "WEB": true}

// IsCode reports whether a type is a code of the format rather than a type of the trade.
func IsCode(kind string) bool { return codes[kind] }
