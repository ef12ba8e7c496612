package written

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"tamiz/app/figures"
	"tamiz/app/rounds"
	"tamiz/app/runs"
)

func TestAFigureIsWrittenWithItsInterval(t *testing.T) {
	for want, f := range map[string]runs.OverlapFigure{
		"1,240":                         {Works: 1240, Low: 1240, High: 1240},
		"about 1,240 (1,190 to 12,300)": {Works: 1240, Low: 1190, High: 12300},
		"0":                             {},
	} {
		assert.Equal(t, want, figure(f))
	}
}

func TestAVersionIsCalledByItsNameOrByWhyItWasKept(t *testing.T) {
	for want, v := range map[string]figures.Version{
		"Draft":                         {ID: 1, Name: "Draft", Why: "plan", Revision: 7},
		"as it is now":                  {Revision: 7},
		"before terms were pruned":      {ID: 1, Why: "prune", Revision: 7},
		"revision 7":                    {ID: 1, Why: "something newer", Revision: 7},
		"before the vocabulary changed": {ID: 3, Why: "vocabulary"},
	} {
		assert.Equal(t, want, named(v))
	}
	assert.Empty(t, when(figures.Version{}), "what is not kept was never made")
}

func TestSeveralAreListedAsASentenceDoes(t *testing.T) {
	assert.Equal(t, "", listed(nil))
	assert.Equal(t, "Almagre", listed([]string{"Almagre"}))
	assert.Equal(t, "Almagre and Surco", listed([]string{"Almagre", "Surco"}))
	assert.Equal(t, "Almagre, Surco and Vilano", listed([]string{"Almagre", "Surco", "Vilano"}))
	assert.Equal(t, "1 work", plural(1, "work", "works"))
	assert.Equal(t, "0 works", plural(0, "work", "works"))
	assert.Equal(t, "1,001 works", plural(1001, "work", "works"))
}

func TestMostComesFirstAndWhatIsAsManyByName(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		of := rapid.MapOf(rapid.StringMatching(`[a-c]{1,3}`), rapid.IntRange(0, 3)).Draw(t, "of")
		got := byCount(of)
		assert.Len(t, got, len(of))
		for i := 1; i < len(got); i++ {
			a, b := got[i-1], got[i]
			assert.True(t, of[a] > of[b] || of[a] == of[b] && a < b, "%v", got)
		}
	})
}

// No file of a bundle stands over another, whatever they are called and whatever capitals a disk knows.
func TestEachFileOfABundleHasANameOfItsOwn(t *testing.T) {
	used := map[string]bool{}
	var got []string
	for _, name := range []string{"a.ris", "A.RIS", "a.ris", "a", "a", ".x"} {
		got = append(got, unused(used, name))
	}
	assert.Equal(t, []string{"a.ris", "A (2).RIS", "a (3).ris", "a", "a (2)", ".x"}, got)
}

func TestEveryWayOfARoundHasAName(t *testing.T) {
	for _, way := range []string{rounds.Backward, rounds.Forward, rounds.Both, rounds.Author, rounds.Journal,
		rounds.Cited, rounds.Alike} {
		assert.NotEmpty(t, wayName(way), way)
	}
}
