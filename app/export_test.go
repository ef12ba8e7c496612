package app

// Dated are the columns that hold when something of a review was done.
func Dated() (out []string) {
	for _, d := range dated {
		for _, c := range d.columns {
			out = append(out, d.table+"."+c)
		}
	}
	return out
}
