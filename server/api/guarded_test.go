package api

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

func TestAPanicOfTheRulesIsAnError(t *testing.T) {
	err := Guarded(func() error { panic("no words") })
	assert.True(t, IsBroken(err))
	assert.ErrorContains(t, err, "no words")
	assert.NoError(t, Guarded(func() error { return nil }))
}
