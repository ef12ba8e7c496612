package problems

import (
	"errors"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/core/text"
	"tamiz/store"
)

func TestWhatIsNotThereIsSaidAndOtherErrorsPass(t *testing.T) {
	var p *Problem
	require.ErrorAs(t, Gone(fmt.Errorf("reading: %w", store.ErrNone), "sample"), &p)
	assert.Equal(t, Problem{Type: "sample-gone", Status: 404, Title: "This sample is not there, or was deleted."}, *p)
	other := errors.New("the database is busy")
	assert.Equal(t, other, Gone(other, "sample"))
	assert.NoError(t, Gone(nil, "sample"))
}

func TestWordsBecomeASentence(t *testing.T) {
	for words, sentence := range map[string]string{
		"": "", "heat": "Heat.", "Heat.": "Heat.", "écart": "Écart.", "ß is a letter": "ß is a letter.", "手疹": "手疹.",
	} {
		assert.Equal(t, sentence, Sentence(words))
	}
}

func TestOnlyWhatWasMadeForPeopleIsToldThem(t *testing.T) {
	said := fmt.Errorf("saving: %w", Invalid("name", "A name has 1 to %d characters.", 200))
	assert.Equal(t, "A name has 1 to 200 characters.", Told(said))
	assert.Equal(t, "Something went wrong in Tamiz itself.", Told(errors.New("pq: relation does not exist")))
}

func TestARefusalSaysWhyAndWhat(t *testing.T) {
	_, err := text.ParsePattern("a*")
	if err == nil {
		_, err = text.ParsePattern("*")
	}
	require.Error(t, err)
	r := RefusalOf(err)
	assert.NotEqual(t, "other", r.Reason, "%v", err)
	assert.NotEmpty(t, r.Message)
	assert.Equal(t, "other", RefusalOf(errors.New("something else")).Reason)
}
