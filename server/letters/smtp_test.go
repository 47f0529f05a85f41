package letters

import (
	"context"
	"errors"
	"io"
	"net"
	"net/mail"
	"strings"
	"testing"
	"time"

	"github.com/emersion/go-smtp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// taker is a mail server that takes what comes, or answers with a refusal.
type taker struct {
	got    []string
	to     []string
	refuse *smtp.SMTPError
}

func (k *taker) NewSession(*smtp.Conn) (smtp.Session, error) { return k, nil }
func (k *taker) Mail(string, *smtp.MailOptions) error        { return nil }
func (k *taker) Reset()                                      {}
func (k *taker) Logout() error                               { return nil }

func (k *taker) Rcpt(to string, _ *smtp.RcptOptions) error {
	if k.refuse != nil {
		return k.refuse
	}
	k.to = append(k.to, to)
	return nil
}

func (k *taker) Data(r io.Reader) error {
	text, err := io.ReadAll(r)
	k.got = append(k.got, string(text))
	return err
}

func served(t *testing.T) (*taker, SMTP) {
	k := &taker{}
	server := smtp.NewServer(k)
	at, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	done := make(chan error, 1)
	go func() { done <- server.Serve(at) }()
	t.Cleanup(func() {
		assert.NoError(t, server.Close())
		<-done
	})
	return k, SMTP{Server: at.Addr().String(), From: "diary@yard.example", Security: "none"}
}

var aLetter = Mail{
	ID: "one", From: "Wren Hallow", Name: "Inés Ortega", Address: "ines@example.org", Subject: "Wren Hallow: 2 June: 1 visit", Body: "Tomorrow\n  10:00: Moth\n",
	Calendar: "BEGIN:VCALENDAR\r\n", Stop: "https://yard.example/api/letters/stop/abc", At: time.Date(2026, 6, 1, 18, 0, 0, 0, time.UTC),
}

func TestALetterGoesThroughAMailServer(t *testing.T) {
	k, post := served(t)
	require.NoError(t, post.Check())
	require.NoError(t, post.Send(context.Background(), aLetter))
	require.Equal(t, []string{"ines@example.org"}, k.to)
	m, err := mail.ReadMessage(strings.NewReader(k.got[0]))
	require.NoError(t, err)
	to, err := m.Header.AddressList("To")
	require.NoError(t, err)
	assert.Equal(t, "Inés Ortega", to[0].Name)
	assert.Equal(t, []string{"<one@yard.example>", "auto-generated", "<https://yard.example/api/letters/stop/abc>", "List-Unsubscribe=One-Click"},
		[]string{m.Header.Get("Message-ID"), m.Header.Get("Auto-Submitted"), m.Header.Get("List-Unsubscribe"), m.Header.Get("List-Unsubscribe-Post")})
	assert.Contains(t, k.got[0], "10:00: Moth")
	assert.Contains(t, k.got[0], `filename="visits.ics"`)
}

// What a server refuses for good is told from what it refuses for now, and from a server
// that is not there.
func TestRefusals(t *testing.T) {
	k, post := served(t)
	var refused *RefusedError
	for code, forGood := range map[int]bool{450: false, 451: false, 550: true, 553: true} {
		k.refuse = &smtp.SMTPError{Code: code, EnhancedCode: smtp.EnhancedCode{code / 100, 1, 1}, Message: "no"}
		err := post.Send(context.Background(), aLetter)
		require.Error(t, err)
		assert.Equal(t, forGood, errors.As(err, &refused), "%d: %v", code, err)
	}
	nowhere := post
	nowhere.Server = "127.0.0.1:1"
	err := nowhere.Send(context.Background(), aLetter)
	require.Error(t, err)
	assert.False(t, errors.As(err, &refused), "it may come back")
	strange := aLetter
	strange.Address = "not an address"
	assert.ErrorAs(t, post.Send(context.Background(), strange), &refused)
}

func TestSettingsOfAMailServer(t *testing.T) {
	good := SMTP{Server: "mail.example:587", From: "diary@yard.example", Security: "starttls"}
	require.NoError(t, good.Check())
	for flag, change := range map[string]func(*SMTP){
		"--mail-server":   func(p *SMTP) { p.Server = "mail.example" },
		"port":            func(p *SMTP) { p.Server = "mail.example:smtp" },
		"--mail-security": func(p *SMTP) { p.Security = "some" },
		"--mail-from":     func(p *SMTP) { p.From = "the yard" },
	} {
		p := good
		change(&p)
		require.ErrorContains(t, p.Check(), flag)
	}
}
