// Package postings packs long ascending lists, such as of the records that hold a word, each with how often: a
// member as its distance from the one before, in a varint whose last bit says that a number of times above one
// follows. Two or three bytes in all.
package postings

import "encoding/binary"

// Append adds a member to a list: how far it is from the one before, and how often it counts, at least once.
func Append(list []byte, step uint32, times int32) []byte {
	if times == 1 {
		return binary.AppendUvarint(list, uint64(step)<<1)
	}
	return binary.AppendUvarint(binary.AppendUvarint(list, uint64(step)<<1|1), uint64(times))
}

// Next returns how far on the next member of a list is, how often it counts, and what is left of the list, which is
// not empty.
func Next(list []byte) (step uint32, times int32, rest []byte) {
	if list[0] < 0x80 && list[0]&1 == 0 { // as most are
		return uint32(list[0] >> 1), 1, list[1:]
	}
	s, n := binary.Uvarint(list)
	list, times = list[n:], 1
	if s&1 != 0 {
		t, n := binary.Uvarint(list)
		list, times = list[n:], int32(t)
	}
	return uint32(s >> 1), times, list
}
