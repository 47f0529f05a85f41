package letters

import (
	"context"
	"crypto/tls"
	"errors"
	"fmt"
	"net"
	"strconv"
	"strings"
	"time"

	"github.com/wneessen/go-mail"
)

// SMTP sends letters through a mail server.
type SMTP struct {
	Server   string // host:port
	User     string // empty: it asks for none
	Password string
	From     string // address that letters come from
	Security string // "starttls", "tls" or "none"

	Trust *tls.Config // whom to believe; nil: whom the machine believes
}

// patience is how long a mail server may take for one letter.
const patience = 30 * time.Second

// client checks the settings; an error says which flag to mend.
func (p SMTP) client() (*mail.Client, error) {
	host, port, err := net.SplitHostPort(p.Server)
	if err != nil {
		return nil, fmt.Errorf("reading --mail-server %q: write it as mail.example:587", p.Server)
	}
	number, err := strconv.Atoi(port)
	if err != nil {
		return nil, fmt.Errorf("reading --mail-server %q: its port is not a number", p.Server)
	}
	options := []mail.Option{mail.WithPort(number), mail.WithTimeout(patience), mail.WithoutNoop()}
	switch p.Security {
	case "starttls":
		options = append(options, mail.WithTLSPolicy(mail.TLSMandatory))
	case "tls":
		options = append(options, mail.WithSSL())
	case "none":
		options = append(options, mail.WithTLSPolicy(mail.NoTLS))
	default:
		return nil, fmt.Errorf("reading --mail-security %q: it is starttls, tls or none", p.Security)
	}
	if p.Trust != nil {
		options = append(options, mail.WithTLSConfig(p.Trust))
	}
	if p.User != "" {
		options = append(options, mail.WithSMTPAuth(mail.SMTPAuthAutoDiscover), mail.WithUsername(p.User), mail.WithPassword(p.Password))
	}
	client, err := mail.NewClient(host, options...)
	if err != nil {
		return nil, fmt.Errorf("reading the settings of the mail server: %w", err)
	}
	return client, nil
}

// Check reports whether the settings can be used at all; nothing is sent.
func (p SMTP) Check() error {
	if _, err := p.client(); err != nil {
		return err
	}
	if err := mail.NewMsg().From(p.From); err != nil {
		return fmt.Errorf("reading --mail-from %q: write an address, as diary@yard.example", p.From)
	}
	return nil
}

// Send sends one letter.
func (p SMTP) Send(ctx context.Context, l Mail) error {
	client, err := p.client()
	if err != nil {
		return err
	}
	m, err := p.message(l)
	if err != nil {
		return &RefusedError{err}
	}
	err = client.DialAndSendWithContext(ctx, m)
	var said *mail.SendError
	if errors.As(err, &said) && !said.IsTemp() && said.ErrorCode() >= 500 {
		return &RefusedError{err}
	}
	return err
}

func (p SMTP) message(l Mail) (*mail.Msg, error) {
	m := mail.NewMsg()
	if err := m.FromFormat(l.From, p.From); err != nil {
		return nil, fmt.Errorf("writing who sends it: %w", err)
	}
	if err := m.AddToFormat(l.Name, l.Address); err != nil {
		return nil, fmt.Errorf("this is not an address that mail can go to: %w", err)
	}
	m.SetMessageIDWithValue(l.ID + p.From[strings.LastIndex(p.From, "@"):])
	m.SetDateWithValue(l.At)
	m.Subject(l.Subject)
	m.SetGenHeader("Auto-Submitted", "auto-generated")
	if l.Stop != "" {
		m.SetGenHeader(mail.HeaderListUnsubscribe, "<"+l.Stop+">")
		m.SetGenHeader(mail.HeaderListUnsubscribePost, "List-Unsubscribe=One-Click")
	}
	m.SetBodyString(mail.TypeTextPlain, l.Body)
	if l.Calendar != "" {
		m.AttachReadSeeker("visits.ics", strings.NewReader(l.Calendar), mail.WithFileContentType("text/calendar; charset=utf-8"))
	}
	return m, nil
}
