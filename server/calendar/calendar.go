// Package calendar writes events as an iCalendar (RFC 5545) that other calendars take
// in, and reads from one the times that are taken.
package calendar

import (
	"bytes"
	"fmt"
	"io"
	"slices"
	"strings"
	"time"
	"unicode/utf8"

	"github.com/emersion/go-ical"
	"github.com/teambition/rrule-go"
)

// An Event is a visit, or a day on which something is due.
type Event struct {
	UID       string // stays the same as long as the event is
	Seq       int    // counted on with each change
	Stamp     time.Time
	Title     string
	Text      string
	Place     string
	Start     time.Time // in the zone by whose clocks it is
	End       time.Time
	Day       string // of an event that lasts all day, YYYY-MM-DD; Start and End are then left out
	Cancelled bool
}

// wall is a time as the clock on the wall shows it, in RFC 5545's form.
const wall = "20060102T150405"

// Write writes a calendar. Lines are folded, and every zone that an event names is
// described.
func Write(w io.Writer, name string, events []Event) error {
	cal := ical.NewCalendar()
	cal.Props.SetText(ical.PropVersion, "2.0")
	cal.Props.SetText(ical.PropProductID, "-//Ivory Bridge//Diary//EN")
	cal.Props.SetText(ical.PropCalendarScale, "GREGORIAN")
	cal.Props.SetText(ical.PropMethod, "PUBLISH")
	cal.Props.SetText("X-WR-CALNAME", name)
	cal.Children = append(cal.Children, zones(events)...)
	for _, e := range events {
		cal.Children = append(cal.Children, component(e))
	}
	if len(cal.Children) == 0 {
		cal.Children = append(cal.Children, zone(time.UTC, time.Unix(0, 0), time.Unix(0, 0))) // a calendar is never empty
	}
	var plain bytes.Buffer
	if err := ical.NewEncoder(&plain).Encode(cal); err != nil {
		return fmt.Errorf("writing a calendar: %w", err)
	}
	_, err := w.Write(folded(plain.Bytes()))
	return err
}

func component(e Event) *ical.Component {
	c := ical.NewComponent(ical.CompEvent)
	c.Props.SetText(ical.PropUID, e.UID)
	c.Props.SetDateTime(ical.PropDateTimeStamp, e.Stamp.UTC())
	raw(c, ical.PropSequence, fmt.Sprint(e.Seq))
	c.Props.SetText(ical.PropSummary, e.Title)
	if e.Text != "" {
		c.Props.SetText(ical.PropDescription, e.Text)
	}
	if e.Place != "" {
		c.Props.SetText(ical.PropLocation, e.Place)
	}
	if e.Cancelled {
		raw(c, ical.PropStatus, "CANCELLED")
	} else {
		raw(c, ical.PropStatus, "CONFIRMED")
	}
	if e.Day != "" {
		day, _ := time.Parse(time.DateOnly, e.Day) // it was kept as a date
		c.Props.SetDate(ical.PropDateTimeStart, day)
		c.Props.SetDate(ical.PropDateTimeEnd, day.AddDate(0, 0, 1))
		raw(c, ical.PropTransparency, "TRANSPARENT")
		return c
	}
	at(c, ical.PropDateTimeStart, e.Start)
	at(c, ical.PropDateTimeEnd, e.End)
	return c
}

// raw sets a property whose value is no text.
func raw(c *ical.Component, name, value string) {
	p := ical.NewProp(name)
	p.Value = value
	c.Props.Set(p)
}

// at sets a time by the clocks of its zone. Where they show it twice it is told in UTC,
// since calendars don't agree on which of the two is meant.
func at(c *ical.Component, name string, t time.Time) {
	p := ical.NewProp(name)
	if t.Location() == time.UTC || twice(t) {
		p.Value = t.UTC().Format(wall) + "Z"
	} else {
		p.Params.Set(ical.PropTimezoneID, t.Location().String())
		p.Value = t.Format(wall)
	}
	c.Props.Set(p)
}

// twice reports whether the clocks of its zone show a time again, or showed it before.
func twice(t time.Time) bool {
	for _, change := range []time.Duration{30 * time.Minute, time.Hour, 2 * time.Hour} {
		if t.Add(change).Format(wall) == t.Format(wall) || t.Add(-change).Format(wall) == t.Format(wall) {
			return true
		}
	}
	return false
}

// zones describes each zone that events are in, over the years of the events.
func zones(events []Event) []*ical.Component {
	type span struct {
		in         *time.Location
		from, till time.Time
	}
	spans := map[string]*span{}
	var names []string
	for _, e := range events {
		if e.Day != "" || e.Start.Location() == time.UTC {
			continue
		}
		name := e.Start.Location().String()
		s := spans[name]
		if s == nil {
			s = &span{e.Start.Location(), e.Start, e.End}
			spans[name], names = s, append(names, name)
		}
		if e.Start.Before(s.from) {
			s.from = e.Start
		}
		if e.End.After(s.till) {
			s.till = e.End
		}
	}
	slices.Sort(names)
	list := make([]*ical.Component, 0, len(names))
	for _, name := range names {
		list = append(list, zone(spans[name].in, spans[name].from, spans[name].till))
	}
	return list
}

// zone describes a zone: what holds at a time, and each change until another.
func zone(in *time.Location, from, till time.Time) *ical.Component {
	z := ical.NewComponent(ical.CompTimezone)
	z.Props.SetText(ical.PropTimezoneID, in.String())
	t := from.In(in)
	start, _ := t.ZoneBounds()
	if start.IsZero() {
		start = time.Date(1970, 1, 1, 0, 0, 0, 0, time.UTC)
	}
	for {
		now := start.In(in)
		_, offset := now.Zone()
		_, before := start.Add(-time.Second).In(in).Zone()
		kind := ical.CompTimezoneStandard
		if now.IsDST() {
			kind = ical.CompTimezoneDaylight
		}
		c := ical.NewComponent(kind)
		raw(c, ical.PropDateTimeStart, start.UTC().Add(time.Duration(before)*time.Second).Format(wall))
		raw(c, ical.PropTimezoneOffsetFrom, offsetOf(before))
		raw(c, ical.PropTimezoneOffsetTo, offsetOf(offset))
		z.Children = append(z.Children, c)
		_, end := now.ZoneBounds()
		if end.IsZero() || end.After(till) {
			return z
		}
		start = end
	}
}

// offsetOf is an offset from UTC as +0130, or +013015.
func offsetOf(seconds int) string {
	sign := "+"
	if seconds < 0 {
		sign, seconds = "-", -seconds
	}
	text := fmt.Sprintf("%s%02d%02d", sign, seconds/3600, seconds/60%60)
	if s := seconds % 60; s > 0 {
		text += fmt.Sprintf("%02d", s)
	}
	return text
}

// longestLine is how many octets a line has, its break left out (RFC 5545, 3.1).
const longestLine = 75

// folded breaks long lines, never inside a letter.
func folded(plain []byte) []byte {
	var out bytes.Buffer
	for line := range strings.SplitSeq(strings.TrimSuffix(string(plain), "\r\n"), "\r\n") {
		most := longestLine
		for len(line) > most {
			cut := most
			for cut > 0 && !utf8.RuneStart(line[cut]) {
				cut--
			}
			out.WriteString(line[:cut] + "\r\n ")
			line, most = line[cut:], longestLine-1
		}
		out.WriteString(line + "\r\n")
	}
	return out.Bytes()
}

// A Taken is a time that is taken.
type Taken struct {
	From, To time.Time
	What     string
}

// mostTaken is how many times one calendar can bring.
const mostTaken = 5000

// Read reads the times that a calendar takes between two moments, those that come again
// and again among them. What is cancelled or takes no time, and days as a whole, are
// left out. Times without a zone are in the one given.
func Read(r io.Reader, in *time.Location, since, until time.Time) ([]Taken, error) {
	cal, err := ical.NewDecoder(r).Decode()
	if err != nil {
		return nil, fmt.Errorf("this is no calendar: %w", err)
	}
	var list []Taken
	for _, e := range cal.Events() {
		times, err := takes(e, in, since, until)
		if err != nil {
			return nil, err
		}
		if list = append(list, times...); len(list) > mostTaken {
			return nil, fmt.Errorf("it brings more than %d times", mostTaken)
		}
	}
	return list, nil
}

func takes(e ical.Event, in *time.Location, since, until time.Time) ([]Taken, error) {
	start := e.Props.Get(ical.PropDateTimeStart)
	status, _ := e.Props.Text(ical.PropStatus)
	free, _ := e.Props.Text(ical.PropTransparency)
	if start == nil || start.ValueType() == ical.ValueDate || status == "CANCELLED" || free == "TRANSPARENT" {
		return nil, nil
	}
	from, err := e.DateTimeStart(in)
	if err != nil {
		return nil, fmt.Errorf("a time in it can't be read: %w", err)
	}
	to, err := e.DateTimeEnd(in)
	if err != nil {
		return nil, fmt.Errorf("a time in it can't be read: %w", err)
	}
	what, _ := e.Props.Text(ical.PropSummary)
	last := to.Sub(from)
	if last <= 0 {
		return nil, nil
	}
	starts := []time.Time{from}
	if option, err := e.Props.RecurrenceRule(); err != nil {
		return nil, fmt.Errorf("a rule in it can't be read: %w", err)
	} else if option != nil {
		option.Dtstart = from
		rule, err := rrule.NewRRule(*option)
		if err != nil {
			return nil, fmt.Errorf("a rule in it can't be read: %w", err)
		}
		starts = rule.Between(since.Add(-last), until, true)
	}
	var list []Taken
	for _, s := range starts {
		if except(e, s, in) || !s.Before(until) || !s.Add(last).After(since) {
			continue
		}
		list = append(list, Taken{From: s, To: s.Add(last), What: what})
	}
	return list, nil
}

// except reports a time that an event leaves out.
func except(e ical.Event, t time.Time, in *time.Location) bool {
	return slices.ContainsFunc(e.Props[ical.PropExceptionDates], func(p ical.Prop) bool {
		out, err := p.DateTime(in)
		return err == nil && out.Equal(t)
	})
}
