package desk

import (
	"bufio"
	"os"
	"strconv"
	"strings"

	"tamiz/core/bib"
)

// KeepWithin says how many bytes the process may take; 0 is half of what the machine has. What figures are worked
// out from, and what is being worked out, has all but a part for the rest of the program. Call it before Start.
func (a *Service) KeepWithin(bytes int64) {
	if bytes <= 0 {
		bytes = machineMemory() / 2
	}
	a.Pools.bound(max(bytes/2, bytes-bytesOfProgram))
}

// bytesOfProgram is what the program takes when nothing is looked at.
const bytesOfProgram = 64 << 20

// What work takes while it is done, beside what is kept of it before. Measured with 50,000 records of 200 words
// (make bench, part memory); an estimate for others.
const (
	bytesOfCounting = 31  // for each word in the text: counting its n-grams
	bytesOfCompany  = 42  // for each word in the text: the company of words
	bytesOfTallied  = 120 // for each n-gram: a tally of a set
)

// machineMemory returns how many bytes of memory this process may use: those of the machine or, where it is less,
// of the group that it runs in.
func machineMemory() int64 {
	const unknown = 4 << 30
	total := int64(0)
	if f, err := os.Open("/proc/meminfo"); err == nil {
		defer f.Close()
		for lines := bufio.NewScanner(f); lines.Scan(); {
			if fields := strings.Fields(lines.Text()); len(fields) > 1 && fields[0] == "MemTotal:" {
				n, _ := strconv.ParseInt(fields[1], 10, 64)
				total = n << 10
				break
			}
		}
	}
	if b, err := os.ReadFile("/sys/fs/cgroup/memory.max"); err == nil {
		if n, err := strconv.ParseInt(strings.TrimSpace(string(b)), 10, 64); err == nil && (total == 0 || n < total) {
			total = n
		}
	}
	if total == 0 {
		total = unknown
	}
	return total
}

// readingBytes returns what it takes to read so many records, of so many bytes as they are stored, and to index
// them: what is kept of them, and what the index takes while it is made.
func readingBytes(records int, stored int64) int64 { return stored/3*4 + int64(records)*2500 }

// What is kept of a record beside its texts, and of each of these, about; what the index keeps it tells itself.
const (
	bytesOfRecord = 800
	bytesOfString = 24
)

func recordBytes(records []*bib.Record) (n int64) {
	for _, r := range records {
		n += bytesOfRecord
		text := func(all ...string) {
			for _, s := range all {
				n += bytesOfString + int64(len(s))
			}
		}
		text(r.Title, r.Abstract, r.Journal, r.DOI, r.ID)
		text(r.Keywords...)
		for _, h := range r.Headings {
			text(h.Label)
			text(h.Qualifiers...)
		}
		for _, a := range r.Authors {
			text(a.Family, a.Given)
		}
		for _, o := range r.Others {
			text(o.Title, o.Abstract)
		}
		for _, f := range r.References { // they are kept as they came, and not indexed
			n += int64(96 + len(f.DOI) + len(f.Local) + len(f.Title) + len(f.Author) + len(f.Text))
		}
	}
	return n
}
