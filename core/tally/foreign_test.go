package tally_test

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"

	"tamiz/core/bib"
	"tamiz/core/tally"
	"tamiz/demo"
)

func TestTextThatDoesNotReadLikeEnglishIsTold(t *testing.T) {
	for title, foreign := range map[string]int{
		"Rest and shade for the crews who cut cane in the heat": 0,
		"Salud de los jornaleros y el calor en los campos":      1,
		"Saúde dos trabalhadores rurais e o calor nas lavouras": 1,
		"熱中症 の 予防 と 農業":                                         1,
		"Heat, shade":                                           0, // too short to say
	} {
		assert.Equal(
			t,
			foreign,
			must(tally.NewPool(context.Background(), []*bib.Record{{Title: title}}, nil)).Foreign(),
			title,
		)
	}
	p := must(tally.NewPool(context.Background(), demo.NewWorld(1, 300).Records, nil))
	p.Keep()
	assert.Zero(t, p.Foreign())
}
