package main

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/server/letters"
)

// Letters go where a mail server is named, and what is wrong with it is said by its flag;
// the demo keeps its own.
func TestTheSettingsOfLetters(t *testing.T) {
	good := settings{command: "serve", hour: 18, public: "https://yard.example/", mail: letters.SMTP{Server: "mail.example:587", From: "diary@yard.example", Security: "starttls"}}
	c, err := good.letters()
	require.NoError(t, err)
	assert.NotNil(t, c.Post)
	assert.Equal(t, "https://yard.example", c.Public)
	none := settings{command: "serve"}
	c, err = none.letters()
	require.NoError(t, err)
	assert.Equal(t, []any{nil, false}, []any{c.Post, c.Tray})
	demo := settings{command: "demo", hour: 23}
	c, err = demo.letters()
	require.NoError(t, err)
	assert.True(t, c.Tray)
	for flag, change := range map[string]func(*settings){
		"--letters-hour": func(o *settings) { o.hour = 24 }, "hour is -1": func(o *settings) { o.hour = -1 },
		"--mail-from": func(o *settings) { o.mail.From = "" }, "--mail-server": func(o *settings) { o.mail.Server = "mail" },
	} {
		o := good
		change(&o)
		_, err := o.letters()
		require.ErrorContains(t, err, flag)
	}
}
