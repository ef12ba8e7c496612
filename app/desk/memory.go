package desk

import (
	"bufio"
	"os"
	"strconv"
	"strings"

	"tamiz/core/bib"
)

// KeepWithin says how many bytes may be taken by what is kept of samples, vocabularies and key studies together;
// 0 is a third of what the machine has. Call it before Start.
func (a *Service) KeepWithin(bytes int64) {
	if bytes <= 0 {
		bytes = machineMemory() / 3
	}
	a.Pools.bound(bytes)
}

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
