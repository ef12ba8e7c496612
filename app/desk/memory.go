package desk

import (
	"bufio"
	"os"
	"strconv"
	"strings"

	"tamiz/core/bib"
)

// KeepWithin says how many bytes the process may take; 0 is half of what the machine has. What figures are worked out from, and what is
// being worked out, has all but a part for the rest of the program. Call it before Start.
func (a *Service) KeepWithin(bytes int64) {
	if bytes <= 0 {
		bytes = machineMemory() / 2
	}
	a.Pools.bound(max(bytes/2, bytes-bytesOfProgram))
}

// bytesOfProgram is what the program takes when nothing is looked at.
const bytesOfProgram = 64 << 20

// What work takes while it is done, beside what is kept of it before. Measured with 50,000 records of 200 words (make bench, part
// memory); an estimate for others.
const (
	bytesOfReading  = 5   // for each byte of the records as they are stored: their texts, and their index while it is made
	bytesOfCounting = 35  // for each word in the text: counting its n-grams
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

// What is kept of a record beside its text: the record itself, its places in the index, its items. Measured with
// 200,000 records; an estimate for others.
const (
	bytesOfRecord = 1200
	bytesOfText   = 4 // for each byte
)

func recordBytes(records []*bib.Record) (n int64) {
	for _, r := range records {
		text := len(r.Title) + len(r.Abstract) + len(r.Journal)
		for _, k := range r.Keywords {
			text += len(k)
		}
		for _, h := range r.Headings {
			text += len(h.Label) + 16
		}
		for _, a := range r.Authors {
			text += len(a.Family) + len(a.Given)
		}
		n += bytesOfRecord + bytesOfText*int64(text)
		for _, f := range r.References { // they are kept as they came, and not indexed
			n += int64(96 + len(f.DOI) + len(f.Local) + len(f.Title) + len(f.Author) + len(f.Text))
		}
	}
	return n
}
